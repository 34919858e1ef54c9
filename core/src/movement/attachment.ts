/** A picture that a studio attached to a movement. */
import { z } from '../schema/zod.js';

export const pictureSchema = z.strictObject({ id: z.string(), caption: z.string(), addedAt: z.string() });
export type Picture = z.infer<typeof pictureSchema>;
