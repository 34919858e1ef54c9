/**
 * How a circuit goes by a clock: work and rest in turns, a turn that begins every so many seconds whatever is left of the one before, or as many
 * rounds as there is time for.
 */
import { whole } from '../schema/atoms.js';
import { z } from '../schema/zod.js';
import type { Block } from './plan.js';

export const blockClockSchema = z.discriminatedUnion('mode', [
  /** Each turn has its own dose, and what is left of the seconds is its rest: every minute on the minute. */
  z.strictObject({ mode: z.literal('every'), seconds: whole(20, 600) }),
  /** As many rounds as go into the seconds. The rounds of the block are those that are expected. */
  z.strictObject({ mode: z.literal('rounds-in'), seconds: whole(60, 3600) }),
]);
export type BlockClock = z.infer<typeof blockClockSchema>;

/** What of a block says how it goes. */
export type Going = Pick<Block, 'kind' | 'workSeconds' | 'clock'>;

/** Seconds of one turn where a clock says when to change; null where the work itself does. */
export function turnSeconds({ kind, workSeconds, clock }: Going): number | null {
  if (kind !== 'circuit') return null;
  return workSeconds ?? (clock?.mode === 'every' ? clock.seconds : null);
}

/** The seconds in which as many rounds are done as there is time for; null for any other block. */
export const roundsIn = ({ kind, workSeconds, clock }: Going): number | null =>
  kind === 'circuit' && workSeconds === null && clock?.mode === 'rounds-in' ? clock.seconds : null;

/** Whether the turns of a block have their own doses, to be counted, under a clock that says when each begins. */
export const isEvery = ({ kind, workSeconds, clock }: Going): boolean =>
  kind === 'circuit' && workSeconds === null && clock?.mode === 'every';
