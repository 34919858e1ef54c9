/** What worked for whom, and all that sessions so far teach about one client, as it is told and kept. */
import {
  faultLoadSchema,
  faultTallySchema,
  hurtSchema,
  moveSchema,
  pastSessionSchema,
} from '../client/history-schema.js';
import { openPainSchema } from '../client/open-pains.js';
import { aimSchema } from '../client/place.js';
import { notedSetUpSchema } from '../client/set-up-schema.js';
import { testResultSchema } from '../client/tests.js';
import { CORRECTION_KINDS, FOCUSES } from '../movement/vocabulary.js';
import { z } from '../schema/zod.js';
import { OUTCOMES } from './outcomes.js';

/** How a correction reaches the client; words with the same focus are one style. */
const styleSchema = z.strictObject({ kind: z.enum(CORRECTION_KINDS), focus: z.enum(FOCUSES).nullable() });
export type Style = z.infer<typeof styleSchema>;

/** One correction that was tried with a client, and what came of it. */
export const trialSchema = styleSchema.extend({
  /** `movement/fault/correction`. */
  correction: z.string(),
  outcome: z.enum(OUTCOMES),
  /** ISO time. */
  at: z.string(),
});
export type Trial = z.infer<typeof trialSchema>;

/** Trials added up, each at the weight that it still has: how many there were, and how many of them worked. */
export const countedSchema = z.strictObject({ worked: z.number(), total: z.number() });
export type Counted = z.infer<typeof countedSchema>;

/** What is known of corrections for one client: their own trials, and everybody else's as counts by correction, faded already. */
const evidenceSchema = z.strictObject({
  trials: z.array(trialSchema).readonly(),
  others: z.record(z.string(), countedSchema),
});
export type Evidence = z.infer<typeof evidenceSchema>;

/** What all sessions so far teach about one client. */
export const clientRecordSchema = evidenceSchema.extend({
  /** Sessions by movement, earliest first. */
  sets: z.record(z.string(), z.array(pastSessionSchema)),
  /** By movement. */
  faults: z.record(z.string(), faultTallySchema),
  /** Movements that are closed for a sharp pain in them. */
  hurt: z.array(hurtSchema),
  /** Pains of earlier sessions that nobody has called over, earliest first. */
  pains: z.array(openPainSchema),
  /** Swaps of a line, earliest first: the rung that somebody went to. */
  moves: z.array(moveSchema),
  /** What the latest session left for the next one. */
  left: z.array(z.string()),
  /** How they were set up, earliest first. */
  setUps: z.array(notedSetUpSchema),
  /** What came out of tests in sessions, earliest first. */
  tests: z.array(testResultSchema),
  /** Of the next plan, or else of the latest session that had one; null where there was none. */
  aim: aimSchema.nullable(),
  /** Session by session, earliest first: sets done and faults seen. */
  faultLoads: z.array(faultLoadSchema),
});
export interface ClientRecord extends z.infer<typeof clientRecordSchema> {}
