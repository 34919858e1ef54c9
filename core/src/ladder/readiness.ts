/** Whether recorded sets meet a link's `readyWhen`: enough good sets, in each of enough sessions in a row. */
import { bestSingle } from '../client/history.js';
import type { DoneSet, PastSession } from '../client/history-schema.js';
import type { ReadyWhen } from '../movement/schema.js';
import { type DoseMode, EFFORTS } from '../movement/vocabulary.js';

export interface Readiness {
  ready: boolean;
  /** Latest sessions in a row that meet the sign. */
  met: number;
  needed: number;
}

/** What a sign is counted in, for each way of dosing the movement to be ready in. */
const COUNTED_IN = { reps: 'reps', time: 'seconds', distance: 'metres' } as const satisfies Record<DoseMode, string>;

/** A sign in the unit of the movement to be ready in. */
export const signIn = (
  mode: DoseMode,
  amount: number,
  sign: Omit<ReadyWhen, 'reps' | 'seconds' | 'metres'>,
): ReadyWhen => ({
  [COUNTED_IN[mode]]: amount,
  ...sign,
});

/** How much of the movement a sign asks for in a set. */
export const signAmount = (sign: ReadyWhen): number => sign.reps ?? sign.seconds ?? sign.metres ?? 0;

/** What a sign is counted in where that is not what the movement is dosed in; null where it is. */
export const signMismatch = (sign: ReadyWhen, mode: DoseMode): string | null =>
  sign[COUNTED_IN[mode]] === undefined
    ? (Object.values(COUNTED_IN).find((unit) => sign[unit] !== undefined) ?? null)
    : null;

const meets = (set: DoneSet, sign: ReadyWhen): boolean =>
  bestSingle(set) >= signAmount(sign) &&
  (set.clean || !sign.clean) &&
  set.effort !== null &&
  EFFORTS.indexOf(set.effort) <= EFFORTS.indexOf(sign.effortAtMost);

/** Looks back from the latest session; the first one that misses the sign ends the run. Sessions may come in any order. */
export function readiness(sign: ReadyWhen, history: readonly PastSession[]): Readiness {
  // What nobody counted neither meets a sign nor misses it.
  const latestFirst = history.filter(({ sets }) => sets.length > 0).toSorted((a, b) => b.at.localeCompare(a.at));
  const miss = latestFirst.findIndex((session) => session.sets.filter((set) => meets(set, sign)).length < sign.sets);
  const met = miss === -1 ? latestFirst.length : miss;
  return { ready: met >= sign.sessions, met, needed: sign.sessions };
}

/** `2 sets of 12 clean reps, medium effort or easier, in 2 sessions`. */
export function signWords(sign: ReadyWhen): string {
  const what =
    sign.reps !== undefined
      ? `${sign.reps}${sign.clean ? ' clean' : ''} reps`
      : `${signAmount(sign)} ${sign.seconds === undefined ? 'm' : 's'}${sign.clean ? ', clean' : ''}`;
  const sets = sign.sets === 1 ? '1 set' : `${sign.sets} sets`;
  const effort = sign.effortAtMost === 'easy' ? 'felt easy' : `${sign.effortAtMost} effort or easier`;
  return `${sets} of ${what}, ${effort}, in ${sign.sessions === 1 ? '1 session' : `${sign.sessions} sessions running`}`;
}

/** The same where there is little room: `3 × 10 clean, medium at most, 2 sessions running`. */
export function signBrief(sign: ReadyWhen): string {
  const amount = sign.reps ?? `${signAmount(sign)} ${sign.seconds === undefined ? 'm' : 's'}`;
  const sessions = sign.sessions === 1 ? '1 session' : `${sign.sessions} sessions running`;
  return `${sign.sets} × ${amount}${sign.clean ? ' clean' : ''}, ${sign.effortAtMost} at most, ${sessions}`;
}
