/** What can be read from a client's past. Plain facts, without a judgement. */
import type { DoneSet, PastSession } from './history-schema.js';

/** The longest that was held in one piece; the amount itself where it was not broken. */
export const bestSingle = ({ amount, pieces }: Pick<DoneSet, 'amount' | 'pieces'>): number =>
  pieces ? Math.max(...pieces) : amount;

/** How many sets were done, counted or not. */
export const setsIn = ({ sets, byClock = 0 }: PastSession): number => sets.length + byClock;

/** The latest of some sessions, which may come in any order. */
export const latest = (history: readonly PastSession[]): PastSession | undefined =>
  history.toSorted((a, b) => a.at.localeCompare(b.at)).at(-1);

/** The latest of which something was counted. */
export const latestCounted = (history: readonly PastSession[]): PastSession | undefined =>
  latest(history.filter(({ sets }) => sets.length > 0));
