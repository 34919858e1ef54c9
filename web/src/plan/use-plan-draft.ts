/** A plan being changed: every change is shown at once, can be taken back, and is saved. */
import type { StoredPlan } from '@waxwing/core/formats';
import type { Plan } from '@waxwing/core/planning';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { planQuery, plansQuery } from '../api/queries';
import { keptDraft, PlanSaver, type Saving } from './plan-saver';

const MOST_STEPS_BACK = 50;

/** A stored plan without what the server adds. */
export const bare = ({ id: _, version: __, updatedAt: ___, ...plan }: StoredPlan): Plan => plan;

export interface Draft {
  plan: Plan;
  change: (next: Plan) => void;
  undo: (() => void) | undefined;
  saving: Saving;
}

export function usePlanDraft(stored: StoredPlan): Draft {
  const { id } = stored;
  const queries = useQueryClient();
  const [{ plan, past }, setState] = useState<{ plan: Plan; past: readonly Plan[] }>(() => ({
    plan: keptDraft(id, stored.version) ?? bare(stored),
    past: [],
  }));
  const [saving, setSaving] = useState<Saving>('saved');
  const [saver] = useState(
    () =>
      new PlanSaver(id, stored.version, setSaving, (saved) => {
        queries.setQueryData(planQuery(id).queryKey, saved);
        void queries.invalidateQueries({ queryKey: plansQuery.queryKey });
      }),
  );
  // What an earlier visit could not save goes out now, and what still waits goes out on leaving.
  const [left] = useState(() => keptDraft(id, stored.version));
  useEffect(() => {
    if (left) saver.put(left, 0);
    return () => saver.flush();
  }, [saver, left]);
  const before = past.at(-1);
  return {
    plan,
    change: (next) => {
      setState({ plan: next, past: [...past, plan].slice(-MOST_STEPS_BACK) });
      saver.put(next);
    },
    undo:
      before &&
      (() => {
        setState({ plan: before, past: past.slice(0, -1) });
        saver.put(before);
      }),
    saving,
  };
}
