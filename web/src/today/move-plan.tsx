/** Says when a plan is: another day or hour, and whether it comes again every week. */
import type { PlanSummary } from '@waxwing/core/planning';
import { useState } from 'react';

import { Dialog } from '../shell/dialog';
import { Wrong } from '../shell/states';
import { localField } from '../words/dates';
import { say } from '../words/say';
import { useMovePlan } from './use-move-plan';

const MOST_WEEKS = 12;

export function MovePlan({ plan, onClose }: { plan: PlanSummary; onClose: () => void }) {
  const [at, setAt] = useState(plan.startsAt === null ? '' : localField(new Date(plan.startsAt)));
  const [weeks, setWeeks] = useState(0);
  const move = useMovePlan();
  const time = new Date(at);
  const wrong = Number.isNaN(time.getTime());
  return (
    <Dialog title={say.today.move(plan.name)} onClose={onClose}>
      <form
        className="space-y-5"
        onSubmit={(event) => {
          event.preventDefault();
          move.mutate({ planId: plan.id, at: time, weeks }, { onSuccess: onClose });
        }}
      >
        <label className="block">
          <span className="quiet block text-base">{say.today.dayAndTime}</span>
          <input
            type="datetime-local"
            className="input input-lg w-full max-w-xs"
            value={at}
            aria-invalid={wrong}
            onChange={(event) => setAt(event.target.value)}
          />
        </label>
        <label className="block">
          <span className="quiet block text-base">{say.today.theSameEveryWeek}</span>
          <select className="select select-lg" value={weeks} onChange={(event) => setWeeks(Number(event.target.value))}>
            <option value={0}>{say.today.noOnlyThisOnce}</option>
            {Array.from({ length: MOST_WEEKS }, (_, i) => i + 1).map((n) => (
              <option key={n} value={n}>
                {say.today.andWeeksMore(n)}
              </option>
            ))}
          </select>
        </label>
        <Wrong error={move.error} />
        <button type="submit" className="btn btn-primary btn-lg" disabled={wrong || move.isPending}>
          {move.isPending ? say.today.moving : weeks > 0 ? say.today.moveAndRepeat : say.today.moveNow}
        </button>
      </form>
    </Dialog>
  );
}
