/** While everybody goes by a clock, its turn says what is now. */
import { firstSide } from '../session/progress.js';
import { isPending, type RunStep } from '../session/run.js';
import { type Timer, timerAt, workOf } from '../session/timer.js';

/** The clock that everybody of a block goes by, and the turn it is at. */
export interface ClockTurn {
  blockId: string;
  turn: number;
  timer: Timer;
}

export function atClock(steps: readonly RunStep[], clock: ClockTurn | null): readonly RunStep[] {
  if (!clock || !steps.some((step) => step.block?.id === clock.blockId && isPending(step))) return steps;
  return steps.map((step): RunStep => {
    if (!isPending(step)) return step;
    const away = step.block?.id === clock.blockId && step.turn !== null ? step.turn - clock.turn : null;
    return { ...step, state: away === 0 ? 'now' : away === 1 ? 'next' : 'later' };
  });
}

/** The side that is in work by a clock: one in the first half of a turn, the other in the second. @param set of the one who works, from 1 */
export function sideByClock(set: number, clock: Timer, now: number): 'left' | 'right' {
  const { phase, piece, left } = timerAt(clock, now);
  const late = phase === 'work' && left <= workOf(clock, piece) * 500;
  const first = firstSide(set);
  return late === (first === 'left') ? 'right' : 'left';
}
