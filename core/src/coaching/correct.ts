/**
 * Faults seen in a set → one thing to say or do, and the next if it fails.
 * What changes a cause that the trainer named comes first, then what answers the most of what is seen: two faults at once have one cause more
 * often than two. Among those the gain decides:
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
  /** Causes that the trainer named for what is seen, the latest last. */
  named: readonly string[];
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
  /** The trainer named that cause. */
  named: boolean;
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
  if (!primary) return { kind: 'leave', fault: worst };
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

/** A correction that may be offered, and the fault whose it is. */
interface Candidate {
  fault: Fault;
  correction: Correction;
  /** Steps of the correction ladder down to this one are closed for the fault; -1 where none is. */
  closed: number;
  addresses: Fault[];
  /** The named cause that it changes; null where it changes none. */
  named: string | null;
}

function best(situation: Situation, seen: readonly Fault[]): Suggestion | null {
  let winner: Suggestion | null = null;
  const onlyPolish = seen.every(({ severity }) => severity === 'polish');
  for (const candidate of candidatesOf(situation, seen)) {
    const one = suggestionOf(situation, candidate);
    if (onlyPolish && one.gain <= 0) continue;
    if (!winner || isBetter(one, winner)) winner = one;
  }
  return winner;
}

function* candidatesOf(situation: Situation, seen: readonly Fault[]): Generator<Candidate> {
  const { movement, attempts } = situation;
  for (const fault of movement.faults) {
    const isSeen = seen.includes(fault);
    const closed = closedUpTo(movement, attempts, fault.id);
    for (const correction of fault.corrections) {
      const named = situation.named.findLast((cause) => correction.causes.includes(cause)) ?? null;
      // What a fault that is not there has to offer helps only against the cause that was named.
      if (!isSeen && (named === null || correction.kind === 'stop')) continue;
      if (step(correction.kind) <= closed || !isAllowed(situation, correction)) continue;
      if (failedBefore(attempts, fault, correction)) continue;
      // What was named is taken for the cause of all that is seen.
      const addresses = named === null ? addressedBy(correction, fault, seen) : ownFirst(fault, seen);
      yield { fault, correction, closed, addresses, named };
    }
  }
}

const isAllowed = ({ mayTouch, maySwapTo }: Situation, { kind, swapTo }: Correction): boolean =>
  (kind !== 'touch' || mayTouch) && (swapTo === undefined || maySwapTo(swapTo));

const failedBefore = (attempts: readonly Attempt[], fault: Fault, correction: Correction): boolean =>
  attempts.some(
    (a) =>
      a.faultId === fault.id &&
      a.correctionId === correction.id &&
      a.outcome !== null &&
      OUTCOME_SCORE[a.outcome] === 0,
  );

/** A fault before the others, where it is one of them. */
const ownFirst = (own: Fault, all: readonly Fault[]): Fault[] =>
  all.toSorted((a, b) => Number(b === own) - Number(a === own));

function suggestionOf({ movement, evidence, now }: Situation, candidate: Candidate): Suggestion {
  const { fault, correction, closed, addresses, named } = candidate;
  const style = styleOf(movement, correction);
  const belief = believe(correctionKey(movement.id, fault.id, correction.id), style, evidence, now);
  return {
    fault,
    correction,
    cue: movement.cues.find((c) => c.id === correction.cueId) ?? null,
    addresses,
    chance: belief.chance,
    gain: worthOf(addresses) * belief.chance - KIND_COST[correction.kind],
    why: {
      style,
      tried: belief.tried,
      worked: belief.worked,
      answers: addresses.length,
      cause: named ?? sharedCause(correction, addresses),
      named: named !== null,
      steppedDown: closed >= 0,
    },
  };
}

const TIE = 1e-9;

const worthOf = (faults: readonly Fault[]): number => faults.reduce((sum, f) => sum + SEVERITY_WEIGHT[f.severity], 0);

/** A correction of a fault that is there, and not of another one with the same cause. */
const isOwn = ({ addresses, fault }: Suggestion): boolean => addresses.includes(fault);

/** What was named, of the faults that are there first, then what answers more; then more gain wins, on a tie the less intrusive does, and else the one found first. */
function isBetter(one: Suggestion, winner: Suggestion): boolean {
  if (one.why.named !== winner.why.named) return one.why.named;
  if (isOwn(one) !== isOwn(winner)) return isOwn(one);
  const worth = worthOf(one.addresses) - worthOf(winner.addresses);
  if (Math.abs(worth) > TIE) return worth > 0;
  const gain = one.gain - winner.gain;
  return gain > TIE || (gain >= -TIE && step(one.correction.kind) < step(winner.correction.kind));
}

/** The cause that a correction removes and that all of several faults come from. */
const sharedCause = (correction: Correction, addresses: readonly Fault[]): string | null =>
  addresses.length > 1
    ? (correction.causes.find((cause) => addresses.every((fault) => fault.causes.includes(cause))) ?? null)
    : null;
