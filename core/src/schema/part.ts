/** One part of a composed set, as plans and events hold it. Its arithmetic is in `dosage`. */
import { tempoSchema, whole } from './atoms.js';
import { z } from './zod.js';

export const PART_KINDS = ['reps', 'half', 'pulses', 'hold'] as const;
export type PartKind = (typeof PART_KINDS)[number];

/** Where in the range a pulse or a hold is. */
export const POINTS = ['bottom', 'middle', 'top'] as const;
export type Point = (typeof POINTS)[number];

export const partSchema = z.discriminatedUnion('kind', [
  /** Reps, at a tempo of their own or at that of the line. */
  z.strictObject({ kind: z.literal('reps'), count: whole(1, 200), tempo: tempoSchema.nullable() }),
  /** Half up, down again, and the whole way: each counts once. */
  z.strictObject({ kind: z.literal('half'), count: whole(1, 100) }),
  /** Small moves around one point of the range, one each second. */
  z.strictObject({ kind: z.literal('pulses'), count: whole(1, 300), at: z.enum(POINTS).nullable() }),
  z.strictObject({ kind: z.literal('hold'), count: whole(1, 600), at: z.enum(POINTS).nullable() }),
]);
export type Part = z.infer<typeof partSchema>;

/** Parts of one set, at most. */
export const MOST_PARTS = 12;
