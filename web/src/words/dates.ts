/** Times as the trainer reads them, in the zone of this device. */

const DAY = new Intl.DateTimeFormat(undefined, { weekday: 'short', day: 'numeric', month: 'short' });
const TIME = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' });

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
