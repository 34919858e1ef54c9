/** What one set or round of a line does otherwise than the line, and lighter weights that a set goes on with. */
import { loadSchema } from '../dosage/load-schema.js';
import { slug, tempoSchema, whole } from '../schema/atoms.js';
import { z } from '../schema/zod.js';

/** Sides of one round, for a movement that has one side after the other: one of them only, or both in turn rep by rep. */
export const ROUND_SIDES = ['left', 'right', 'alternating'] as const;
export type RoundSide = (typeof ROUND_SIDES)[number];

export const setChangeSchema = z.strictObject({
  /** Which set or round, from 1. */
  set: whole(1, 20),
  side: z.enum(ROUND_SIDES).optional(),
  amount: whole(1, 3600).optional(),
  tempo: tempoSchema.optional(),
  load: loadSchema.nullable().optional(),
  /** A variation or another rung. */
  movementId: slug.optional(),
  rest: whole(0, 900).optional(),
  /** As many as went clean in the round before, whatever was planned. */
  asClean: z.literal(true).optional(),
});
export type SetChange = z.infer<typeof setChangeSchema>;

/** Lighter weights that are taken when reps or form go, at once and without a rest. */
export const dropSchema = z.strictObject({ load: loadSchema, amount: whole(1, 200) });
export type Drop = z.infer<typeof dropSchema>;

/** Drops of one set, at most. */
export const MOST_DROPS = 3;
