/** How much of a demand a client may meet, and why, as requests, files and the store hold it. */
import { called, day, whole } from '../schema/atoms.js';
import { z } from '../schema/zod.js';
import { DEMANDS } from './vocabulary.js';

export const limitSchema = z.strictObject({
  demand: z.enum(DEMANDS),
  /** Most that is allowed: 0 none, 1 a little, 2 clearly. */
  allowed: whole(0, 2),
  reason: called(200),
  /** Last day it holds (YYYY-MM-DD); without it the limit lasts. */
  until: day.nullish(),
});
export type Limit = z.infer<typeof limitSchema>;
