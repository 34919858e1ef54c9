/** What is known of a client's past: sets by movement, rungs that were moved, how often faults show. Plain facts, without a judgement. */
import type { Part } from '../schema/part.js';
import type { Effort } from '../movement/vocabulary.js';

/** One recorded set of a movement. `amount` is reps or seconds on the weaker side. */
export interface DoneSet {
  amount: number;
  /** The pieces of a hold that was broken, in seconds; left out where it was whole. */
  pieces?: readonly number[];
  /** What was done of a composed set; left out for a plain one. */
  parts?: readonly Part[];
  effort: Effort | null;
  /** No fault of severity stop or fix was open at it. */
  clean: boolean;
  /** Load used, if any. */
  kg?: number | null;
  /** The faults of severity stop or fix that were open at it; left out where there were none. */
  faults?: readonly string[];
}

/** The sets of one movement in one session. */
export interface PastSession {
  at: string;
  sets: readonly DoneSet[];
  /** Sets by a clock that nobody counted: done, and no measure of anything. Left out where there were none. */
  byClock?: number;
  /** Tiredness began to cost form in it, and less was done: the next time starts from there. */
  marked?: true;
}

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

/** Over how many sets of a movement how often each of its faults was seen. */
export interface FaultTally {
  sets: number;
  /** By fault; one that was never seen is not in it. */
  seen: Record<string, number>;
}

/** A line that was gone on with as another movement. */
export interface Move {
  from: string;
  to: string;
  why: string | null;
  /** It was for want of kit or room, for a change or for everybody, and no step down. */
  aside?: true | undefined;
  /** When the other one was begun. */
  at: string;
}

/** How much was to be corrected in one session. */
export interface FaultLoad {
  at: string;
  sets: number;
  /** Times that a fault was marked. */
  faults: number;
}

/** A movement in which sharp pain was reported and that was not done since, with the day. */
export interface Hurt {
  movementId: string;
  at: string;
}
