/**
 * Usual cautions by condition, as data: choosing one proposes limits, the trainer confirms them, and a qualified clinician is asked first.
 * A condition is dated from its event and ends by somebody's word alone: no limit lapses by itself.
 */
import type { Limit } from '../movement/limit-schema.js';
import { DEMANDS } from '../movement/vocabulary.js';
import { type Checked, checkedBy, day, slug, text, whole } from '../schema/atoms.js';
import { z } from '../schema/zod.js';

/** `with-limits`: what the limits leave is open. `only-suitable`: what a person marked as suitable is open, and nothing else. */
export const CONDITION_KINDS = ['with-limits', 'only-suitable'] as const;

export const conditionSchema = z.strictObject({
  id: slug,
  name: text(60),
  kind: z.enum(CONDITION_KINDS).default('with-limits'),
  /** What trainers usually mind, in one sentence. */
  caution: text(200),
  /** What ends the session, and what needs help. */
  stop: text(200),
  /** Who says what is allowed, as in “clear it with …”. */
  clearedBy: text(80),
  /** The event it is dated from, as in “since …”. */
  from: text(40),
  /** Weeks after the event from which it is asked whether it still holds; without them nobody is reminded. */
  askAfter: whole(1, 104).optional(),
  limits: z.array(z.strictObject({ demand: z.enum(DEMANDS), allowed: whole(0, 2) })).superRefine((limits, context) =>
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
      all.forEach(({ id, kind, limits }, i) => {
        if (all.findIndex((one) => one.id === id) < i)
          context.addIssue({ code: 'custom', path: [i, 'id'], message: `"${id}" is used twice` });
        if (kind === 'with-limits' && limits.length === 0)
          context.addIssue({ code: 'custom', path: [i, 'limits'], message: 'needs at least one limit' });
      }),
    ),
    input,
  );

/** All that a condition closes, before anything is known of somebody. */
const closing = ({ id, kind, limits }: Condition): Pick<Limit, 'demand' | 'allowed' | 'condition'>[] => [
  ...limits.map((limit) => ({ ...limit, condition: id })),
  { demand: 'ruled-out', allowed: 0, condition: id },
  ...(kind === 'only-suitable' ? [{ demand: 'not-suitable' as const, allowed: 0, condition: id }] : []),
];

/**
 * The limits that a condition proposes beside those that are there: only what would be stricter. None of them ends by itself.
 * @param since day of its event (YYYY-MM-DD)
 */
export function proposedLimits(condition: Condition, limits: readonly Limit[], since: string): Limit[] {
  const isThere = (limit: Pick<Limit, 'demand' | 'allowed' | 'condition'>) => (one: Limit) =>
    one.demand === limit.demand &&
    one.allowed <= limit.allowed &&
    !one.until &&
    (one.condition ?? condition.id) === condition.id;
  return closing(condition)
    .filter((limit) => !limits.some(isThere(limit)))
    .map((limit) => ({
      ...limit,
      reason: `${condition.name}: clear it with ${condition.clearedBy} first`,
      since,
    }));
}

/** That a condition was ended, and by whose word. */
export const clearedSchema = z.strictObject({
  condition: slug,
  /** As it was called. */
  name: text(60),
  /** Day from which it held, where that is known. */
  since: day.nullable(),
  on: day,
  /** Whose word it was. */
  by: text(200),
});
export type Cleared = z.infer<typeof clearedSchema>;

/** A condition that somebody lives with, as far as limits tell. */
export interface Held {
  condition: string;
  /** What is known of it; undefined for one that the library has no more: its limits go on with their words. */
  known: Condition | undefined;
  since: string | null;
  limits: Limit[];
  /** It is time to ask whether it still holds; it does until somebody says otherwise. */
  ask: boolean;
}

/** The conditions behind somebody's limits on a day (YYYY-MM-DD), in the order in which they stand. */
export function conditionsHeld(limits: readonly Limit[], conditions: readonly Condition[], on: string): Held[] {
  const ids = [...new Set(limits.flatMap(({ condition }) => condition ?? []))];
  return ids.map((condition) => {
    const own = limits.filter((limit) => limit.condition === condition);
    const known = conditions.find(({ id }) => id === condition);
    const since = own.map((limit) => limit.since ?? null).find((day) => day !== null) ?? null;
    const from = since === null || known?.askAfter === undefined ? null : dayAfter(since, known.askAfter * 7);
    return { condition, known, since, limits: own, ask: from !== null && from <= on };
  });
}

/** What is left of somebody's limits once a condition has ended. */
export const withoutCondition = (limits: readonly Limit[], condition: string): Limit[] =>
  limits.filter((limit) => limit.condition !== condition);

function dayAfter(day: string, days: number): string {
  const at = new Date(`${day}T00:00:00Z`);
  at.setUTCDate(at.getUTCDate() + days);
  return at.toISOString().slice(0, 10);
}
