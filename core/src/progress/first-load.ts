/**
 * The weight of a first time. Never the lightest there is where more is known: half of what a related lift says, else a usual start for
 * somebody with that much training; rounded down to what exists. All shares are guesses, and labelled so: only their order of size is argued for.
 */
import { latest } from '../client/history.js';
import type { DoneSet, PastSession } from '../client/history-schema.js';
import type { Load } from '../dosage/loads.js';
import { estimate, MOST_REPS, REPS_LEFT } from '../dosage/strength.js';
import { opennessFor } from '../movement/limits.js';
import type { DoseWindow, KitOption } from '../movement/schema.js';
import type { MovementSummary } from '../movement/summary-schema.js';
import type { Pattern } from '../movement/vocabulary.js';
import { mayNotStrain } from './held.js';
import type { StepQuestion } from './next-step.js';
import type { StepReason } from './reason.js';
import { demandsOf } from './spotter.js';

/** Kilograms in all with which somebody who trains a little begins ten reps of a usual movement of a pattern. */
const USUAL_KG: Readonly<Record<Pattern, number>> = {
  squat: 12,
  lunge: 10,
  hinge: 16,
  push: 12,
  pull: 12,
  brace: 4,
  rotate: 5,
  carry: 24,
  travel: 6,
  mobilise: 2,
};

const SHARE = {
  /** One joint moves: a curl, a raise. */
  oneJoint: 0.5,
  /** One side works at a time. */
  oneSide: 0.7,
  overhead: 0.7,
  /** A bar is held by both hands and guided by nothing else. */
  barbell: 1.6,
  /** A machine carries what hands would have to hold. */
  legPress: 3,
  /** Of what the rung below was done with: all where the load is the step, less where something else gets harder as well. */
  rung: { load: 1, other: 0.75 },
  /** Of what a related lift says, the first time. */
  first: 0.5,
  /** Of that, where the other lift is of another pattern. */
  otherPattern: 0.7,
} as const;

/** Times the usual start, by whole years of training. */
const TRAINED: readonly (readonly [years: number, times: number])[] = [
  [3, 1.75],
  [1, 1.25],
  [0, 0.5],
];
/** The same for everybody who must not hold the breath: heavy is not theirs yet, whatever they did before. */
const UNSTRAINED = 0.5;

/** What a walk or a hold with a weight is compared with. */
const USUAL_REPS = 10;

/** Clean reps of an unloaded movement of the pattern after which its lightest weight would teach nothing. */
const OWNED_REPS = 12;

const LOWER: readonly Pattern[] = ['squat', 'lunge', 'hinge'];
const UPPER: readonly Pattern[] = ['push', 'pull'];

/** Patterns whose lifts say something of another one's, beside its own. */
const RELATED: Readonly<Partial<Record<Pattern, readonly Pattern[]>>> = {
  squat: LOWER,
  lunge: LOWER,
  hinge: LOWER,
  push: UPPER,
  pull: UPPER,
  // What hands and back have held before, they can walk with.
  carry: ['hinge', 'pull', 'squat'],
  rotate: UPPER,
};

/** A demand from which a weight is not one to guess. */
const CLEARLY = 2;

/** How heavy a movement usually is against others of the same person. */
function usualKg({ pattern, muscles, sides, demands }: MovementSummary, by: number): number {
  const oneJoint = UPPER.includes(pattern) && muscles.prime.length === 1;
  return (
    USUAL_KG[pattern] *
    (oneJoint ? SHARE.oneJoint : 1) *
    (sides === 'each' ? SHARE.oneSide : 1) *
    ((demands.overhead ?? 0) >= CLEARLY ? SHARE.overhead : 1) *
    by
  );
}

/** What carries the weight in an option of kit, against hands. */
const carriedBy = ({ needs }: KitOption): number =>
  needs.some(({ item }) => item === 'leg-press')
    ? SHARE.legPress
    : needs.some(({ item }) => item === 'barbell')
      ? SHARE.barbell
      : 1;

/** What was lifted may have been lifted the easiest way that there is, and what comes may be held the hardest: the guess errs to the light side. */
const easiest = ({ kit }: MovementSummary): number => Math.max(1, ...kit.map(carriedBy));
const hardest = ({ kit }: MovementSummary): number => (kit.length > 0 ? Math.min(...kit.map(carriedBy)) : 1);

export interface FirstLoad {
  load: Load | null;
  why: StepReason;
}

/**
 * @param loads those that exist for the movement, lightest first
 * @param bare it can be done without a weight: where nothing is known, it is
 */
