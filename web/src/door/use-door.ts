/** The door as a screen sees it: who is in, and how one goes in and out. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Door, Visitor } from '@waxwing/core/door';

import { doorQuery } from '../api/door';
import { call } from '../api/http';
import { leave } from './sealed';

/** Whoever works here; null while nobody knows. */
export const useVisitor = (): Visitor | null => useQuery(doorQuery).data?.visitor ?? null;

/** What whoever is in may do: a trainer plans and keeps files, an owner runs the studio. What the server would refuse is not offered. */
export function useMay(): { train: boolean; own: boolean } {
  const role = useVisitor()?.role;
  return { train: role === 'owner' || role === 'trainer', own: role === 'owner' };
}

/** After whoever is in has changed: nothing that another one has read stays on the screen. */
export function useGoIn(): () => Promise<void> {
  const queries = useQueryClient();
  return async () => {
    queries.removeQueries({ predicate: ({ queryKey }) => queryKey[0] !== doorQuery.queryKey[0] });
    await queries.invalidateQueries({ queryKey: doorQuery.queryKey });
  };
}

export function useSignOut() {
  const goIn = useGoIn();
  return useMutation({
    mutationFn: async (door: Door) => {
      await leave(door);
      await call('POST /door/sign-out');
      await goIn();
    },
  });
}
