/**
 * What worked for whom: outcomes of corrections as evidence, and the chance that a correction works for this client now.
 * Beta posterior mean over fading trials (conjugate Beta–Bernoulli updating; fixed = 1, better = ½, same or worse = 0).
 */
import type { Counted, Evidence, Style, Trial } from './evidence-schema.js';
import type { Outcome } from './outcomes.js';
import { HALF_LIFE_DAYS, KIND_PRIOR, OTHERS_MOST_TRIALS, SAME_STYLE_SHARE } from './weights.js';

export const OUTCOME_SCORE: Readonly<Record<Outcome, number>> = { fixed: 1, better: 0.5, same: 0, worse: 0 };

export const NO_EVIDENCE: Evidence = { trials: [], others: {} };

const DAY = 86_400_000;

/** 1 for now, ½ after one half-life; never more than 1, so a wrong clock cannot inflate a trial. */
export const fading = (at: string, now: string): number =>
  Math.min(1, 2 ** (-(Date.parse(now) - Date.parse(at)) / DAY / HALF_LIFE_DAYS));

function weigh(trials: readonly Trial[], now: string, share: (trial: Trial) => number = () => 1): Counted {
  let worked = 0;
  let total = 0;
  for (const trial of trials) {
    const weight = fading(trial.at, now) * share(trial);
    worked += weight * OUTCOME_SCORE[trial.outcome];
    total += weight;
  }
  return { worked, total };
}

/** Trials as counts by correction, at the weight that they have now. */
export function countTrials(trials: readonly Trial[], now: string): Record<string, Counted> {
  const byCorrection = new Map<string, Trial[]>();
  for (const trial of trials)
    byCorrection.set(trial.correction, [...(byCorrection.get(trial.correction) ?? []), trial]);
  return Object.fromEntries([...byCorrection].map(([correction, own]) => [correction, weigh(own, now)]));
}

const sameStyle = (trial: Trial, style: Style): boolean => trial.kind === style.kind && trial.focus === style.focus;

export interface Belief {
  /** Posterior mean, 0–1. */
  chance: number;
  /** This client's record with the style, unfaded, for the reason in words. */
  worked: number;
  tried: number;
}

/**
 * How likely `correction` is to work for a client.
 * Prior by kind; others' outcomes of this very correction, scaled down to at most 8 trials; this client's outcomes of it in full
 * and of its style by half.
 */
export function believe(correction: string, style: Style, { trials, others }: Evidence, now: string): Belief {
  const [priorWorked, priorFailed] = KIND_PRIOR[style.kind];
  const theirs = others[correction] ?? { worked: 0, total: 0 };
  const scale = theirs.total > OTHERS_MOST_TRIALS ? OTHERS_MOST_TRIALS / theirs.total : 1;
  const own = trials.filter((t) => t.correction === correction || sameStyle(t, style));
  const mine = weigh(own, now, (t) => (t.correction === correction ? 1 : SAME_STYLE_SHARE));
  const worked = priorWorked + theirs.worked * scale + mine.worked;
  const total = priorWorked + priorFailed + theirs.total * scale + mine.total;
  const styled = own.filter((t) => sameStyle(t, style));
  return {
    chance: worked / total,
    worked: styled.filter((t) => OUTCOME_SCORE[t.outcome] > 0).length,
    tried: styled.length,
  };
}
