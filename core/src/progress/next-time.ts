/** What comes next for a movement between sessions: the policy asked with what the last session left. Plan, review and the page of a person share it. */
import { latest, latestCounted } from '../client/history.js';
import type { DoneSet, PastSession } from '../client/history-schema.js';
import { SAME_KG } from '../dosage/loads.js';
import { heldBack, type OpenFault, seriousOf } from './held.js';
import { type NextStep, nextStep, pastOf, type StepQuestion, type Work } from './next-step.js';
import type { Held } from './reason.js';

export type TimeQuestion = Omit<StepQuestion, 'work' | 'faults' | 'within'> & {
  /** A fault's name and severity; without it faults of last time are not named. */
  faultOf?: ((movementId: string, faultId: string) => OpenFault | undefined) | undefined;
};

/**
 * The weakest of the last session's sets counts: what all of them reached. Where weights changed from set to set, those with the heaviest
 * weight count: what led up to it, or followed it lighter, says less.
 */
function weakest(sets: readonly DoneSet[]): DoneSet | undefined {
  const top = Math.max(...sets.map(({ kg }) => kg ?? 0));
  return sets.filter(({ kg }) => (kg ?? 0) >= top - SAME_KG).toSorted((a, b) => a.amount - b.amount)[0];
}

/** What was counted last, as far as the next time rests on it; null where nothing ever was. */
export function lastWork(past: readonly PastSession[]): Work | null {
  const done = weakest(latestCounted(past)?.sets ?? []);
  if (!done) return null;
  const { amount, effort, kg = null, pieces = null, parts = null } = done;
  return { amount, effort, left: null, kg, label: null, pieces, parts };
}

const UNNAMED: OpenFault = { name: null, severity: 'fix' };

/** Faults that made a set of the last session unclean. What stopped a set was a reason to stop then; now it holds back. */
function lastFaults(question: TimeQuestion): OpenFault[] {
  const { movement, faultOf } = question;
  const sets = latest(pastOf(question))?.sets ?? [];
  const ids = [...new Set(sets.flatMap(({ faults = [] }) => faults))];
  const named = ids.map((id) => faultOf?.(movement.id, id) ?? UNNAMED);
  const all = named.length > 0 ? named : sets.some(({ clean }) => !clean) ? [UNNAMED] : [];
  const unique = all.filter((one, i) => all.findIndex(({ name }) => name === one.name) === i);
  return seriousOf(unique).map(({ name }) => ({ name, severity: 'fix' }));
}

/** A day on which tiredness cost form is gone on from as it is, and not above. */
const markedLast = (question: TimeQuestion): boolean => latest(pastOf(question))?.marked === true;

/** Why nothing goes up between sessions; null when it may. */
export const heldBetween = (question: TimeQuestion): Held | null =>
  heldBack(question.standing, lastFaults(question), lastWork(pastOf(question))?.effort ?? null) ??
  (markedLast(question) ? { code: 'marked' } : null);

export const nextTime = (question: TimeQuestion): NextStep =>
  nextStep({
    ...question,
    work: lastWork(pastOf(question)),
    faults: lastFaults(question),
    marked: markedLast(question),
    within: false,
  });
