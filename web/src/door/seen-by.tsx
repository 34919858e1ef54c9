/** Who sees a client, besides the owner of the studio. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';

import { accountsQuery, trainersQuery } from '../api/door';
import { call } from '../api/http';
import { Wrong } from '../shell/states';
import { say } from '../words/say';
import { useVisitor } from './use-door';

/** Nothing where only one person works. */
export function SeenBy({ clientId }: { clientId: string }) {
  const accounts = useQuery(accountsQuery).data ?? [];
  const seen = useQuery(trainersQuery(clientId));
  const visitor = useVisitor();
  const queries = useQueryClient();
  const give = useMutation({
    mutationFn: (accountIds: string[]) => call('POST /clients/{id}/trainers', { id: clientId, body: { accountIds } }),
    onSuccess: () => queries.invalidateQueries({ queryKey: trainersQuery(clientId).queryKey }),
  });
  const others = accounts.filter(({ role, shutOutAt }) => role !== 'owner' && shutOutAt === null);
  // What was pressed shows at once, and goes back if it is refused.
  const now = give.isPending ? give.variables : seen.data;
  if (others.length === 0 || !now) return null;
  return (
    <fieldset className="mt-4">
      <legend className="mb-1 font-bold">{say.door.seenBy}</legend>
      {others.map(({ id, name }) => (
        <label key={id} className="flex min-h-11 items-center gap-3">
          <input
            type="checkbox"
            className="checkbox"
            checked={now.includes(id)}
            disabled={give.isPending || (id === visitor?.id && visitor.sees === 'own')}
            onChange={({ target }) => give.mutate(target.checked ? [...now, id] : now.filter((one) => one !== id))}
          />
          {name}
        </label>
      ))}
      <p className="quiet text-sm">{say.door.theOwnerOfTheStudio}</p>
      <Wrong error={give.error} />
    </fieldset>
  );
}
