/**
 * How strong somebody is, estimated from reps to failure at a load by three published formulas, and shown as their range.
 * Epley: w(1 + n/30). Brzycki: 36w/(37 − n). Lombardi: w·n^0.10. One rep is one rep in each.
 */
import type { Effort } from '../movement/vocabulary.js';

/** Above this many reps to failure no formula holds. */
export const MOST_REPS = 20;
/** Above this many an estimate is rough. */
export const ROUGH_REPS = 12;

/** Reps left in the tank by what the client says; none after a failed rep. */
export const REPS_LEFT: Readonly<Record<Effort, number>> = { easy: 5, medium: 3, hard: 1, failed: 0 };

/** The word for a typed number of reps left: of easy, medium and hard the nearest, the harder on a tie. Only a rep that was not done is failed. */
export const effortOf = (left: number): Effort =>
  (['hard', 'medium', 'easy'] as const).reduce((nearest, effort) =>
    Math.abs(REPS_LEFT[effort] - left) < Math.abs(REPS_LEFT[nearest] - left) ? effort : nearest,
  );

interface Formula {
  name: string;
  /** The most for one rep, from `kg` lifted `n` times to failure. */
  most: (kg: number, n: number) => number;
  /** Reps to failure at `kg` for somebody whose most for one rep is `most`. */
  reps: (most: number, kg: number) => number;
}

export const FORMULAS: readonly Formula[] = [
  {
    name: 'Epley',
    most: (kg, n) => (n === 1 ? kg : kg * (1 + n / 30)),
    reps: (most, kg) => Math.max(1, 30 * (most / kg - 1)),
  },
  { name: 'Brzycki', most: (kg, n) => (36 * kg) / (37 - n), reps: (most, kg) => 37 - (36 * kg) / most },
  { name: 'Lombardi', most: (kg, n) => kg * n ** 0.1, reps: (most, kg) => (most / kg) ** 10 },
];

export interface Range {
  low: number;
  high: number;
}

export interface Estimate extends Range {
  /** What each formula says, in kilograms. */
  by: { name: string; kg: number }[];
  /** True above twelve reps. */
  rough: boolean;
}

const rangeOf = (numbers: readonly number[]): Range => ({ low: Math.min(...numbers), high: Math.max(...numbers) });

/** The most for one rep as a range over three formulas; null outside 1–20 reps to failure, or without a load. */
export function estimate(kg: number, repsToFailure: number): Estimate | null {
  if (!(kg > 0) || !(repsToFailure >= 1 && repsToFailure <= MOST_REPS)) return null;
  const by = FORMULAS.map(({ name, most }) => ({ name, kg: most(kg, repsToFailure) }));
  return { ...rangeOf(by.map((one) => one.kg)), by, rough: repsToFailure > ROUGH_REPS };
}

export interface Expected extends Range {
  /** What the formula in the middle says: the ends differ widely far from the load in hand. */
  middle: number;
}

/**
 * Reps to failure to expect at `toKg` from reps to failure at `fromKg`, as a range over the formulas, at least 0.
 * More than twenty only says that it is light. Null where there is no estimate: outside 1–20 reps.
 */
export function expectedReps(fromKg: number, repsToFailure: number, toKg: number): Expected | null {
  if (estimate(fromKg, repsToFailure) === null || !(toKg > 0)) return null;
  const reps = FORMULAS.map(({ most, reps: repsAt }) => {
    const one = most(fromKg, repsToFailure);
    return toKg > one + 1e-9 ? 0 : repsAt(one, toKg);
  });
  return { ...rangeOf(reps), middle: reps.toSorted((a, b) => a - b)[1] ?? 0 };
}

export interface EqualDose {
  /** Reps that feel the same at the other load, as the formulas range. */
  reps: Range;
  /** The one to aim at: the formula in the middle, whole. */
  aim: number;
}

const EPSILON = 1e-9;

/** The same effort at another load: reps that leave as many in the tank. Null where no formula can say. */
export function equalEffort(done: { kg: number; reps: number; left: number }, toKg: number): EqualDose | null {
  const at = expectedReps(done.kg, done.reps + done.left, toKg);
  if (!at || at.middle > MOST_REPS) return null;
  const whole = (n: number) => Math.max(0, Math.floor(n - done.left + EPSILON));
  const reps = { low: whole(at.low), high: whole(at.high) };
  const aim = whole(at.middle);
  if (aim < 1) return null;
  return { reps, aim };
}
