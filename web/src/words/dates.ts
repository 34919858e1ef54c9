/** Times as the trainer reads them, in the zone of this device. */

/** Dates are read as the sentences are in which they stand. */
const LOCALE = 'en-GB';
const DAY = new Intl.DateTimeFormat(LOCALE, { weekday: 'short', day: 'numeric', month: 'short' });
const TIME = new Intl.DateTimeFormat(LOCALE, { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' });

export const dayWords = (iso: string): string => DAY.format(new Date(iso));
export const timeWords = (iso: string): string => TIME.format(new Date(iso));

/** Today's date on this device, YYYY-MM-DD. */
export function today(now = new Date()): string {
  const pad = (n: number) => String(n).padStart(2, '0');
  return `${now.getFullYear()}-${pad(now.getMonth() + 1)}-${pad(now.getDate())}`;
}

/** `820 kB`, `14 MB`, `3.2 GB`. */
export function bytesWords(bytes: number): string {
  const units = ['kB', 'MB', 'GB', 'TB'];
  let value = bytes / 1000;
  let unit = 0;
  for (; value >= 1000 && unit < units.length - 1; unit += 1) value /= 1000;
  return `${value < 10 && unit > 0 ? value.toFixed(1) : Math.round(value)} ${units[unit]}`;
}

/** Whole minutes between two times, never negative. */
export const minutesBetween = (from: string, to: string): number =>
  Math.max(0, Math.round((Date.parse(to) - Date.parse(from)) / 60_000));

/** A time as a field for date and time has it, in the zone of this device. */
export function localField(at: Date): string {
  return new Date(at.getTime() - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
}

const LONG_DAY = new Intl.DateTimeFormat(LOCALE, { weekday: 'long', day: 'numeric', month: 'long' });
const WEEKDAY = new Intl.DateTimeFormat(LOCALE, { weekday: 'short' });
const AGO = new Intl.RelativeTimeFormat(LOCALE, { numeric: 'auto' });
const DAY_MS = 86_400_000;

/** `Friday 27 November`, as the language has it. */
export const longDayWords = (at: Date): string => LONG_DAY.format(at);
export const weekdayWords = (at: Date): string => WEEKDAY.format(at);

/** A day of this device's calendar as a number: whole days since 1 January 1970. */
export const dayNumber = (at: Date): number =>
  Math.round(Date.UTC(at.getFullYear(), at.getMonth(), at.getDate()) / DAY_MS);

/** A time as the wall shows it here. */
export const localTime = (at: Date): { day: number; minute: number } => ({
  day: dayNumber(at),
  minute: at.getHours() * 60 + at.getMinutes(),
});

/** The moment of a wall clock here. */
export function momentOf({ day, minute }: { day: number; minute: number }): Date {
  const date = new Date(day * DAY_MS);
  return new Date(date.getUTCFullYear(), date.getUTCMonth(), date.getUTCDate(), 0, minute);
}

/** The start of a day (YYYY-MM-DD) here. */
export const startOf = (day: string): Date => new Date(`${day}T00:00`);

/** `today`, `yesterday`, `in 3 days`, `5 weeks ago`: how far a time is from now. */
export function agoWords(iso: string, now = new Date()): string {
  const days = dayNumber(new Date(iso)) - dayNumber(now);
  return Math.abs(days) < 14 ? AGO.format(days, 'day') : AGO.format(Math.round(days / 7), 'week');
}
