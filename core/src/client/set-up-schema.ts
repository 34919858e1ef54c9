/** How a client was set up for a movement, as it is told and kept. */
import { SET_UPS } from '../movement/vocabulary.js';
import { z } from '../schema/zod.js';

export const notedSetUpSchema = z.strictObject({
  movementId: z.string(),
  measure: z.enum(SET_UPS),
  /** As the trainer wrote it. */
  value: z.string(),
  at: z.string(),
});
export type NotedSetUp = z.infer<typeof notedSetUpSchema>;
