/** Why a set is followed by what it is: codes with their facts. The page makes sentences of them, and plans keep them. */
import { DOSE_MODES, EFFORTS } from '../movement/vocabulary.js';
import { text, whole } from '../schema/atoms.js';
import { reasonOf } from '../schema/reason.js';
import { z } from '../schema/zod.js';

/** Reps, seconds or metres. */
export const amountFact = whole(0, 100_000);
/** A weight as it is read. */
export const labelFact = text(80);
/** A fault, by its name; none where no more is known than that there was one. */
export const faultFact = text(60).nullable();
const share = z.number().min(0).max(1_000);

/** What was done, and how it felt; null where that was not noted. */
const done = { amount: amountFact, mode: z.enum(DOSE_MODES), effort: z.enum(EFFORTS).nullable() };
/** The same with the faults that were seen in it. */
const seen = { ...done, faults: z.array(faultFact).max(40) };
/** From one weight to the next, with the step as a share. */
const jump = { from: labelFact, to: labelFact, share };

export const SET_REASONS = [
  reasonOf('sharp-pain', {}),
  reasonOf('stop-fault', { fault: faultFact }),
  reasonOf('more-in-it', { amount: amountFact, effort: done.effort, next: amountFact }),
  reasonOf('dull-pain', {}),
  reasonOf('unclean', { faults: z.array(faultFact).max(40) }),
  reasonOf('once-more', { ...done, next: amountFact }),
  reasonOf('more', { ...done, next: amountFact, high: amountFact, loaded: z.boolean() }),
  reasonOf('first-weight', { ...done, to: labelFact, next: amountFact }),
  reasonOf('no-spotter', { ...done, kg: z.number() }),
  reasonOf('next-rung', done),
  reasonOf('nothing-heavier', done),
  reasonOf('next-load', { ...done, to: labelFact }),
  reasonOf('heavier', { ...done, to: labelFact, share, next: amountFact }),
  reasonOf('longer-first', jump),
  reasonOf('earned', { ...jump, amount: amountFact, next: amountFact }),
  reasonOf('too-far', jump),
  reasonOf('reps-first', { ...jump, reps: amountFact }),
  reasonOf('lighter', { ...seen, to: labelFact, next: amountFact }),
  reasonOf('without-weight', { ...seen, next: amountFact }),
  reasonOf('easier-movement', { ...seen, loaded: z.boolean() }),
  reasonOf('back-to', { ...seen, next: amountFact }),
] as const;

export type SetReason = z.infer<(typeof SET_REASONS)[number]>;
