/** A pain of an earlier session: it stands until somebody says that it is over, and whose word that was is kept. */
import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { PainAtPlace } from '@waxwing/core/client';
import { useState } from 'react';

import { call } from '../api/http';
import { clientKeys } from '../api/keys';
import { keepClient } from '../api/queries';
import { today } from '../words/dates';
import { say } from '../words/say';
import { WhoseWord } from './whose-word';

export function PainOver({ clientId, pain }: { clientId: string; pain: PainAtPlace }) {
  const [asking, ask] = useState(false);
  const queries = useQueryClient();
  const end = useMutation({
    mutationFn: async (by: string) => {
      const { version, painsOver } = await call('GET /clients/{id}', { id: clientId });
      const over = pain.ids.map((id) => ({ pain: id, on: today(), by }));
      return call('PATCH /clients/{id}', { id: clientId, body: { version, painsOver: [...painsOver, ...over] } });
    },
    onSuccess: (saved) => {
      keepClient(queries, saved);
      return queries.invalidateQueries({ queryKey: clientKeys.record(clientId) });
    },
  });
  const named = say.common.painAt(pain.quality, pain.place ?? '');
  if (!asking)
    return (
      <button type="button" className="btn btn-sm" aria-label={say.people.painIsOver(named)} onClick={() => ask(true)}>
        {say.people.itIsOver}
      </button>
    );
  return (
    <WhoseWord
      asks={say.people.onWhoseWordIsItOver}
      ends={say.people.painIsOver(named)}
      pending={end.isPending}
      error={end.error}
      onSay={(by) => end.mutate(by)}
      onCancel={() => ask(false)}
    >
      {pain.quality === 'sharp' && <p className="w-full">{say.people.sharpPainFirst}</p>}
    </WhoseWord>
  );
}
