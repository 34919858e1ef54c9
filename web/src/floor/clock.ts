/** The time of the floor: one steady clock for stamping taps and for every timer, and a beat for what shows it. */
import { type LaneTime, laneTime, type LaneView } from '@waxwing/core/floor';
import { steadyClock } from '@waxwing/core/session';
import { useSyncExternalStore } from 'react';

export const floorClock = steadyClock(
  () => Date.now(),
  () => performance.now(),
);

/** Often enough for whole seconds to change on time. */
const BEAT_MS = 100;

const listeners = new Set<() => void>();
let beat: ReturnType<typeof setInterval> | undefined;

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  beat ??= setInterval(() => {
    for (const one of listeners) one();
  }, BEAT_MS);
  // Back from a locked screen: what passed meanwhile shows at once.
  document.addEventListener('visibilitychange', listener);
  return () => {
    listeners.delete(listener);
    document.removeEventListener('visibilitychange', listener);
    if (listeners.size > 0) return;
    clearInterval(beat);
    beat = undefined;
  };
}

/** A value that depends on the time; what shows it is drawn anew only when it changes. */
export function useTimed<T extends string | number | boolean | null>(of: (now: number) => T): T {
  return useSyncExternalStore(subscribe, () => of(floorClock.now()));
}

/** The clock of a lane; what shows it is drawn anew only when it changes. */
export const useLaneTime = (view: LaneView): LaneTime =>
  JSON.parse(useTimed((now) => JSON.stringify(laneTime(view, now)))) as LaneTime;
