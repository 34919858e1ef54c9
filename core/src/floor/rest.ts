/** The rest after the latest set: since when, and how many seconds it should have. Nothing is stored of it: it follows from the sets. */
import { isEvery, roundsIn } from '../planning/block-clock.js';
import { type Entry, type Lane, latestSet } from '../session/fold.js';
import { progressOf } from '../session/progress.js';
import { type FindRunMovement, type RunStep, sidesInLine, stepNow } from '../session/run.js';
import { dropOf } from './drop.js';

export interface Rest {
  /** ISO. */
  from: string;
  seconds: number;
}

const DEFAULT_REST = 60;

/**
 * @param inHand the stay at what is in hand
 * Null while a side or a set is under way, and when nothing follows.
 */
export function restOf(
  lane: Lane,
  steps: readonly RunStep[],
  inHand: Entry | undefined,
  find: FindRunMovement,
): Rest | null {
  const last = latestSet(lane);
  const now = stepNow(steps);
  if (!now || !last) return null;
  // As many rounds as go, and turns by a clock, have no rest of their own.
  if (now.block && (roundsIn(now.block) !== null || isEvery(now.block))) return null;
  const { entry, set } = last;
  if (progressOf(entry, sidesInLine(steps, entry.itemId, find(entry.movementId)?.sides ?? 'both')).half) return null;
  const timer = lane.timers.at(-1);
  if (timer && timer.stoppedAt === null && timer.entryId === inHand?.id && timer.startedAt > set.at) return null;
  if (dropOf(last, steps)) return null;
  const done = steps.findLast(({ itemId, state }) => itemId === entry.itemId && state === 'done');
  const planned = (done ?? steps.find(({ itemId }) => itemId === entry.itemId))?.lane.rest;
  return { from: set.at, seconds: planned ?? DEFAULT_REST };
}
