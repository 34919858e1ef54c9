/** A movement in short: what a list shows of it, and all that ladders, plans and swaps need to know. */
import { z } from '../schema/zod.js';
import { faultSchema, movementShape } from './schema.js';

export const movementSummarySchema = movementShape
  .omit({ cues: true, faults: true, breath: true, cautions: true, how: true, feel: true })
  .extend({ level: z.number() });
export type MovementSummary = z.infer<typeof movementSummarySchema>;

export const movementListSchema = z.strictObject({
  items: z.array(movementSummarySchema),
  nextCursor: z.string().nullable(),
  total: z.int().min(0),
});
export interface MovementList extends z.infer<typeof movementListSchema> {}

/** What is searched of one movement: small enough to send a whole library to the page. */
export const searchTextSchema = z.strictObject({
  id: z.string(),
  name: z.string(),
  aliases: z.array(z.string()),
  cues: z.array(z.string()),
  faults: z.array(faultSchema.pick({ id: true, name: true, looksLike: true, kind: true })),
  /** Pattern, families and muscles, in words. */
  body: z.string(),
  kit: z.string(),
  /** Movements that its own links lead to. */
  linked: z.array(z.string()),
});
export type SearchText = z.infer<typeof searchTextSchema>;
