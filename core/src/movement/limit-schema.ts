/** How much of a demand a client may meet, and why, as requests, files and the store hold it. */
import { called, day, slug, whole } from '../schema/atoms.js';
import { z } from '../schema/zod.js';
import { LIMITED, type Limited, type Ruling, RULINGS } from './vocabulary.js';

const RULING: ReadonlySet<Limited> = new Set(RULINGS);

/** Whether a limit rules on whole movements instead of measuring a demand. */
export const isRuling = (demand: Limited): demand is Ruling => RULING.has(demand);

const limitFields = z.strictObject({
  demand: z.enum(LIMITED),
  /** Most that is allowed: 0 none, 1 a little, 2 clearly. */
  allowed: whole(0, 2),
  reason: called(200),
  /** Last day it holds (YYYY-MM-DD); without it the limit lasts. */
  until: day.nullish(),
  /** The condition that it was proposed for. */
  condition: slug.nullish(),
  /** Day of the event that the condition is dated from (YYYY-MM-DD). */
  since: day.nullish(),
});

export const limitSchema = limitFields.refine(
  ({ demand, condition }) => !isRuling(demand) || (condition ?? '') !== '',
  {
    path: ['condition'],
    message: 'says for which condition',
  },
);
export type Limit = z.infer<typeof limitSchema>;

/**
 * The same as it holds on a day. Whoever may not know for which condition movements are ruled out is told which movements they are instead.
 */
export const limitOnDaySchema = limitFields.extend({ movements: z.array(slug).readonly().optional() });
export type LimitOnDay = z.infer<typeof limitOnDaySchema>;
