/**
 * What the next set should be, from what was done, how it felt, how clean it was, and the weights that really exist.
 * Form gates load: nothing goes up while a serious fault is open or after pain. Every answer says why in one sentence.
 */
import type { DoseWindow } from '../movement/schema.js';
import type { DoseMode, Effort } from '../movement/vocabulary.js';
import { UNIT_WORDS } from '../movement/words.js';
import type { PainQuality } from '../client/pain.js';
import type { Load } from './loads.js';
import { equalEffort, expectedReps, MOST_REPS, REPS_LEFT } from './strength.js';

/** `rung-up` and `rung-down`: the dose of this movement has come to its end, and another movement is wanted. */
export const NEXT_KINDS = ['hold', 'up', 'down', 'more', 'slower', 'pause', 'rung-up', 'rung-down', 'stop'] as const;
export type NextKind = (typeof NEXT_KINDS)[number];

/** Largest step in load that is taken at once, as a share of the load in hand. */
export const ALLOWED_JUMP = { upper: 0.1, lower: 0.2 } as const;

export interface SetSituation {
  mode: DoseMode;
  window: Pick<DoseWindow, 'low' | 'high'>;
  /** Reps or seconds done, on the weaker side. */
  amount: number;
  effort: Effort;
  /** A typed number of reps left, where the trainer asked. */
  left?: number | null;
  /** The load in hand, one of `loads`; null when there is none. */
  load: Load | null;
  /** Loads that exist for this movement, lightest first. */
  loads: readonly Load[];
  /** Names of open faults that are more than polish. */
  faults: readonly string[];
  /** An open fault ends the set. */
  stopFault?: string | null;
  pain?: PainQuality | null;
  /** Largest step in load, as a share. */
  jump: number;
  /** Most kilograms without a spotter; null where there is no cap. */
  capKg?: number | null;
}

export interface NextSet {
  kind: NextKind;
  /** Load to take; null for none. */
  load: Load | null;
  /** Reps or seconds to aim at. */
  amount: number;
  why: string;
}

/** Reps that should be left at the bottom of the window after a step up. */
const LEFT_AFTER_STEP = 2;

const percent = (share: number): string => `${Math.round(share * 100)} %`;

/** Reps and what is left, as one number to failure. */
const toFailure = ({ amount, effort, left }: SetSituation): number => amount + (left ?? REPS_LEFT[effort]);

/** The next set. The load is always one of `loads`, or the one in hand. */
export function nextSet(s: SetSituation): NextSet {
  const { window, load, mode } = s;
  const keep = (kind: NextKind, amount: number, why: string): NextSet => ({ kind, load, amount, why });
  if (s.pain === 'sharp') return keep('stop', 0, 'Sharp pain: this movement is over for today.');
  if (s.stopFault) return keep('stop', 0, `${s.stopFault}: stop the set and sort it out before another rep.`);
  const failed = s.effort === 'failed';
  if (failed) return lessen(s, failed);
  if (s.amount < window.low) {
    const spare = mode === 'reps' ? toFailure(s) >= window.low + LEFT_AFTER_STEP : s.effort === 'easy';
    if (!spare || s.pain || s.faults.length > 0) return lessen(s, false);
    return keep('more', window.low, `Only ${s.amount}, felt ${s.effort}: there is more in it, ${window.low} next.`);
  }
  if (s.pain === 'dull') return keep('hold', window.low, 'Dull pain was reported: nothing goes up today.');
  if (s.faults.length > 0) {
    if (s.effort === 'hard') return lessen(s, false);
    return keep(
      'hold',
      Math.min(s.amount, window.high),
      `Nothing goes up before a clean set (seen: ${s.faults.join(', ')}).`,
    );
  }
  if (s.effort === 'hard') {
    const amount = Math.min(s.amount, window.high);
    const next = amount < s.amount ? `${amount} next, clean` : 'do it once more, clean';
    return keep('hold', amount, `Hard at ${s.amount} ${UNIT_WORDS[mode]}: ${next}.`);
  }
  if (s.amount < window.high) {
    const more = mode === 'reps' ? (s.effort === 'easy' ? 2 : 1) : s.effort === 'easy' ? 10 : 5;
    const amount = Math.min(window.high, s.amount + more);
    return keep(
      'more',
      amount,
      `${s.amount} felt ${s.effort}: ${amount} next, up to ${window.high} before ${load ? 'more weight' : 'the next rung'}.`,
    );
  }
  return goUp(s);
}

/** Above the load in hand: the next one that exists, unless it is capped. */
function heavier({ loads, load, capKg }: SetSituation): { next: Load | undefined; capped: boolean } {
  const at = loads.findIndex((one) => one.label === load?.label && one.kg === load.kg);
  const next = loads
    .slice(at + 1)
    .find((one) => load === null || one.kg === null || load.kg === null || one.kg > load.kg);
  const capped = next?.kg != null && capKg != null && next.kg > capKg;
  return { next: capped ? undefined : next, capped };
}

