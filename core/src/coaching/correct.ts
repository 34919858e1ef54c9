/**
 * Faults seen in a set → one thing to say or do, and the next if it fails.
 * gain(k) = Σ over seen faults that k addresses of weight(fault) · P(k works for this client) − cost(kind).
 * A *stop* fault short-circuits; two failures on a step of the correction ladder move to the next step down.
 */
import { correctionKey } from '../movement/ids.js';
import type { Correction, Cue, Fault, Movement } from '../movement/schema.js';
import { CORRECTION_KINDS, type CorrectionKind } from '../movement/vocabulary.js';
import { believe, OUTCOME_SCORE } from './evidence.js';
import type { Evidence, Style } from './evidence-schema.js';
import type { Outcome } from './outcomes.js';
import { FAILURES_TO_STEP_DOWN, KIND_COST, SEVERITY_WEIGHT } from './weights.js';

/** A correction of this session and what came of it; without an outcome it is still being tried. */
export interface Attempt {
  faultId: string;
  correctionId: string;
  outcome: Outcome | null;
}

export interface Situation {
  movement: Movement;
  /** Open faults of this movement, by local id. */
  seen: readonly string[];
  attempts: readonly Attempt[];
  evidence: Evidence;
  now: string;
  /** Consent to touch is on file. */
  mayTouch: boolean;
  /** Whether the client may go to this movement at all (limits, kit). */
  maySwapTo: (movementId: string) => boolean;
}

export interface Suggestion {
  fault: Fault;
  correction: Correction;
  /** The words to say: the cue's when the correction leans on one. */
  cue: Cue | null;
  /** All seen faults that it answers, the owner first. */
  addresses: Fault[];
  chance: number;
  gain: number;
  why: CorrectionFacts;
}

/** What speaks for a correction, with this client. */
export interface CorrectionFacts {
  style: Style;
  /** Of so many times that the style was tried with this client, and how often it helped. */
  tried: number;
  worked: number;
  /** Seen faults that it answers, and the cause that all of them share; null where they share none. */
  answers: number;
  cause: string | null;
  /** What is milder did not help today. */
  steppedDown: boolean;
}

export type Advice =
  | { kind: 'stop'; fault: Fault; correction: Correction | null }
  | { kind: 'correct'; primary: Suggestion; next: Suggestion | null }
  /** Everything that is left costs more than the fault. */
  | { kind: 'leave'; fault: Fault }
  | { kind: 'clear' };

const step = (kind: CorrectionKind): number => CORRECTION_KINDS.indexOf(kind);

/** What to do about the faults that are open now. Unknown fault ids are ignored. */
export function advise(situation: Situation): Advice {
  const seen = situation.movement.faults.filter((fault) => situation.seen.includes(fault.id));
  const danger = seen.find((fault) => fault.severity === 'stop');
  if (danger) return stopFor(danger, situation);
  const worst = seen.toSorted((a, b) => SEVERITY_WEIGHT[b.severity] - SEVERITY_WEIGHT[a.severity])[0];
  if (!worst) return { kind: 'clear' };
  const primary = best(situation, seen);
  if (!primary || (primary.gain <= 0 && worst.severity === 'polish')) return { kind: 'leave', fault: worst };
  const failed: Attempt = { faultId: primary.fault.id, correctionId: primary.correction.id, outcome: 'same' };
  return { kind: 'correct', primary, next: best({ ...situation, attempts: [...situation.attempts, failed] }, seen) };
}

function stopFor(fault: Fault, situation: Situation): Advice {
  const usable = fault.corrections.filter(
    (c) => c.kind !== 'swap' || (c.swapTo !== undefined && situation.maySwapTo(c.swapTo)),
  );
  const strongest = usable.toSorted((a, b) => step(b.kind) - step(a.kind))[0];
  // The strongest measure that can be taken.
  return { kind: 'stop', fault, correction: strongest ?? null };
}

/** Failures (no change or worse) at each step of the correction ladder; two or more close that step and the ones above it. */
function closedUpTo(movement: Movement, attempts: readonly Attempt[], faultId: string): number {
  const failures = new Map<number, number>();
  const fault = movement.faults.find((f) => f.id === faultId);
  for (const attempt of attempts) {
    if (attempt.faultId !== faultId || attempt.outcome === null || OUTCOME_SCORE[attempt.outcome] > 0) continue;
    const kind = fault?.corrections.find((c) => c.id === attempt.correctionId)?.kind;
    if (kind) failures.set(step(kind), (failures.get(step(kind)) ?? 0) + 1);
  }
  return Math.max(-1, ...[...failures].filter(([, n]) => n >= FAILURES_TO_STEP_DOWN).map(([s]) => s));
}

const sharesCause = (correction: Correction, fault: Fault): boolean =>
  correction.causes.some((cause) => fault.causes.includes(cause));

/** The seen faults that a correction answers: its own, and those with a cause it removes. */
export const addressedBy = (correction: Correction, owner: Fault, seen: readonly Fault[]): Fault[] => [
  owner,
  ...seen.filter((fault) => fault.id !== owner.id && sharesCause(correction, fault)),
];

export function styleOf(movement: Movement, correction: Correction): Style {
  const cue = movement.cues.find((c) => c.id === correction.cueId);
  return { kind: correction.kind, focus: cue?.focus ?? null };
}

function best(situation: Situation, seen: readonly Fault[]): Suggestion | null {
  const { movement, attempts, evidence, now } = situation;
  let winner: Suggestion | null = null;
  for (const fault of seen) {
    const closed = closedUpTo(movement, attempts, fault.id);
    for (const correction of fault.corrections) {
      if (step(correction.kind) <= closed) continue;
      if (correction.kind === 'touch' && !situation.mayTouch) continue;
      if (correction.swapTo !== undefined && !situation.maySwapTo(correction.swapTo)) continue;
      const failedBefore = attempts.some(
        (a) =>
          a.faultId === fault.id &&
          a.correctionId === correction.id &&
          a.outcome !== null &&
          OUTCOME_SCORE[a.outcome] === 0,
      );
      if (failedBefore) continue;
      const style = styleOf(movement, correction);
      const belief = believe(correctionKey(movement.id, fault.id, correction.id), style, evidence, now);
      const addresses = addressedBy(correction, fault, seen);
      const worth = addresses.reduce((sum, f) => sum + SEVERITY_WEIGHT[f.severity], 0);
      const gain = worth * belief.chance - KIND_COST[correction.kind];
      if (winner && !isBetter(gain, correction, winner)) continue;
      const cue = movement.cues.find((c) => c.id === correction.cueId) ?? null;
      winner = {
        fault,
        correction,
        cue,
        addresses,
        chance: belief.chance,
        gain,
        why: {
          style,
          tried: belief.tried,
          worked: belief.worked,
          answers: addresses.length,
          cause: sharedCause(correction, addresses),
          steppedDown: closed >= 0,
        },
      };
    }
  }
  return winner;
}

const TIE = 1e-9;

/** More gain wins; on a tie the less intrusive does, and else the one found first. */
const isBetter = (gain: number, correction: Correction, winner: Suggestion): boolean =>
  gain > winner.gain + TIE ||
  (Math.abs(gain - winner.gain) <= TIE && step(correction.kind) < step(winner.correction.kind));

/** The cause that a correction removes and that all of several faults come from. */
const sharedCause = (correction: Correction, addresses: readonly Fault[]): string | null =>
  addresses.length > 1
    ? (correction.causes.find((cause) => addresses.every((fault) => fault.causes.includes(cause))) ?? null)
    : null;
