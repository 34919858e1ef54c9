/** A pain of an earlier session: it stands until somebody says that it is over, and whose word that was is kept. */
import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { PainAtPlace } from '@waxwing/core/client';
import { useState } from 'react';

import { call } from '../api/http';
import { clientKeys } from '../api/keys';
import { keepClient } from '../api/queries';
import { Wrong } from '../shell/states';
import { today } from '../words/dates';
import { say } from '../words/say';

export function PainOver({ clientId, pain }: { clientId: string; pain: PainAtPlace }) {
  const [asking, ask] = useState(false);
  const [by, setBy] = useState('');
  const queries = useQueryClient();
  const end = useMutation({
    mutationFn: async () => {
      const { version, painsOver } = await call('GET /clients/{id}', { id: clientId });
      const over = pain.ids.map((id) => ({ pain: id, on: today(), by: by.trim() }));
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
    <form
      autoComplete="off"
      className="my-1 flex w-full flex-wrap items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        end.mutate();
      }}
    >
      {pain.quality === 'sharp' && <p className="w-full">{say.people.sharpPainFirst}</p>}
      <input
        className="input w-56"
        aria-label={say.people.onWhoseWordIsItOver}
        placeholder={say.people.onWhoseWord}
        maxLength={200}

        autoFocus
        value={by}
        onChange={({ target }) => setBy(target.value)}
      />
      <button type="submit" className="btn btn-primary" disabled={by.trim() === '' || end.isPending}>
        {say.people.painIsOver(named)}
      </button>
      <button type="button" className="btn btn-ghost" onClick={() => ask(false)}>
        {say.common.cancel}
      </button>
      <Wrong error={end.error} />
    </form>
  );
}
