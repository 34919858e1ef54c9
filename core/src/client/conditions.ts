/** Usual cautions by condition, as data: choosing one proposes limits, the trainer confirms them, and a qualified clinician is asked first. */
import type { Limit } from '../movement/limit-schema.js';
import { DEMANDS } from '../movement/vocabulary.js';
import { type Checked, checkedBy, slug, text, whole } from '../schema/atoms.js';
import { z } from '../schema/zod.js';

export const conditionSchema = z.strictObject({
  id: slug,
  name: text(60),
  /** What trainers usually mind, in one sentence. */
  caution: text(200),
  /** What ends the session, and what needs help. */
  stop: text(200),
  /** Who says what is allowed, as in “clear it with …”. */
  clearedBy: text(80),
  /** Weeks for which it is proposed; without them it lasts. */
  weeks: whole(1, 104).optional(),
  limits: z
    .array(z.strictObject({ demand: z.enum(DEMANDS), allowed: whole(0, 2) }))
    .min(1, 'needs at least one limit')
    .superRefine((limits, context) =>
      limits.forEach(({ demand }, i) => {
        if (limits.findIndex((one) => one.demand === demand) < i)
          context.addIssue({ code: 'custom', path: [i, 'demand'], message: `"${demand}" is limited twice` });
      }),
    ),
});
export type Condition = z.infer<typeof conditionSchema>;

/** Checks the conditions of a library. */
export const checkConditions = (input: unknown): Checked<Condition[]> =>
  checkedBy(
    z.array(conditionSchema).superRefine((all, context) =>
      all.forEach(({ id }, i) => {
        if (all.findIndex((one) => one.id === id) < i)
          context.addIssue({ code: 'custom', path: [i, 'id'], message: `"${id}" is used twice` });
      }),
    ),
    input,
  );

/**
 * The limits that a condition proposes beside those that are there: only what would be stricter.
 * @param day YYYY-MM-DD, from which its weeks count
 */
export function proposedLimits(condition: Condition, limits: readonly Limit[], day: string): Limit[] {
  const until = condition.weeks === undefined ? null : dayAfter(day, condition.weeks * 7);
  return condition.limits
    .filter(
      ({ demand, allowed }) => !limits.some((one) => one.demand === demand && one.allowed <= allowed && !one.until),
    )
    .map(({ demand, allowed }) => ({
      demand,
      allowed,
      reason: `${condition.name}: clear it with ${condition.clearedBy} first`,
      ...(until === null ? {} : { until }),
    }));
}

function dayAfter(day: string, days: number): string {
  const at = new Date(`${day}T00:00:00Z`);
  at.setUTCDate(at.getUTCDate() + days);
  return at.toISOString().slice(0, 10);
}
