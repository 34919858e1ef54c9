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

/** Seconds of work in a turn, and rounds of a block. */
export const SHORTEST_WORK = 5;
export const LONGEST_WORK = 600;
export const MOST_ROUNDS = 20;

/** What of a block says how it goes. */
export type Going = Pick<Block, 'kind' | 'workSeconds' | 'workThen' | 'clock'>;

/** Seconds of one turn of a round where a clock says when to change; null where the work itself does. @param round from 1 */
export function turnSeconds(going: Going, round = 1): number | null {
  const { kind, workSeconds, clock } = going;
  if (kind !== 'circuit') return null;
  if (workSeconds === null) return clock?.mode === 'every' ? clock.seconds : null;
  const each = workEach(going);
  return each[round - 1] ?? each.at(-1) ?? workSeconds;
}

/** Seconds of work round by round, as far as they are said: the last of them goes on. `40, 30, 20` */
export const workEach = ({ workSeconds, workThen = [] }: Pick<Going, 'workSeconds' | 'workThen'>): number[] =>
  workSeconds === null ? [] : [workSeconds, ...workThen];

/** `40 s`; `40, 30, 20 s round by round`. */
export function workEachWords(going: Pick<Going, 'workSeconds' | 'workThen'>): string {
  const each = workEach(going);
  return `${each.join(', ')} s${each.length > 1 ? ' round by round' : ''}`;
}

/** Reads seconds of work round by round as they are typed, or says what is wrong. */
export function parseWork(typed: string): { workSeconds: number; workThen?: number[] } | { wrong: string } {
  const words = typed.split(/[\s,·;/-]+/).filter((word) => word !== '');
  const [first, ...then] = words.map((word) => (/^\d+$/.test(word) ? Number(word) : NaN));
  const fits = (seconds: number): boolean =>
    Number.isInteger(seconds) && seconds >= SHORTEST_WORK && seconds <= LONGEST_WORK;
  if (first === undefined || ![first, ...then].every(fits))
    return {
      wrong: `must be whole seconds from ${SHORTEST_WORK} to ${LONGEST_WORK}, such as 40, or 40, 30, 20 round by round`,
    };
  if (words.length > MOST_ROUNDS) return { wrong: `has at most ${MOST_ROUNDS} rounds` };
  return then.length === 0 ? { workSeconds: first } : { workSeconds: first, workThen: then };
}

/** Whether seconds of work and of rest say how a block goes, and nobody counts. */
export const isByWork = ({ kind, workSeconds }: Pick<Going, 'kind' | 'workSeconds'>): boolean =>
  kind === 'circuit' && workSeconds !== null;

/** The seconds in which as many rounds are done as there is time for; null for any other block. */
export const roundsIn = ({ kind, workSeconds, clock }: Going): number | null =>
  kind === 'circuit' && workSeconds === null && clock?.mode === 'rounds-in' ? clock.seconds : null;

/** Whether the turns of a block have their own doses, to be counted, under a clock that says when each begins. */
export const isEvery = ({ kind, workSeconds, clock }: Going): boolean =>
  kind === 'circuit' && workSeconds === null && clock?.mode === 'every';
