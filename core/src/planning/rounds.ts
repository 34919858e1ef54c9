/**
 * The usual ways in which rounds differ, by one choice: each is worked out into what every round does otherwise, from the weights that exist
 * and the rungs that are open. The line itself is what the top or the first round does.
 */
import type { Load } from '../dosage/loads.js';
import { equalEffort } from '../dosage/strength.js';
import { canonical } from '../movement/difference.js';
import type { PlanLane } from './plan.js';
import type { RoundSide, SetChange } from './set-change.js';

export const ROUND_PATTERNS = [
  'same',
  'left-right',
  'left-right-alternating',
  'easier-same-harder',
  'as-clean',
  'descending',
  'ascending',
  'ramp',
  'back-off',
] as const;
export type RoundPattern = (typeof ROUND_PATTERNS)[number];

export interface PatternFacts {
  /** Sets or rounds in all. */
  rounds: number;
  /** Work and rest by a clock: nothing is counted, and only the side, the weight and the rung can differ. */
  byClock: boolean;
  /** The movement has one side after the other. */
  each: boolean;
  /** Weights that may be used, the lightest first. */
  loads: readonly Load[];
  /** The doses of one rung down and up; null where none is open. */
  easier: Pick<PlanLane, 'movementId' | 'amount' | 'tempo' | 'load'> | null;
  harder: Pick<PlanLane, 'movementId' | 'amount' | 'tempo' | 'load'> | null;
}

/** Descending: 15-12-9 is a fifth of the first less each time. */
const LESS_EACH_ROUND = 0.2;

const inOrder = (rounds: number): number[] => Array.from({ length: rounds }, (_, i) => i + 1);

/** What each round does otherwise; null where the pattern cannot be: too few rounds, no sides, no rung or no other weight. */
export function roundsBy(pattern: RoundPattern, lane: PlanLane, facts: PatternFacts): SetChange[] | null {
  const sets = inOrder(facts.rounds);
  if (pattern === 'same') return [];
  if (facts.rounds < 2) return null;
  switch (pattern) {
    case 'left-right':
      return facts.each ? sides(sets, ['left', 'right']) : null;
    case 'left-right-alternating':
      return facts.each && facts.rounds >= 3 ? sides(sets, ['left', 'right', 'alternating']) : null;
    case 'easier-same-harder': {
      const { easier, harder } = facts;
      if (!easier && !harder) return null;
      // Three parts, the middle one the longest.
      const third = Math.floor(facts.rounds / 3) || 1;
      return sets.flatMap((set): SetChange[] => {
        const rung = set <= third ? easier : set > facts.rounds - third ? harder : null;
        return rung ? [{ set, ...doseOf(rung) }] : [];
      });
    }
    case 'as-clean':
      if (facts.byClock) return null;
      return sets.slice(1).map((set) => ({ set, asClean: true }));
    case 'descending':
    case 'ascending': {
      if (facts.byClock) return null;
      const amounts = sets.map((set) => Math.max(1, Math.round(lane.amount * (1 - LESS_EACH_ROUND * (set - 1)))));
      if (new Set(amounts).size < amounts.length) return null;
      const order = pattern === 'descending' ? amounts : amounts.toReversed();
      return order.flatMap((amount, i) => (amount === lane.amount ? [] : [{ set: i + 1, amount }]));
    }
    case 'ramp':
    case 'back-off': {
      const below = lighterThan(lane.load, facts.loads);
      if (below.length === 0) return null;
      if (pattern === 'ramp') return ramp(sets, below);
      return facts.byClock ? null : backOff(lane, sets, below);
    }
  }
}

/** The pattern that a lane's rounds follow; undefined for what was made otherwise. */
export const patternOf = (lane: PlanLane, facts: PatternFacts): RoundPattern | undefined =>
  ROUND_PATTERNS.find((pattern) => {
    const rounds = roundsBy(pattern, lane, facts);
    return rounds !== null && canonical(rounds) === canonical(lane.bySet ?? []);
  });

/** A lane as it is under a clock of work and rest: what its rounds change besides what is counted. */
export function underClock({ bySet, ...lane }: PlanLane): PlanLane {
  const rounds = (bySet ?? []).flatMap(({ amount: _, asClean: __, ...change }) =>
    Object.keys(change).length > 1 ? [change] : [],
  );
  return rounds.length === 0 ? lane : { ...lane, bySet: rounds };
}

/** A lane with the rounds of a pattern; without any that differ where the pattern cannot be. */
export function withPattern({ bySet: _, ...lane }: PlanLane, pattern: RoundPattern, facts: PatternFacts): PlanLane {
  const rounds = roundsBy(pattern, lane, facts) ?? [];
  return rounds.length === 0 ? lane : { ...lane, bySet: rounds };
}

const doseOf = ({ movementId, amount, tempo, load }: Pick<PlanLane, 'movementId' | 'amount' | 'tempo' | 'load'>) => ({
  movementId,
  amount,
  tempo,
  load,
});

const sides = (sets: readonly number[], order: readonly RoundSide[]): SetChange[] =>
  sets.flatMap((set) => {
    const side = order[(set - 1) % order.length];
    return side ? [{ set, side }] : [];
  });

/** Lighter weights of the same thing, the lightest first. */
export const lighterThan = (load: Load | null, loads: readonly Load[]): Load[] =>
  load?.kg == null
    ? []
    : loads.filter(
        (one) => one.item === load.item && one.count === load.count && one.kg !== null && one.kg < (load.kg ?? 0),
      );

/** Up a step each set, to the line's own weight in the last; before it what exists. */
function ramp(sets: readonly number[], below: readonly Load[]): SetChange[] {
  return sets.flatMap((set) => {
    const under = sets.length - set;
    const load = under === 0 ? undefined : (below[below.length - under] ?? below[0]);
    return load ? [{ set, load }] : [];
  });
}

/** A back-off is about a tenth lighter than the top set. */
const BACK_OFF = 0.9;

/** The top set first, then the next lighter weight that is felt, at the same effort. */
function backOff(lane: PlanLane, sets: readonly number[], below: readonly Load[]): SetChange[] {
  const top = lane.load?.kg ?? 0;
  const load = below.findLast(({ kg }) => (kg ?? 0) <= top * BACK_OFF) ?? below.at(-1);
  if (!load) return [];
  const amount = equalEffort({ kg: top, reps: lane.amount, left: 2 }, load.kg ?? 0)?.aim ?? lane.amount;
  return sets.slice(1).map((set) => ({ set, load, ...(amount === lane.amount ? {} : { amount }) }));
}

/** Lighter weights for a drop: the next real one that is felt each time, with half of the reps. Empty where there is none. */
export function dropsFrom(lane: Pick<PlanLane, 'load' | 'amount'>, loads: readonly Load[], most: number) {
  const drops: { load: Load; amount: number }[] = [];
  let from = lane.load;
  while (drops.length < most) {
    const top = from?.kg ?? 0;
    const next = lighterThan(from, loads).findLast(({ kg }) => (kg ?? 0) <= top * BACK_OFF);
    if (!next) break;
    drops.push({ load: next, amount: Math.max(1, Math.round(lane.amount / 2)) });
    from = next;
  }
  return drops;
}
