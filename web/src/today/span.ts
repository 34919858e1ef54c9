/** The plans that the first page asks for: whole weeks round a day, so that moving within them asks for nothing. */
import { momentOf } from '../words/dates';

/** The Monday of a day's week. */
export const mondayOf = (day: number): number => day - ((momentOf({ day, minute: 0 }).getDay() + 6) % 7);

/** A week back for what is left over, and one ahead for what comes next. */
export function spanAround(day: number): [from: string, to: string] {
  const monday = mondayOf(day);
  const at = (one: number) => momentOf({ day: one, minute: 0 }).toISOString();
  return [at(monday - 7), at(monday + 14)];
}
