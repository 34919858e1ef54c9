/** Why a movement goes on as it does: what the dose arithmetic says, and what the policy of progress decides above it. */
import { easeSchema } from '../client/ease.js';
import { amountFact, faultFact, labelFact, SET_REASONS } from '../dosage/reason.js';
import { readyWhenSchema } from '../movement/schema.js';
import { DOSE_MODES, EFFORTS, LIMITED } from '../movement/vocabulary.js';
import { slug, whole } from '../schema/atoms.js';
import { MOST_PARTS, partSchema } from '../schema/part.js';
import { reasonOf } from '../schema/reason.js';
import { z } from '../schema/zod.js';

/** What closes a movement, without the words of anybody's limit: those stay with the client. */
export const closingSchema = z.discriminatedUnion('code', [
  reasonOf('limit', { demand: z.enum(LIMITED), asked: z.number() }),
  reasonOf('hurt-now', {}),
  reasonOf('hurt-before', {}),
  reasonOf('kit', {}),
]);
export type Closing = z.infer<typeof closingSchema>;

/** Why nothing goes up now. */
export const heldSchema = z.discriminatedUnion('code', [
  reasonOf('open-fault', { fault: faultFact }),
  reasonOf('pain', {}),
  reasonOf('failed', {}),
  /** Tiredness cost form the last time. */
  reasonOf('marked', {}),
  /** A limit on holding the breath: nothing gets heavier. */
  reasonOf('strain', {}),
  reasonOf('ease', { ease: easeSchema }),
  /** The movement was not done for so many weeks. */
  reasonOf('away', { weeks: whole(1, 5_000) }),
  /** Another weight would leave no reps worth doing. */
  reasonOf('few-reps', {}),
]);
export type Held = z.infer<typeof heldSchema>;

const pieces = z.array(amountFact).max(100);
const parts = z.array(partSchema).max(MOST_PARTS);
const kg = z.number();

export const STEP_REASONS = [
  ...SET_REASONS,
  reasonOf('closed', { by: z.array(closingSchema) }),
  /** First times: with what, and where that is known from. */
  reasonOf('first-bare', {}),
  reasonOf('first-low', {}),
  reasonOf('first-lightest', { to: labelFact }),
  reasonOf('first-light', { to: labelFact }),
  reasonOf('first-related', { to: labelFact, kg, movementId: slug }),
  reasonOf('first-years', { to: labelFact, years: z.number() }),
  reasonOf('first-after', { to: labelFact, movementId: slug }),
  reasonOf('uncounted', {}),
  reasonOf('pieces', { done: pieces, next: pieces, held: heldSchema.nullable() }),
  /** A composed set: what it was, and what it is next. */
  reasonOf('parts', {
    done: parts,
    next: parts,
    way: z.enum(['more', 'same', 'less']),
    /** Another weight to go with it; null for the same. */
    to: labelFact.nullable(),
    held: heldSchema.nullable(),
  }),
  reasonOf('replaced', {
    kg,
    to: labelFact,
    amount: amountFact,
    mode: z.enum(DOSE_MODES),
    held: heldSchema.nullable(),
  }),
  /** Only heavier is here; `held` is null where it is for want of a spotter. */
  reasonOf('only-heavier', { kg, to: labelFact, held: heldSchema.nullable() }),
  reasonOf('held', { held: heldSchema }),
  /** The first time after weeks without any session: a little less, with what. */
  reasonOf('after-away', { weeks: whole(1, 5_000), to: labelFact.nullable(), next: amountFact }),
  /** `been`: the rung was done before, and is gone back to. */
  reasonOf('ready', { movementId: slug, sign: readyWhenSchema, been: z.boolean().optional() }),
  reasonOf('same-again', { amount: amountFact, mode: z.enum(DOSE_MODES), effort: z.enum(EFFORTS).nullable() }),
  reasonOf('effort-unknown', {}),
] as const;

export type StepReason = z.infer<(typeof STEP_REASONS)[number]>;
