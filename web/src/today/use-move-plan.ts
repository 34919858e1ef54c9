/** A plan goes to another time, or comes again every week. */
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef } from 'react';
import { v7 as uuidv7 } from 'uuid';

import { call } from '../api/http';
import { planQuery, plansChanged } from '../api/queries';
import { copyOf } from '../plan/edit';
import { bare } from '../plan/plan-saver';

export interface Moving {
  planId: string;
  at: Date;
  /** How many weeks after it there is one more. */
  weeks: number;
}

export function useMovePlan() {
  const queries = useQueryClient();
  // When something went wrong on the way, pressing again goes on: a copy that came through is the same copy.
  const copies = useRef(new Map<string, string>());
  return useMutation({
    mutationFn: async ({ planId, at, weeks }: Moving) => {
      const stored = await queries.fetchQuery({ ...planQuery(planId), staleTime: 0 });
      const plan = bare(stored);
      const startsAt = at.toISOString();
      if (stored.startsAt !== startsAt)
        await call('PATCH /plans/{id}', { id: planId, body: { version: stored.version, plan: { ...plan, startsAt } } });
      for (let week = 1; week <= weeks; week += 1) {
        const later = new Date(at);
        later.setDate(later.getDate() + 7 * week);
        const copy = copyOf(plan, { startsAt: later.toISOString() });
        const key = `${planId} ${copy.startsAt}`;
        const id = copies.current.get(key) ?? uuidv7();
        copies.current.set(key, id);
        await call('POST /plans', { body: { id, plan: copy } });
      }
      copies.current.clear();
    },
    // What came through before something went wrong is there as well.
    onSettled: async (_, __, { planId }) => {
      await queries.invalidateQueries({ queryKey: planQuery(planId).queryKey });
      await plansChanged(queries);
    },
  });
}
