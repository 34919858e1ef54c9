/** One piece, and two who want it: who has it now, and whether the other has to wait. */
import { shortagesOf } from '../planning/shortage.js';
import { timerAt } from '../session/timer.js';
import { timerOf } from './lane-time.js';
import type { LaneView } from './lane-view.js';
import { timeOf } from './minutes.js';

export interface SharedKit {
  /** What is wanted, in words: `rope`. */
  what: string;
  /** Who wants it as well. */
  name: string;
  /** They are at it now: it cannot be begun here. */
  busy: boolean;
}

/** Pieces of which there are too few for this client and another one, at what both have in hand. */
export function sharedKit(view: LaneView, views: readonly LaneView[], now: number): SharedKit[] {
  const { step, place } = view;
  if (!step || view.clock) return [];
  const context = timeOf(views);
  return views.flatMap((other): SharedKit[] => {
    if (other.client.id === view.client.id || !other.step) return [];
    const timer = timerOf(other);
    return shortagesOf([step.lane, other.step.lane], place.kit, context)
      .filter(({ clientIds }) => clientIds.length > 1)
      .map(({ what }) => ({
        what,
        name: other.client.name,
        busy: timer !== undefined && timerAt(timer, now).running,
      }));
  });
}
