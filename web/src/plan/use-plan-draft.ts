/** A plan being changed: every change is shown at once, can be taken back, and is saved. */
import { useQueryClient } from '@tanstack/react-query';
import type { Plan, StoredPlan } from '@waxwing/core/planning';
import { useEffect, useState } from 'react';

import { planQuery, plansChanged } from '../api/queries';
import { bare, keptDraft, PlanSaver, type Saving } from './plan-saver';
import { changed, type Edited, undone } from './undo';

export interface Draft {
  plan: Plan;
  /** Changes the plan as it is by then, which may be later than what a caller has seen. */
  change: (make: (now: Plan) => Plan) => void;
  undo: (() => void) | undefined;
  saving: Saving;
}

export function usePlanDraft(stored: StoredPlan): Draft {
  const { id, version } = stored;
  const queries = useQueryClient();
  const [start] = useState(() => ({ kept: keptDraft(id, version), plan: bare(stored) }));
  const [edited, setEdited] = useState<Edited>({ plan: start.kept ?? start.plan, past: [], field: null });
  const [saving, setSaving] = useState<Saving>('saved');
  const [saver] = useState(
    () =>
      new PlanSaver(id, version, setSaving, (saved) => {
        queries.setQueryData(planQuery(id).queryKey, saved);
        void plansChanged(queries);
      }),
  );
  const { plan, past } = edited;
  // Whatever differs from what was opened is saved, a draft of an earlier visit as well.
  const [touched, touch] = useState(start.kept !== null);
  useEffect(() => {
    if (touched) saver.put(plan);
  }, [saver, plan, touched]);
  // What still waits goes out on leaving.
  useEffect(() => () => saver.flush(), [saver]);
  return {
    plan,
    change: (make) => {
      const field = document.activeElement instanceof HTMLInputElement ? document.activeElement : null;
      touch(true);
      setEdited((now) => changed(now, make(now.plan), field));
    },
    undo: past.length === 0 ? undefined : () => setEdited(undone),
    saving,
  };
}
