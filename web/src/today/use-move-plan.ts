/** A plan goes to another time, or comes again every week. */
import type { StoredPlan } from '@waxwing/core/planning';
import { useMutation, useQueryClient } from '@tanstack/react-query';
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
  return useMutation({
    mutationFn: async ({ planId, at, weeks }: Moving) => {
      const stored = await queries.fetchQuery({ ...planQuery(planId), staleTime: 0 });
      const plan = bare(stored);
      const startsAt = at.toISOString();
      if (stored.startsAt !== startsAt)
        await call<StoredPlan>('PATCH', `/plans/${planId}`, {
          version: stored.version,
          plan: { ...plan, startsAt },
        });
      for (let week = 1; week <= weeks; week += 1) {
        const later = new Date(at);
        later.setDate(later.getDate() + 7 * week);
        await call<StoredPlan>('POST', '/plans', {
          id: uuidv7(),
          plan: copyOf(plan, { startsAt: later.toISOString() }),
        });
      }
    },
    // What came through before something went wrong is there as well.
    onSettled: async (_, __, { planId }) => {
      await queries.invalidateQueries({ queryKey: planQuery(planId).queryKey });
      await plansChanged(queries);
    },
  });
}
