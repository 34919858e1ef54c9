/** A plan goes to another time, or comes again every week. */
import type { Plan, StoredPlan } from '@waxwing/core/planning';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { v7 as uuidv7 } from 'uuid';
import { call } from '../api/http';
import { clientsQuery, planQuery } from '../api/queries';

export interface Moving {
  planId: string;
  at: Date;
  /** How many weeks after it there is one more. */
  weeks: number;
}

const documentOf = ({ id: _, version: __, updatedAt: ___, ...plan }: StoredPlan): Plan => plan;

export function useMovePlan() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async ({ planId, at, weeks }: Moving) => {
      const stored = await queries.fetchQuery({ ...planQuery(planId), staleTime: 0 });
      const plan = documentOf(stored);
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
          plan: { ...plan, startsAt: later.toISOString() },
        });
      }
    },
    // What came through before something went wrong is there as well.
    onSettled: async (_, __, { planId }) => {
      await queries.invalidateQueries({ queryKey: planQuery(planId).queryKey });
      await queries.invalidateQueries({ queryKey: ['plans'] });
      await queries.invalidateQueries({ queryKey: clientsQuery.queryKey });
    },
  });
}
