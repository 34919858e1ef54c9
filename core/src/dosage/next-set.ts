/**
 * What the next set should be, from what was done, how it felt, how clean it was, and the weights that really exist.
 * Form gates load: nothing goes up while a serious fault is open or after pain. Every answer says why.
 */
import type { PainQuality } from '../client/pain.js';
import type { DoseWindow } from '../movement/schema.js';
import type { DoseMode, Effort } from '../movement/vocabulary.js';
import type { Load } from './loads.js';
import type { SetReason } from './reason.js';
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
  /** How it felt; null where that was not noted, which counts as hard: nothing goes up on a guess. */
  effort: Effort | null;
  /** A typed number of reps left, where the trainer asked. */
  left?: number | null;
  /** The load in hand, one of `loads`; null when there is none. */
  load: Load | null;
  /** Loads that exist for this movement, lightest first. */
  loads: readonly Load[];
  /** It can be done without a weight as well. */
  bare?: boolean;
  /** Names of open faults that are more than polish; null for one that has none. */
  faults: readonly (string | null)[];
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
  why: SetReason;
}

/** Reps that should be left at the bottom of the window after a step up. */
const LEFT_AFTER_STEP = 2;

/** What was done, as facts of a reason. */
const doneIn = ({ amount, mode, effort }: SetSituation) => ({ amount, mode, effort });

/** Reps and what is left, as one number to failure. */
const toFailure = ({ amount, effort, left }: SetSituation): number => amount + (left ?? REPS_LEFT[effort ?? 'hard']);

/** So many times the window nobody does with a hard set: the reps tell what was not asked. */
const TELLING = 1.25;

const isHard = ({ effort, amount, window }: SetSituation): boolean =>
  effort === 'hard' || (effort === null && amount < window.high * TELLING);

/** Below this share of the window it is too much; above it, what felt well is grown and what was hard is done once more. */
const NEARLY = { felt: 0.75, hard: 0.6 } as const;

/** The next set. The load is always one of `loads`, the one in hand, or none where that is possible. */
export function nextSet(s: SetSituation): NextSet {
  const { window, load, mode } = s;
  const keep = (kind: NextKind, amount: number, why: SetReason): NextSet => ({ kind, load, amount, why });
  if (s.pain === 'sharp') return keep('stop', 0, { code: 'sharp-pain' });
  if (s.stopFault) return keep('stop', 0, { code: 'stop-fault', fault: s.stopFault });
  const failed = s.effort === 'failed';
  if (failed) return lessen(s, failed);
  if (s.amount < window.low) {
    const spare = mode === 'reps' ? toFailure(s) >= window.low + LEFT_AFTER_STEP : s.effort === 'easy';
    const near = !isHard(s) && s.amount >= window.low * NEARLY.felt;
    if (!(spare || near) || s.pain || s.faults.length > 0) return lessen(s, false);
    const next = spare ? window.low : Math.min(window.low, s.amount + (mode === 'reps' ? 1 : 5));
    return keep('more', next, { code: 'more-in-it', amount: s.amount, effort: s.effort, next });
  }
  if (s.pain === 'dull') return keep('hold', window.low, { code: 'dull-pain' });
  if (s.faults.length > 0) {
    if (isHard(s)) return lessen(s, false);
    return keep('hold', Math.min(s.amount, window.high), { code: 'unclean', faults: [...s.faults] });
  }
  if (isHard(s)) {
    const amount = Math.min(s.amount, window.high);
    return keep('hold', amount, { code: 'once-more', ...doneIn(s), next: amount });
  }
  if (s.amount < window.high) {
    const more = mode === 'reps' ? (s.effort === 'easy' ? 2 : 1) : s.effort === 'easy' ? 10 : 5;
    const amount = Math.min(window.high, s.amount + more);
    return keep('more', amount, { code: 'more', ...doneIn(s), next: amount, high: window.high, loaded: load !== null });
  }
  return goUp(s);
}

/** Kilograms from which the first weight after none is no small step. */
export const FIRST_KG = 10;

/** Above the load in hand: the next one that exists, unless it is capped. */
function heavier({ loads, load, capKg }: SetSituation): { next: Load | undefined; capped: boolean } {
  const at = loads.findIndex((one) => one.label === load?.label && one.kg === load.kg);
  const next = loads
    .slice(at + 1)
    .find((one) => load === null || one.kg === null || load.kg === null || one.kg > load.kg);
  const capped = next?.kg != null && capKg != null && next.kg > capKg;
  return { next: capped ? undefined : next, capped };
}

/** What felt easy may go further than the usual step, as far as the reps bear it. */
const EASY_REACH = 0.1;

const reachOf = ({ jump, effort }: SetSituation): number => jump + (effort === 'easy' ? EASY_REACH : 0);

/** Reps to failure at another load; null where no formula holds. */
const repsAt = (s: SetSituation, { kg }: Load): number | null =>
  s.load?.kg && kg !== null ? (expectedReps(s.load.kg, toFailure(s), kg)?.middle ?? null) : null;