export function firstLoad(
  question: Pick<StepQuestion, 'standing' | 'movement' | 'sets' | 'find' | 'ladder'>,
  window: Pick<DoseWindow, 'low'>,
  loads: readonly Load[],
  bare: boolean,
): FirstLoad {
  const { standing, movement } = question;
  const weighed = loads.filter(({ kg }) => kg !== null);
  const [lightest] = weighed;
  const nothing: FirstLoad = { load: null, why: { code: 'first-bare' } };
  const low: FirstLoad = { load: null, why: { code: 'first-low' } };
  const light = (one: Load): FirstLoad => ({ load: one, why: { code: 'first-lightest', to: one.label } });
  if (bare && !lightest) return loads[0] ? nothing : low;
  if (!lightest) return loads[0] ? light(loads[0]) : low;
  const plain = bare ? nothing : light(lightest);
  // On a bad day, at the edge of a limit, or where a slip would end badly, nothing is guessed.
  const risky = (load: Load) => {
    const demands = demandsOf(movement, load);
    return opennessFor(demands, standing.limits) !== 'open' || (demands['spotter-needed'] ?? 0) >= CLEARLY;
  };
  if (standing.ease !== null || standing.pain) return plain;
  const usual = usualKg(movement, hardest(movement));
  const reps = movement.dose.mode === 'reps' ? window.low : USUAL_REPS;
  // What was lifted before says nothing to somebody who must not strain now.
  const known =
    (mayNotStrain(standing) ? null : related(question, usual, reps)) ??
    // On one leg the balance is learned first, whatever the legs could lift.
    (bare && (movement.demands['single-leg-balance'] ?? 0) >= CLEARLY ? null : started(question, usual, bare));
  const load = known && weighed.findLast((one) => (one.kg ?? 0) <= known.kg && !risky(one));
  if (!load || (!bare && (load.kg ?? 0) <= (lightest.kg ?? 0))) return plain;
  return { load, why: known.why(load.label) };
}

/** A weight that something speaks for, and the reason for the load that it comes to. */
interface Known {
  kg: number;
  why: (to: string) => StepReason;
}

/** What the rung below was done with, or half of what the strongest related lift says; null where none was done. */
function related(
  { movement, sets, find, ladder }: Pick<StepQuestion, 'movement' | 'sets' | 'find' | 'ladder'>,
  usual: number,
  reps: number,
): Known | null {
  const patterns = RELATED[movement.pattern] ?? [];
  const all = Object.entries(sets).flatMap(([id, past]) => {
    const other = id === movement.id ? undefined : find(id);
    const same = other?.pattern === movement.pattern;
    const done = other && (same || patterns.includes(other.pattern)) ? bestOf(past) : undefined;
    if (!other || !done) return [];
    const below = ladder.rungs.get(id)?.harder.find(({ to }) => to === movement.id);
    // What a machine or a bar carried, and what both legs did, is not for one hand or one leg.
    const carried = usual / usualKg(other, easiest(other));
    const share = below
      ? SHARE.rung[below.lever === 'load' ? 'load' : 'other'] * Math.min(1, carried)
      : SHARE.first * (same ? 1 : SHARE.otherPattern) * carried;
    return [{ other, same, done, kg: atReps(done, reps) * share, below: below !== undefined }];
  });
  const [best] = all.toSorted(
    (a, b) => Number(b.below) - Number(a.below) || Number(b.same) - Number(a.same) || b.kg - a.kg,
  );
  if (!best) return null;
  const { kg, done, other } = best;
  return { kg, why: (to) => ({ code: 'first-related', to, kg: done.kg, movementId: other.id }) };
}

type Lifted = DoneSet & { kg: number };

/** Sessions back from the latest one in which a clean set still counts. */
const RECENT = 4;

/** The heaviest clean set of the latest sessions, if any had a weight. */
const bestOf = (past: readonly PastSession[]): Lifted | undefined =>
  past
    .toSorted((a, b) => a.at.localeCompare(b.at))
    .slice(-RECENT)
    .flatMap(({ sets }) => sets)
    .filter((set): set is Lifted => set.clean && set.effort !== 'failed' && (set.kg ?? 0) > 0)
    .toSorted((a, b) => a.kg - b.kg)
    .at(-1);

/** Kilograms for so many reps with as many left as were left then; without an estimate what was lifted. */
function atReps({ kg, amount, effort }: Lifted, reps: number): number {
  const left = REPS_LEFT[effort ?? 'hard'];
  const most = estimate(kg, Math.min(MOST_REPS, amount + left));
  return most ? most.low / (1 + (reps + left) / 30) : kg;
}

/** A usual start: for what can also be done without a weight only where somebody has trained before or owns the pattern so. */
function started(
  { standing, movement, sets, find }: Pick<StepQuestion, 'standing' | 'movement' | 'sets' | 'find'>,
  usual: number,
  bare: boolean,
): Known | null {
  const years = standing.trainingYears ?? 0;
  const trained = TRAINED.find(([from]) => years >= from)?.[1] ?? 0;
  const times = mayNotStrain(standing) ? Math.min(UNSTRAINED, trained) : trained;
  if (times >= 1) return { kg: usual * times, why: (to) => ({ code: 'first-years', to, years }) };
  const owned = Object.entries(sets).find(
    ([id, past]) =>
      find(id)?.pattern === movement.pattern &&
      (latest(past)?.sets ?? []).some(({ clean, amount, kg }) => clean && !kg && amount >= OWNED_REPS),
  );
  if (owned && !mayNotStrain(standing)) {
    const [movementId] = owned;
    return { kg: usual, why: (to) => ({ code: 'first-after', to, movementId }) };
  }
  return bare ? null : { kg: usual * times, why: (to) => ({ code: 'first-light', to }) };
}
