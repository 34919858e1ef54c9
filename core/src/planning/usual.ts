/**
 * The hours of the week at which somebody usually comes, told from when they came.
 * Times are local to whoever asks: core knows no zone.
 */

/** A moment on a calendar and a clock on the wall. */
export interface LocalTime {
  /** Whole days since 1 January 1970, a Thursday. */
  day: number;
  /** Minutes since midnight. */
  minute: number;
}

export interface Slot {
  /** 0 for Monday. */
  weekday: number;
  /** Minutes since midnight. */
  minute: number;
}

const WEEK = 7;
/** Days that count, before today. */
const LOOKED_BACK = 5 * WEEK;
/** Weeks of them in which somebody came at that hour. */
const LEAST_WEEKS = 2;
/** Nobody is on the dot: so many minutes apart it is still the same hour. */
const NEAR = 75;

export const weekdayOf = ({ day }: Pick<LocalTime, 'day'>): number => (((day + 3) % WEEK) + WEEK) % WEEK;

/**
 * Earliest in the week first.
 * @param came starts of sessions, in any order
 * @param today the day from which is looked back
 */
export function usualSlots(came: readonly LocalTime[], today: number): Slot[] {
  const recent = came
    .filter(({ day }) => day < today && day >= today - LOOKED_BACK)
    .toSorted((a, b) => weekdayOf(a) - weekdayOf(b) || a.minute - b.minute || a.day - b.day);
  const groups: LocalTime[][] = [];
  for (const one of recent) {
    const group = groups.at(-1);
    const [first] = group ?? [];
    const near = first && weekdayOf(first) === weekdayOf(one) && one.minute - first.minute <= NEAR;
    if (group && near) group.push(one);
    else groups.push([one]);
  }
  return groups
    .filter((group) => new Set(group.map(({ day }) => day)).size >= LEAST_WEEKS)
    .map((group): Slot => {
      // The latest time of coming says best what was agreed.
      const last = group.reduce((late, one) => (one.day > late.day ? one : late));
      return { weekday: weekdayOf(last), minute: last.minute };
    });
}

/**
 * The first usual time after a moment, on a day that is not taken; null for somebody without usual times.
 * @param taken days on which they come already
 */
export function nextUsual(slots: readonly Slot[], after: LocalTime, taken: readonly number[] = []): LocalTime | null {
  for (let day = after.day; day < after.day + 5 * WEEK; day += 1) {
    if (taken.includes(day)) continue;
    const slot = slots.find(
      ({ weekday, minute }) => weekday === weekdayOf({ day }) && (day > after.day || minute > after.minute),
    );
    if (slot) return { day, minute: slot.minute };
  }
  return null;
}
