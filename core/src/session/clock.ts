/**
 * A clock that never goes back. A device's own clock may be set back by an hour in the middle of a session; what was timed must not notice.
 * It follows the wall, which goes on while a device sleeps, and bridges every step back by the ticks that passed meanwhile.
 */
export interface SteadyClock {
  /** Milliseconds since 1970, never less than before. */
  now: () => number;
  /** Says that this time has been: the clock goes on from there when it is behind. */
  atLeast: (milliseconds: number) => void;
}

/**
 * @param wall the device's clock in milliseconds since 1970, which may jump either way
 * @param ticks milliseconds from anywhere that only ever go forward, and may stand still while the device sleeps
 */
export function steadyClock(wall: () => number, ticks: () => number): SteadyClock {
  let seen = wall();
  let seenTicks = ticks();
  let ahead = 0;
  const now = (): number => {
    const [time, tick] = [wall(), ticks()];
    const least = seen + (tick - seenTicks);
    // Rounding of either clock is not a step.
    if (time + ahead < least - STEP_MS) ahead = least - time;
    seen = Math.max(seen, time + ahead);
    seenTicks = tick;
    return seen;
  };
  return {
    now,
    atLeast: (milliseconds) => {
      ahead += Math.max(0, milliseconds - now());
      now();
    },
  };
}

/** Less than this is rounding, in milliseconds. */
const STEP_MS = 20;
