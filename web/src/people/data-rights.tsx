/** All data of one client: to hand over as a file, or to delete for good after their name is typed. */
import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { Client } from '@waxwing/core/client';
import { useState } from 'react';
import { useNavigate } from 'react-router';

import { call } from '../api/http';
import { SeenBy } from '../door/seen-by';
import { Wrong } from '../shell/states';
import { say } from '../words/say';

export function DataRights({ client }: { client: Client }) {
  const [asked, ask] = useState(false);
  const [typed, type] = useState('');
  const queries = useQueryClient();
  const navigate = useNavigate();
  const remove = useMutation({
    mutationFn: () => call('DELETE /clients/{id}', { id: client.id, body: { name: typed } }),
    onSuccess: async () => {
      await navigate('/people');
      queries.clear();
    },
  });
  return (
    <div className="space-y-2">
      <SeenBy clientId={client.id} />
      <div className="flex flex-wrap gap-2">
        <a className="btn btn-sm" href={`/api/clients/${client.id}/file`} download={`${client.name}.json`}>
          {say.people.exportAllData}
        </a>
        <button type="button" className="btn btn-sm" onClick={() => ask(!asked)}>
          {say.people.delete}
        </button>
      </div>
      {asked && (
        <form
          className="border-error space-y-2 border-l-4 pl-3"
          onSubmit={(event) => {
            event.preventDefault();
            remove.mutate();
          }}
        >
          <p>{say.people.thisDeletesTheirSessionsAnd(client.name)}</p>
          <label className="block">
            {say.people.typeTheNameToConfirm}
            <input className="input mt-1 block w-64" value={typed} onChange={(event) => type(event.target.value)} />
          </label>
          <button type="submit" className="btn btn-error" disabled={typed.trim() !== client.name || remove.isPending}>
            {say.people.deleteForGood}
          </button>
          <Wrong error={remove.error} />
        </form>
      )}
    </div>
  );
}
