/** Every number that coaching rests on. Starting guesses, to be replaced by what the records show. */
import type { CorrectionKind, Severity } from '../movement/vocabulary.js';

/** How much solving a fault is worth. */
export const SEVERITY_WEIGHT: Readonly<Record<Severity, number>> = { stop: 4, fix: 1, polish: 0.4 };

/** What a correction costs the client in attention, dignity or training effect. */
export const KIND_COST: Readonly<Record<CorrectionKind, number>> = {
  say: 0,
  show: 0.1,
  touch: 0.3,
  prop: 0.3,
  slow: 0.35,
  shorten: 0.5,
  lighten: 0.6,
  swap: 1.2,
  stop: 2.5,
};

/** Beta prior of success by kind, as trials that went well and badly before anything is known. */
export const KIND_PRIOR: Readonly<Record<CorrectionKind, readonly [worked: number, failed: number]>> = {
  say: [1.8, 2.2],
  show: [2, 2],
  touch: [2.2, 1.8],
  prop: [2.4, 1.6],
  slow: [2, 2],
  shorten: [2.4, 1.6],
  lighten: [2.6, 1.4],
  swap: [3.2, 0.8],
  stop: [3.8, 0.2],
};

/** Days after which an outcome counts half. */
export const HALF_LIFE_DAYS = 60;

/** What everybody else's outcomes may weigh together, in trials. */
export const OTHERS_MOST_TRIALS = 8;

/** What an outcome of the same kind and focus, but of another correction, counts. */
export const SAME_STYLE_SHARE = 0.5;

/** Failures on one step of the correction ladder before the next step down. */
export const FAILURES_TO_STEP_DOWN = 2;

/** A likely-to-appear fault before anything is known of the client, as chance per set. */
export const FAULT_PRIOR: Readonly<Record<Severity, number>> = { stop: 0.15, fix: 0.3, polish: 0.3 };
