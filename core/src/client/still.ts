/** A picture that was kept of a client's clip, with what was read from it. Private, as the rest of their file. */
import { type Checked, checkedBy, instant, slug, text, uuid } from '../schema/atoms.js';
import { z } from '../schema/zod.js';

/** A picture of at most so many bytes. */
export const MOST_STILL_BYTES = 300_000;
export const MOST_STILLS = 40;

/** The first bytes of a JPEG, as base64 writes them. */
const JPEG = /^\/9j\/[A-Za-z0-9+/]*={0,2}$/;

export const stillSchema = z.strictObject({
  id: uuid,
  takenAt: instant,
  movementId: slug,
  /** What was read at that moment, in words. */
  says: text(400),
  /** A JPEG in base64. */
  picture: z
    .string()
    .max(Math.ceil(MOST_STILL_BYTES / 3) * 4, `must be at most ${MOST_STILL_BYTES / 1000} kB`)
    .regex(JPEG, 'must be a JPEG picture in base64'),
});
export type Still = z.infer<typeof stillSchema>;

/** A still that is to be kept. Its id comes from whoever sends it, so that one sent twice is kept once. */
export const checkStill = (input: unknown): Checked<Still> => checkedBy(stillSchema, input);
