/** A client's lane for a movement: what the policy of progress says of it, as a line of a plan. */
import { latest } from '../client/history.js';
import { type NextStep, pastOf, windowFor } from '../progress/next-step.js';
import { nextTime, type TimeQuestion } from '../progress/next-time.js';
import type { PlanLane } from './plan.js';

export type LaneRequest = TimeQuestion & { clientId: string };

export interface NextLane {
  /** One to do only where the step is neither a stop nor a rung down. */
  lane: PlanLane;
  step: NextStep;
}

/** The next time of a movement, or the first one. */
export function laneFor({ clientId, ...question }: LaneRequest): NextLane {
  const { movement, purpose } = question;
  const window = windowFor(movement, purpose);
  const last = latest(pastOf(question));
  const step = nextTime(question);
  const lane: PlanLane = {
    clientId,
    movementId: movement.id,
    withId: null,
    sets: last ? Math.min(window.sets[1], Math.max(window.sets[0], last.sets.length)) : window.sets[0],
    rest: window.rest,
    ...step.dose,
    why: step.why,
  };
  return { lane, step };
}
