/** One set as a row of a list. */
import { EFFORTS } from '../movement/vocabulary.js';
import { z } from '../schema/zod.js';

export const setRowSchema = z.strictObject({
  /** UTC, ISO 8601. */
  at: z.string(),
  sessionId: z.string(),
  client: z.string(),
  movementId: z.string(),
  movement: z.string(),
  /** From 1, within one stay at the movement. */
  set: z.int().min(1),
  side: z.enum(['both', 'left', 'right']),
  amount: z.number(),
  /** Seconds where it went by a clock and nobody counted. */
  unit: z.string(),
  /** False where it went by a clock. */
  counted: z.boolean(),
  /** The seconds of each piece of a hold that was broken. */
  pieces: z.array(z.number()),
  /** A composed set in one line; empty for a plain one. */
  parts: z.string(),
  /** What it went on with at lighter weights. */
  drops: z.array(z.string()),
  kg: z.number().nullable(),
  load: z.string().nullable(),
  effort: z.enum(EFFORTS).nullable(),
  repsLeft: z.number().nullable(),
  /** Names of faults that were open. */
  faults: z.array(z.string()),
});
export type SetRow = z.infer<typeof setRowSchema>;
