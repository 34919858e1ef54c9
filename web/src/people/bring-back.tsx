/** Bringing a client back from a file that was exported. A damaged file is refused with what is wrong, and nothing is taken. */
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';

import { call } from '../api/http';
import { Wrong } from '../shell/states';
import { say } from '../words/say';

export function BringBack() {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const restore = useMutation({
    mutationFn: (file: File) => call('POST /clients/file', { body: file }),
    onSuccess: async (client) => {
      await queries.invalidateQueries();
      await navigate(`/people/${client.id}`);
    },
  });
  return (
    <div>
      <label className="btn btn-sm">
        {say.people.restoreFromAFile}
        <input
          type="file"
          accept="application/json,.json"
          className="sr-only"
          onChange={({ target }) => {
            const file = target.files?.[0];
            target.value = '';
            if (file) restore.mutate(file);
          }}
        />
      </label>
      <Wrong error={restore.error} />
    </div>
  );
}
