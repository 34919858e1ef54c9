/** Tempo and the seconds a set takes. A tempo is lower-pause-rise-pause in whole seconds. */
import type { DoseMode, Sides } from '../movement/vocabulary.js';

/** Parses `3-1-1-0`. @throws RangeError for anything else. */
export function parseTempo(tempo: string): readonly [lower: number, pause: number, rise: number, pause: number] {
  const match = /^(\d{1,2})-(\d{1,2})-(\d{1,2})-(\d{1,2})$/.exec(tempo);
  if (!match) throw new RangeError(`"${tempo}" is not a tempo`);
  return [Number(match[1]), Number(match[2]), Number(match[3]), Number(match[4])];
}

/** Why a tempo cannot be one of a dose: reps take time, whatever else is left open. Null when it can. */
export const wrongTempo = ({ mode, tempo }: { mode: DoseMode; tempo: string }): string | null =>
  mode === 'reps' && parseTempo(tempo).every((seconds) => seconds === 0)
    ? 'must take at least a second for reps, such as 2-0-1-0'
    : null;

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
