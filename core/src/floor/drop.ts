/** Going on with a lighter weight in the same set: which one is next, and whether it is open still. */
import type { Drop } from '../planning/set-change.js';
import type { Entry, SetRecord } from '../session/fold.js';
import type { RunStep } from '../session/run.js';

interface LatestSet {
  entry: Entry;
  set: SetRecord;
}

/** The lighter weight that the plan has next for a set that was just logged; null when there is none, or the set ended without it. */
export function dropOf({ entry, set }: LatestSet, steps: readonly RunStep[]): Drop | null {
  const step = steps.findLast(({ itemId, state }) => itemId === entry.itemId && state === 'done');
  if (!step || step.lane.movementId !== entry.movementId || set.drops.some(({ amount }) => amount === 0)) return null;
  const next = step.lane.drops?.[set.drops.length];
  const kg = set.drops.at(-1)?.kg ?? set.kg;
  // Whoever took less than was planned is not sent up again.
  return next && kg !== null && (next.load.kg ?? 0) < kg ? next : null;
}
