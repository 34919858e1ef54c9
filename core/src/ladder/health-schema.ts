/** Where a library is thin or wrong, as it is told. */
import { z } from '../schema/zod.js';
import { HEALTH_KINDS } from './health-kinds.js';

const gapSchema = z.strictObject({
  movementId: z.string(),
  name: z.string(),
  kind: z.enum(HEALTH_KINDS),
  /** What is wrong, in words. */
  message: z.string(),
  /** Field path within the movement. */
  path: z.string(),
});
export type Gap = z.infer<typeof gapSchema>;

const familyHealthSchema = z.strictObject({
  family: z.string(),
  movements: z.int().min(0),
  gaps: z.int().min(0),
  /** 0–100: a hundred less the points of its gaps per movement. */
  score: z.number(),
});
export type FamilyHealth = z.infer<typeof familyHealthSchema>;

export const healthSchema = z.strictObject({ gaps: z.array(gapSchema), families: z.array(familyHealthSchema) });
export type Health = z.infer<typeof healthSchema>;
