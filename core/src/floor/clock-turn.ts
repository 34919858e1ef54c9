/** While everybody goes by a clock, its turn says what is now. */
import type { Timer } from '../session/timer.js';
import { isPending, type RunStep } from '../session/run.js';

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
