/** A client's lane for a movement: sets, amount, load and tempo from what was done last, or for a first time; always with the reason. */
import { aimOf } from '../dosage/aim.js';
import { loadsFor, type Load } from '../dosage/loads.js';
import { ALLOWED_JUMP, nextSet, type NextKind } from '../dosage/next-set.js';
import { parseTempo } from '../dosage/tempo.js';
import type { MovementSummary } from '../formats/answers.js';
import { latest, type DoneSet, type PastSession } from '../ladder/readiness.js';
import type { KitPiece } from '../movement/kit.js';
import type { DoseWindow } from '../movement/schema.js';
import type { Purpose } from '../movement/vocabulary.js';
import type { PlanLane } from './plan.js';

export interface LaneRequest {
  clientId: string;
  movement: MovementSummary;
  purpose: Purpose;
  /** Sessions with this movement, in any order. */
  past: readonly PastSession[];
  kit: readonly KitPiece[];
  /** Nothing goes up today: dull pain, poor sleep. In words, for the reason. */
  ease?: string | null;
  /** Kilograms of the easier rung that this one follows, for a first time. */
  fromKg?: number | null;
}

/** The window of a purpose, or what the movement aims at otherwise. */
export const windowFor = (movement: Pick<MovementSummary, 'dose'>, purpose: Purpose): DoseWindow =>
  movement.dose.windows[purpose] ?? aimOf(movement);

const UPPER: readonly string[] = ['push', 'pull'];

/** The allowed step in load: a tenth for the upper body, a fifth for the lower. */
export const jumpFor = ({ pattern }: Pick<MovementSummary, 'pattern'>): number =>
  UPPER.includes(pattern) ? ALLOWED_JUMP.upper : ALLOWED_JUMP.lower;

/** Demand for a spotter from which nobody goes heavier alone. */
const SPOTTED = 2;

/** Where a movement asks for a spotter the load stays at what was lifted; elsewhere there is no cap. */
export const capFor = ({ demands }: Pick<MovementSummary, 'demands'>, kg: number | null | undefined): number | null =>
  (demands['spotter-needed'] ?? 0) >= SPOTTED ? (kg ?? null) : null;

/** What comes nearest to the load of last time from below; a band or nothing where it was not weighed. */
const loadLike = (loads: readonly Load[], kg: number | null): Load | null => {
  const weighed = loads.filter((load) => load.kg !== null);
  if (kg === null) return loads.find((load) => load.kg === null) ?? null;
  return weighed.findLast((load) => (load.kg ?? 0) <= kg + 1e-9) ?? weighed[0] ?? null;
};

/** The weakest of the last session's sets counts: what all of them reached. */
const weakest = (sets: readonly DoneSet[]): DoneSet | undefined => sets.toSorted((a, b) => a.amount - b.amount)[0];

/** What changes from last time. `easier`: it was too hard, and a rung down is wanted. */
export type LaneChange = NextKind | 'first' | 'easier';

export interface NextLane {
  lane: PlanLane;
  change: LaneChange;
}

/** Share of the easier rung's weight that a new rung begins with, at most. */
const FIRST_SHARE = 0.5;

export function laneFor({ clientId, movement, purpose, past, kit, ease, fromKg }: LaneRequest): NextLane {
  const window = windowFor(movement, purpose);
  const loads = loadsFor(movement.kit, kit);
  const base = { clientId, movementId: movement.id, withId: null, tempo: movement.dose.tempo, rest: window.rest };
  const last = latest(past);
  const done = last && weakest(last.sets);
  if (!last || !done) {
    const weighed = loads.filter(({ kg }) => kg !== null);
    const half = fromKg ? weighed.findLast(({ kg }) => (kg ?? 0) <= FIRST_SHARE * fromKg) : undefined;
    const load = half ?? weighed[0] ?? loads[0] ?? null;
    const words = half
      ? `at most half of the weight before, ${half.label}`
      : load
        ? `the lightest there is, ${load.label}`
        : 'the low end';
    const why = `First time: ${words}, to learn it clean.`;
    return { lane: { ...base, sets: window.sets[0], amount: window.low, load, why }, change: 'first' };
  }
  const load = loadLike(loads, done.kg ?? null);
  const next = nextSet({
    mode: movement.dose.mode,
    window,
    amount: done.amount,
    // Without an answer the set counts as hard: nothing goes up on a guess.
    effort: done.effort ?? 'hard',
    load,
    loads,
    faults: last.sets.every(({ clean }) => clean) ? [] : ['a fault that was open last time'],
    jump: jumpFor(movement),
    capKg: capFor(movement, done.kg),
    pain: null,
  });
  const held = ease && !EASING.includes(next.kind);
  const kind = held ? 'hold' : next.kind;
  const tooHard = kind === 'swap' && done.amount < window.high;
  const amount = held ? Math.min(done.amount, window.high) : next.amount;
  const why = held
    ? `Held today: ${ease}.`
    : kind === 'swap' && !tooHard
      ? `${done.amount} clean, felt ${done.effort}: the same again until the sign for the next rung is met.`
      : next.why;
  const lane: PlanLane = {
    ...base,
    tempo: tempoFor(kind, base.tempo),
    sets: Math.min(window.sets[1], Math.max(window.sets[0], last.sets.length)),
    amount: Math.max(1, amount),
    load: held ? load : next.load,
    why: done.effort === null ? `${why} (Effort was not noted.)` : why,
  };
  return { lane, change: tooHard ? 'easier' : kind };
}

/** What may still happen on a day on which nothing goes up. */
export const EASING: readonly NextKind[] = ['hold', 'down', 'stop'];

/** The tempo that a change asks for: two seconds more to lower, or one more at the hard place. */
export function tempoFor(kind: NextKind, tempo: string): string {
  const [lower, pause, rise, top] = parseTempo(tempo);
  if (kind === 'slower') return [lower + 2, pause, rise, top].join('-');
  return kind === 'pause' ? [lower, pause + 1, rise, top].join('-') : tempo;
}

/** Kilograms of the latest set; null without a load. */
export const lastKg = (past: readonly PastSession[]): number | null => latest(past)?.sets.at(-1)?.kg ?? null;