function goUp(s: SetSituation): NextSet {
  const { window, load, mode, jump } = s;
  const { next, capped } = heavier(s);
  const stay = (kind: NextKind, amount: number, why: string): NextSet => ({ kind, load, amount, why });
  const reached = `${s.amount} ${UNIT_WORDS[mode]} clean, felt ${s.effort}`;
  if (!load || !next) {
    if (capped)
      return stay('slower', window.low, `${reached}. No spotter: not above ${s.capKg} kg, so slow the lowering.`);
    if (!load || mode !== 'reps') return stay('rung-up', s.amount, `${reached}: time for the next rung.`);
    return stay('slower', window.low, `${reached}, and nothing heavier is here: slow the lowering to make it count.`);
  }
  if (load.kg === null || next.kg === null)
    return { kind: 'up', load: next, amount: window.low, why: `${reached}: next is ${next.label}.` };
  const step = next.kg / load.kg - 1;
  if (step <= jump + 1e-9)
    return {
      kind: 'up',
      load: next,
      amount: window.low,
      why: `${reached}: up ${percent(step)} to ${next.label}, from ${window.low} again.`,
    };
  const big = `From ${load.label} to ${next.label} is ${percent(step)}`;
  if (mode !== 'reps') return stay('more', s.amount + 5, `${big}: longer first.`);
  const first = repsFirst(load.kg, next.kg, window.low);
  if (first !== null && s.amount >= first)
    return {
      kind: 'up',
      load: next,
      amount: window.low,
      why: `${big}, and ${s.amount} reps here earn it: ${window.low} there.`,
    };
  if (first === null) return stay('pause', window.low, `${big}: too far to reach by reps, so pause at the hard place.`);
  return stay('more', Math.min(first, s.amount + 2), `${big}: reach ${first} reps with ${load.label} first.`);
}

/**
 * The reps to reach at `kg`, with two left, so that the next load lands at the bottom of the window with two left, by the formula in the middle.
 * Null when that would be more than the formulas hold for.
 */
export function repsFirst(kg: number, nextKg: number, low: number): number | null {
  for (let reps = low; reps + LEFT_AFTER_STEP <= MOST_REPS; reps += 1) {
    const there = expectedReps(kg, reps + LEFT_AFTER_STEP, nextKg);
    if (there && there.middle >= low + LEFT_AFTER_STEP - 1e-9) return reps;
  }
  return null;
}

/** A lighter weight must be lighter by enough to be felt. */
const LESS = 0.94;

/** The set was too much: the heaviest lighter load that lands in the window, else less of it. */
function lessen(s: SetSituation, failed: boolean): NextSet {
  const { window, load, loads, mode } = s;
  const faulty = s.faults.length > 0 ? ` with ${s.faults.join(', ')}` : '';
  const told = failed ? `Failed at ${s.amount}${faulty}` : `${s.amount} ${UNIT_WORDS[mode]}, felt ${s.effort}${faulty}`;
  const lighter = loads.filter((one) => load?.kg != null && one.kg !== null && one.kg <= LESS * load.kg);
  const n = toFailure(s);
  const fits = lighter.findLast((one) => {
    if (mode !== 'reps') return true;
    const there = load?.kg ? expectedReps(load.kg, Math.max(1, n), one.kg ?? 0) : null;
    return there === null || there.middle >= window.low + LEFT_AFTER_STEP - 1e-9;
  });
  const down = fits ?? lighter[0];
  if (down)
    return {
      kind: 'down',
      load: down,
      amount: window.low,
      why: `${told}: down to ${down.label} for ${window.low}, clean.`,
    };
  if (s.amount < window.low / 2 || (load === null && s.amount < window.low))
    return {
      kind: 'rung-down',
      load,
      amount: window.low,
      why:
        load === null
          ? `${told}: take an easier movement.`
          : `${told}, and nothing lighter is here: take an easier movement.`,
    };
  const amount = Math.max(1, Math.min(s.amount - (failed ? 2 : 0), window.low));
  return { kind: 'hold', load, amount, why: `${told}: back to ${amount}, with good form.` };
}

/** The same work with whatever weight is there: reps to aim at with each load, where a formula can say. */
export const sameEffort = (done: { kg: number; reps: number; left: number }, loads: readonly Load[]) =>
  loads.flatMap((load) => {
    const dose = load.kg === null ? null : equalEffort(done, load.kg);
    return dose ? [{ load, dose }] : [];
  });

/**
 * A hold that is too long in one piece, broken up: `36` seconds for somebody who holds `15` is three times `12`.
 * Pieces are equal but for the last seconds, at most `longest`, and add up to `total` exactly.
 * @throws RangeError unless both are whole and at least 1
 */
export function brokenHold(total: number, longest: number): number[] {
  for (const [name, value] of [
    ['total', total],
    ['longest', longest],
  ] as const)
    if (!Number.isInteger(value) || value < 1)
      throw new RangeError(`${name} must be a whole number of seconds, at least 1`);
  const pieces = Math.ceil(total / longest);
  const short = Math.floor(total / pieces);
  const extra = total - short * pieces;
  return Array.from({ length: pieces }, (_, i) => short + (i < extra ? 1 : 0));
}

/** `3 × 12 s`, or `13 + 12 + 12 s` when they differ. */
export const holdWords = (pieces: readonly number[]): string =>
  new Set(pieces).size === 1
    ? pieces.length === 1
      ? `${pieces[0]} s`
      : `${pieces.length} × ${pieces[0]} s`
    : `${pieces.join(' + ')} s`;