/** Where the weights lie close together a single one is no step: the heaviest within reach that leaves the low end of the window in reserve. */
function furthest(s: SetSituation, nearest: Load | undefined): Load | undefined {
  const { load, loads, window, mode, capKg } = s;
  const from = load?.kg;
  if (!nearest || from == null || nearest.kg === null || mode !== 'reps') return nearest;
  const left = s.effort === 'easy' ? 1 : LEFT_AFTER_STEP;
  return (
    loads.findLast((one) => {
      if (one.kg === null || one.kg <= (nearest.kg ?? 0) || one.kg > from * (1 + reachOf(s)) + 1e-9) return false;
      const reps = repsAt(s, one);
      return (capKg == null || one.kg <= capKg) && reps !== null && reps >= window.low + left;
    }) ?? nearest
  );
}

/** Reps to aim at after a step: the low end, or more where the step is small for what was done. */
function lowAt(s: SetSituation, to: Load): number {
  const { low, high } = s.window;
  const reps = repsAt(s, to);
  return reps === null ? low : Math.max(low, Math.min(high, Math.floor(reps) - LEFT_AFTER_STEP - 1));
}

function goUp(s: SetSituation): NextSet {
  const { window, load, mode } = s;
  const { next: nearest, capped } = heavier(s);
  const next = furthest(s, nearest);
  const stay = (kind: NextKind, amount: number, why: SetReason): NextSet => ({ kind, load, amount, why });
  const low = next ? lowAt(s, next) : window.low;
  const up = (to: Load, why: SetReason): NextSet => ({ kind: 'up', load: to, amount: low, why });
  const done = doneIn(s);
  if (!load && s.bare && next && (next.kg ?? 0) <= FIRST_KG)
    return up(next, { code: 'first-weight', ...done, to: next.label, next: window.low });
  if (!load || !next) {
    if (capped) return stay('slower', window.low, { code: 'no-spotter', ...done, kg: s.capKg ?? 0 });
    if (!load || mode !== 'reps') return stay('rung-up', s.amount, { code: 'next-rung', ...done });
    return stay('slower', window.low, { code: 'nothing-heavier', ...done });
  }
  if (load.kg === null || next.kg === null) return up(next, { code: 'next-load', ...done, to: next.label });
  const share = next.kg / load.kg - 1;
  if (share <= reachOf(s) + 1e-9) return up(next, { code: 'heavier', ...done, to: next.label, share, next: low });
  const big = { from: load.label, to: next.label, share };
  if (mode !== 'reps') return stay('more', s.amount + 5, { code: 'longer-first', ...big });
  const reps = repsFirst(load.kg, next.kg, window.low);
  if (reps !== null && s.amount >= reps) return up(next, { code: 'earned', ...big, amount: s.amount, next: low });
  if (reps === null) return stay('pause', window.low, { code: 'too-far', ...big });
  return stay('more', Math.min(reps, s.amount + 2), { code: 'reps-first', ...big, reps });
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
  const seen = { ...doneIn(s), faults: [...s.faults] };
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
      why: { code: 'lighter', ...seen, to: down.label, next: window.low },
    };
  if (s.bare && load?.kg)
    return {
      kind: 'down',
      load: null,
      amount: window.low,
      why: { code: 'without-weight', ...seen, next: window.low },
    };
  const least = load || s.faults.length === 0 ? NEARLY.hard : 1;
  if (s.amount < window.low * least)
    return {
      kind: 'rung-down',
      load,
      amount: window.low,
      why: { code: 'easier-movement', ...seen, loaded: load !== null },
    };
  const amount = Math.max(1, Math.min(s.amount - (failed ? 2 : 0), window.low));
  return { kind: 'hold', load, amount, why: { code: 'back-to', ...seen, next: amount } };
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

/** Seconds below which a piece of a hold is not worth a breath. */
const LEAST_PIECE = 5;

/**
 * A hold that was broken, put together again: the first piece a little longer than the best before, the others no longer than that, the whole
 * the same. Three times 10 becomes 12, 10, 8, and in the end 30 in one.
 * @param total seconds in all, at least those of the longest piece
 */
export function nextPieces(pieces: readonly number[], total: number): number[] {
  const best = Math.max(1, ...pieces);
  const first = Math.min(total, best + Math.max(2, Math.round(best / 5)));
  const rest = total - first;
  if (rest < LEAST_PIECE) return [total];
  const full = Array.from({ length: Math.floor(rest / best) }, () => best);
  const tail = rest % best;
  if (tail === 0) return [first, ...full];
  if (tail >= LEAST_PIECE || full.length === 0) return [first, ...full, tail];
  // A crumb at the end is shared with the piece before it.
  const both = best + tail;
  return [first, ...full.slice(1), Math.ceil(both / 2), Math.floor(both / 2)];
}

/** `3 × 12 s`, or `13 + 12 + 12 s` when they differ. */
export const holdWords = (pieces: readonly number[]): string =>
  new Set(pieces).size === 1
    ? pieces.length === 1
      ? `${pieces[0]} s`
      : `${pieces.length} × ${pieces[0]} s`
    : `${pieces.join(' + ')} s`;
