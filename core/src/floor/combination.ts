/** Two movements in one rep are done only after each was clean alone: in this session, or the last time. */
import { latestCounted } from '../client/history.js';
import { seriousOf } from '../progress/held.js';
import { openFaults } from '../session/fold.js';
import type { LaneView } from './lane-view.js';

/** The parts of the combination in hand that were not clean alone yet, by movement; none where no combination is in hand. */
export function partsToClean(view: LaneView): string[] {
  const lane = view.step?.lane;
  return lane?.withId == null ? [] : [lane.movementId, lane.withId].filter((id) => !wasClean(view, id));
}

function wasClean({ lane, record, pageOf }: LaneView, movementId: string): boolean {
  const alone = lane.entries.findLast(
    (entry) => entry.movementId === movementId && entry.withId === undefined && entry.sets.length > 0,
  );
  if (!alone) return latestCounted(record.sets[movementId] ?? [])?.sets.some(({ clean }) => clean) ?? false;
  const faults = pageOf(movementId)?.movement.faults ?? [];
  const serious = (ids: readonly string[]) => seriousOf(faults.filter(({ id }) => ids.includes(id))).length > 0;
  return !serious(alone.sets.at(-1)?.openFaults ?? []) && !serious(openFaults(alone));
}
