/** A plan as it is stored, and what a list shows of it. */
import { instant, uuid } from '../schema/atoms.js';
import { z } from '../schema/zod.js';
import { planSchema } from './plan.js';

export const storedPlanSchema = planSchema.safeExtend({
  id: uuid,
  version: z.int().min(1),
  updatedAt: z.string(),
});
export interface StoredPlan extends z.infer<typeof storedPlanSchema> {}

/** The link by which calendar programs have somebody's planned hours. */
export const feedSchema = z.strictObject({
  /** When it was made; null where there is none. */
  since: instant.nullable(),
});
export type Feed = z.infer<typeof feedSchema>;

export const planSummarySchema = z.strictObject({
  id: uuid,
  name: z.string(),
  startsAt: z.string().nullable(),
  template: z.boolean(),
  minutes: z.number(),
  updatedAt: z.string(),
  clients: z.array(z.strictObject({ id: uuid, name: z.string() })),
  /** Minutes that its lines take. */
  filled: z.number(),
  /** The latest session that was held by it, in the span of time that was asked for; null where none was. */
  session: z.strictObject({ id: uuid, finished: z.boolean() }).nullable(),
});
export type PlanSummary = z.infer<typeof planSummarySchema>;
