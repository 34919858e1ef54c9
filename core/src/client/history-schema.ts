/** What is known of a client's past, as it is told and kept: sets by movement, rungs that were moved, how often faults show. */
import { EFFORTS } from '../movement/vocabulary.js';
import { partSchema } from '../schema/part.js';
import { z } from '../schema/zod.js';

const many = z.int().min(0);

/** One recorded set of a movement. `amount` is reps or seconds on the weaker side. */
export const doneSetSchema = z.strictObject({
  amount: z.number(),
  /** The pieces of a hold that was broken, in seconds; left out where it was whole. */
  pieces: z.array(z.number()).readonly().optional(),
  /** What was done of a composed set; left out for a plain one. */
  parts: z.array(partSchema).readonly().optional(),
  effort: z.enum(EFFORTS).nullable(),
  /** No fault of severity stop or fix was open at it. */
  clean: z.boolean(),
  /** Load used, if any. */
  kg: z.number().nullish(),
  /** The faults of severity stop or fix that were open at it; left out where there were none. */
  faults: z.array(z.string()).readonly().optional(),
});
export type DoneSet = z.infer<typeof doneSetSchema>;

/** The sets of one movement in one session. */
export const pastSessionSchema = z.strictObject({
  at: z.string(),
  sets: z.array(doneSetSchema).readonly(),
  /** Sets by a clock that nobody counted: done, and no measure of anything. Left out where there were none. */
  byClock: many.optional(),
  /** Tiredness began to cost form in it, and less was done: the next time starts from there. */
  marked: z.literal(true).optional(),
});
export type PastSession = z.infer<typeof pastSessionSchema>;

/** Over how many sets of a movement how often each of its faults was seen. */
export const faultTallySchema = z.strictObject({
  sets: many,
  /** By fault; one that was never seen is not in it. */
  seen: z.record(z.string(), many),
});
export type FaultTally = z.infer<typeof faultTallySchema>;

/** A line that was gone on with as another movement. */
export const moveSchema = z.strictObject({
  from: z.string(),
  to: z.string(),
  why: z.string().nullable(),
  /** It was for want of kit or room, for a change or for everybody, and no step down. */
  aside: z.literal(true).optional(),
  /** When the other one was begun. */
  at: z.string(),
});
export type Move = z.infer<typeof moveSchema>;

/** How much was to be corrected in one session. */
export const faultLoadSchema = z.strictObject({
  at: z.string(),
  sets: many,
  /** Times that a fault was marked. */
  faults: many,
});
export type FaultLoad = z.infer<typeof faultLoadSchema>;

/** A movement with a sharp pain in it that is open, and the time of the last report. */
export const hurtSchema = z.strictObject({ movementId: z.string(), at: z.string() });
export type Hurt = z.infer<typeof hurtSchema>;
