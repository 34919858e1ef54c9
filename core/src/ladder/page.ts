/** A whole movement as its own page has it: with its version, and its neighbours on the ladder. */
import { backWhenSchema, movementSchema, readyWhenSchema } from '../movement/schema.js';
import { LEVERS } from '../movement/vocabulary.js';
import { z } from '../schema/zod.js';

/** One step from a movement to a neighbour. `readyWhen` is always the sign for going up, `backWhen` for going down. */
const stepSchema = z.strictObject({
  to: z.string(),
  lever: z.enum(LEVERS),
  readyWhen: readyWhenSchema.optional(),
  backWhen: backWhenSchema.optional(),
});
export type Step = z.infer<typeof stepSchema>;

const neighbourSchema = stepSchema.extend({ name: z.string() });
export type Neighbour = z.infer<typeof neighbourSchema>;

export const movementPageSchema = z.strictObject({
  movement: movementSchema,
  version: z.int().min(1),
  updatedAt: z.string(),
  /** Who saved this version; empty for the starter library. */
  author: z.string(),
  archivedAt: z.string().nullable(),
  level: z.number(),
  easier: z.array(neighbourSchema),
  harder: z.array(neighbourSchema),
  sideways: z.array(neighbourSchema),
});
export interface MovementPage extends z.infer<typeof movementPageSchema> {}
