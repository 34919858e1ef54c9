/** One change to a client, from the version that is shown. */
import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { Client, NewClient } from '@waxwing/core/client';

import { call } from '../api/http';
import { keepClient } from '../api/queries';

export function useEditClient({ id, version }: Pick<Client, 'id' | 'version'>) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (change: Partial<NewClient>) => call('PATCH /clients/{id}', { id, body: { ...change, version } }),
    onSuccess: (saved) => keepClient(queries, saved),
  });
}
