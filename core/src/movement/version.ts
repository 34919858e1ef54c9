/** One saved version of a movement, and what it changed from the one before. */
import { z } from '../schema/zod.js';
import { movementSchema } from './schema.js';

export const changeSchema = z.strictObject({
  kind: z.enum(['added', 'removed', 'changed', 'moved']),
  /** Where, in words: `cue “Hug the weight”, text`. */
  where: z.string(),
  before: z.string().optional(),
  after: z.string().optional(),
});
export type Change = z.infer<typeof changeSchema>;

export const movementVersionSchema = z.strictObject({
  version: z.int().min(1),
  author: z.string(),
  savedAt: z.string(),
  movement: movementSchema,
  changes: z.array(changeSchema),
});
export interface MovementVersion extends z.infer<typeof movementVersionSchema> {}
