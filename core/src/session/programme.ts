/** Checks a programme that comes from outside: from a client's file, or from a device that brings a session back. */
import { planSchema } from '../planning/plan.js';
import { type Checked, checkedBy, uuid } from '../schema/atoms.js';
import { z } from '../schema/zod.js';
import type { Programme } from './run.js';

export const programmeSchema = z.strictObject({
  planId: uuid,
  plan: planSchema,
  rotations: z.record(uuid, z.array(z.array(z.int().min(0).nullable()).max(4)).max(200)),
});

export const checkProgramme = (input: unknown): Checked<Programme> => checkedBy(programmeSchema, input);
