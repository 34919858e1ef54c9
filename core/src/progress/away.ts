/**
 * Coming back after a time away: nothing goes up the first time, and after weeks of nothing at all it begins lower. How much lower is a guess of
 * the cautious side; only the order is argued for: the longer, the lower.
 */
import type { PastSession } from '../client/history-schema.js';

/** From so many days without any session on, so much of the load or of the reps is taken. */
const AFTER: readonly (readonly [days: number, share: number])[] = [
  [182, 0.6],
  [56, 0.75],
  [21, 0.9],
];

/** Days without the movement, though somebody trained, after which it is done once more as it was. */
const UNUSED_DAYS = 56;

const DAY_MS = 86_400_000;

export interface Away {
  /** Whole weeks, at least three. */
  weeks: number;
  /** What is taken of what was done last; 1 where only this movement was left out. */
  share: number;
}

/**
 * How long somebody was away on a day, or without this movement; null where it is no time to speak of.
 * @param past sessions with the movement
 * @param all everything done, by movement
 */
export function awayOn(
  day: string | null,
  past: readonly PastSession[],
  all: Readonly<Record<string, readonly PastSession[]>>,
): Away | null {
  if (day === null || past.length === 0) return null;
  const since = (sessions: readonly PastSession[]): number =>
    Math.min(...sessions.map(({ at }) => (Date.parse(day) - Date.parse(at)) / DAY_MS));
  const days = since(Object.values(all).flat());
  const [, share] = AFTER.find(([from]) => days >= from) ?? [0, 1];
  if (share < 1) return { weeks: Math.floor(days / 7), share };
  const unused = since(past);
  return unused >= UNUSED_DAYS ? { weeks: Math.floor(unused / 7), share: 1 } : null;
}
