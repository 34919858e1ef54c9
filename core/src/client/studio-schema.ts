/** The studio, as requests and the store hold it: its name, its trainer, its kit and its rules. */
import { kitSchema } from '../movement/kit-schema.js';
import { LOOKS } from '../movement/looks.js';
import { SPACES } from '../movement/vocabulary.js';
import { called, line, uuid, words } from '../schema/atoms.js';
import { z } from '../schema/zod.js';

/** A park, a hotel, a client's office: what the studio keeps of it. */
export const keptPlaceSchema = z.strictObject({
  /** Made by the device. */
  id: uuid,
  name: called(80),
  kit: kitSchema,
  space: z.enum(SPACES),
});
export type KeptPlace = z.infer<typeof keptPlaceSchema>;

const fields = z.strictObject({
  name: called(80),
  trainer: line(80),
  kit: kitSchema,
  /** The room that there is to work in. */
  space: z.enum(SPACES),
  /** Where else sessions are held. */
  places: z
    .array(keptPlaceSchema)
    .max(50, 'has at most 50 places')
    .refine((all) => new Set(all.map(({ id }) => id)).size === all.length, 'has a place twice'),
  /** House rule → option; a rule that is not named keeps its first option. */
  houseRules: z.record(z.string(), z.string()),
  /** Who shows the movements; null for a mix of people. */
  looks: z.enum(LOOKS).nullable(),
  /** What is done here in an emergency, in the studio's own words, and whom to call. */
  emergencyText: words(2000),
  emergencyPhone: line(40).regex(/^[\d\s+()/-]*$/, 'must be a telephone number'),
});

const version = z.int().min(1);

export const studioSchema = fields.extend({
  version,
  /** How many there are. */
  clients: z.int().min(0),
  movements: z.int().min(0),
});
export type Studio = z.infer<typeof studioSchema>;

/** A change, and the version that it was made from: what is left out stays as it is. */
export const studioChangeSchema = fields
  .partial()
  .required({ name: true, trainer: true, kit: true })
  .extend({ version });
export type StudioChange = z.infer<typeof studioChangeSchema>;
