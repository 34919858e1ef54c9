/** Pictures kept of a client's clips, with what was read from them. Private, as the rest of the file. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Client, Still } from '@waxwing/core/client';
import { useState } from 'react';

import { call } from '../api/http';
import { clientStillsQuery, movementsQuery } from '../api/queries';
import { Dialog } from '../shell/dialog';
import { Section } from '../shell/page';
import { Wrong } from '../shell/states';
import { dayWords } from '../words/dates';
import { say } from '../words/say';

export function KeptStills({ client }: { client: Client }) {
  const stills = useQuery(clientStillsQuery(client.id)).data ?? [];
  const [open, setOpen] = useState<string | null>(null);
  const shown = stills.find(({ id }) => id === open);
  if (stills.length === 0) return null;
  return (
    <Section title={say.people.picturesKeptOfClips}>
      <ul className="grid grid-cols-3 gap-2">
        {stills.map((still) => (
          <li key={still.id}>
            <button type="button" className="block w-full cursor-pointer text-left" onClick={() => setOpen(still.id)}>
              <Shown still={still} className="bg-neutral h-32 w-full object-contain" />
              <Named still={still} />
            </button>
          </li>
        ))}
      </ul>
      {shown && <One key={shown.id} client={client} still={shown} onClose={() => setOpen(null)} />}
    </Section>
  );
}

const Shown = ({ still, className }: { still: Still; className: string }) => (
  <img src={`data:image/jpeg;base64,${still.picture}`} alt="" className={className} />
);

function Named({ still }: { still: Still }) {
  const movements = useQuery(movementsQuery).data ?? [];
  return (
    <span className="block leading-tight">
      {movements.find(({ id }) => id === still.movementId)?.name ?? still.movementId}
      <span className="quiet block text-sm">{dayWords(still.takenAt)}</span>
    </span>
  );
}

function One({ client, still, onClose }: { client: Client; still: Still; onClose: () => void }) {
  const cache = useQueryClient();
  const remove = useMutation({
    mutationFn: () => call('DELETE /clients/{clientId}/stills/{id}', { clientId: client.id, id: still.id }),
    onSuccess: async () => {
      await cache.invalidateQueries({ queryKey: clientStillsQuery(client.id).queryKey });
      onClose();
    },
  });
  return (
    <Dialog title={say.people.keptPicture} onClose={onClose}>
      <Shown still={still} className="bg-neutral mb-3 max-h-[60vh] w-full object-contain" />
      <Named still={still} />
      <p className="my-3">{still.says}</p>
      <button type="button" className="btn" disabled={remove.isPending} onClick={() => remove.mutate()}>
        {say.people.deleteThisPictureForGood}
      </button>
      <Wrong error={remove.error} />
    </Dialog>
  );
}
