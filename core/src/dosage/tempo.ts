/** The seconds a set takes. */
import { parseTempo } from '../movement/tempo.js';
import type { DoseMode, Sides } from '../movement/vocabulary.js';

/** Seconds to change from one side to the other. */
export const SIDE_CHANGE_SECONDS = 5;

/** How many times the amount is done: twice when each side has its own. */
export const sideCount = (sides: Sides): number => (sides === 'each' ? 2 : 1);

/**
 * Whole seconds of work in one set: reps × Σ tempo × sides, or seconds × sides; a side change is added where there is one.
 * Distance has no known speed and counts as one second a metre.
 */
export function setSeconds(dose: { mode: DoseMode; tempo: string }, sides: Sides, amount: number): number {
  const perUnit = dose.mode === 'reps' ? parseTempo(dose.tempo).reduce((sum, s) => sum + s, 0) : 1;
  const times = sideCount(sides);
  return amount * perUnit * times + SIDE_CHANGE_SECONDS * (times - 1);
}
