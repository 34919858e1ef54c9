/**
 * The mark for today: tiredness begins to cost form, and less of what is left is better than more. It is seen from the sets of one line, against
 * the first of them and against the last time; it is said once, and never on a day that is easy anyway. It never adds work.
 */
import type { DoneSet } from '../client/history-schema.js';
import { SAME_KG } from '../dosage/loads.js';
import type { MovementSummary } from '../movement/summary-schema.js';
import type { Effort } from '../movement/vocabulary.js';
import { EFFORTS } from '../movement/vocabulary.js';
import type { PlanLane } from '../planning/plan.js';
import { doneSets } from '../session/digest.js';
import type { MarkTake } from '../session/events.js';
import { isPending, type RunStep, stepSeconds } from '../session/run.js';
import { endLine, swapTo } from './commands.js';
import { type Draft, draft, type NewId } from './draft.js';
import { type LaneView, movementOf } from './lane-view.js';
import { doseFor, isStepOpen, swapsOf } from './next.js';

/** What speaks for it. */
export type MarkSign =
  | { code: 'fewer'; set: number; by: number }
  | { code: 'below-last-time'; set: number; by: number }
  | { code: 'fault-again'; fault: string; sets: number }
  | { code: 'harder'; effort: Effort }
  | { code: 'broken'; pieces: number };

export interface Mark {
  entryId: string;
  signs: MarkSign[];
  /** What there is to take instead of what is left; each is less. */
  takes: { take: Exclude<MarkTake, 'nothing'>; movementId: string | null }[];
}

/** A fall in reps or seconds that is no chance: a quarter, and at least two. */
const FALL = 0.25;
const LEAST_FALL = 2;
/** One sign is enough where reps fell by so much, or a set failed. */
const STEEP = 0.4;

const falls = (from: number, to: number): boolean => from - to >= Math.max(LEAST_FALL, from * FALL);
const sameWeight = (a: DoneSet, b: DoneSet): boolean => Math.abs((a.kg ?? 0) - (b.kg ?? 0)) < SAME_KG;

/** Null while nothing turns, when it was asked already, and when nothing is left that could be less. */
export function markFor(view: LaneView): Mark | null {
  const { justDone, standing, alarm, steps } = view;
  if (!justDone?.page || justDone.entry.marked !== null || standing.ease || alarm) return null;
  const { entry, page } = justDone;
  const own = steps.filter(({ itemId }) => itemId === entry.itemId);
  // What the plan makes different from set to set says nothing about tiredness.
  if (own.some((step) => step.own || step.lane.side !== undefined || step.lane.asClean || step.lane.test)) return null;
  const sets = doneSets(entry, page.movement);
  const [first, last] = [sets[0], sets.at(-1)];
  if (!first || !last || sets.length < 2) return null;
  const signs = signsOf(view, entry.movementId, sets, first, last);
  const steep = sameWeight(first, last) && first.amount - last.amount >= Math.max(LEAST_FALL, first.amount * STEEP);
  const enough = signs.length >= 2 || (signs.length === 1 && (steep || last.effort === 'failed'));
  const takes = enough ? takesFor(view, own) : [];
  return takes.length > 0 ? { entryId: entry.id, signs, takes } : null;
}

function signsOf(
  view: LaneView,
  movementId: string,
  sets: readonly DoneSet[],
  first: DoneSet,
  last: DoneSet,
): MarkSign[] {
  const n = sets.length;
  const signs: MarkSign[] = [];
  if (sameWeight(first, last) && falls(first.amount, last.amount))
    signs.push({ code: 'fewer', set: n, by: first.amount - last.amount });
  const before = view.record.sets[movementId]?.at(-1)?.sets[n - 1];
  if (before && sameWeight(before, last) && falls(before.amount, last.amount))
    signs.push({ code: 'below-last-time', set: n, by: before.amount - last.amount });
  for (const fault of last.faults ?? []) {
    const seen = sets.filter(({ faults }) => faults?.includes(fault)).length;
    if (seen >= 2) signs.push({ code: 'fault-again', fault, sets: seen });
  }
  const grade = (effort: Effort | null) => (effort === null ? null : EFFORTS.indexOf(effort));
  const [from, to] = [grade(first.effort), grade(last.effort)];
  if (last.effort && from !== null && to !== null && to > from && to >= EFFORTS.indexOf('hard'))
    signs.push({ code: 'harder', effort: last.effort });
  const [pieces, firstPieces] = [last.pieces?.length ?? 1, first.pieces?.length ?? 1];
  if (pieces > firstPieces) signs.push({ code: 'broken', pieces });
  return signs;
}

function takesFor(view: LaneView, own: readonly RunStep[]): Mark['takes'] {
  const left = own.filter(isPending);
  const easier = left[0] && easierThan(view, left[0]);
  const stretch = stretchOf(view);
  return [
    ...(left.length > 0 ? [{ take: 'fewer-sets' as const, movementId: null }] : []),
    ...(easier ? [{ take: 'easier' as const, movementId: easier.id }] : []),
    ...(stretch && before(view, stretch).length > 0
      ? [{ take: 'stretch' as const, movementId: stretch.lane.movementId }]
      : []),
  ];
}

/** The first easier movement that is less work; undefined where the line in hand is another one by now. */
function easierThan(view: LaneView, step: RunStep): MovementSummary | undefined {
  if (view.movement?.id !== step.lane.movementId) return undefined;
  return swapsOf(view, 'too-hard')
    .ranked.flatMap(({ id }) => movementOf(view, id) ?? [])
    .find((movement) => lessDose(view, step, movement) !== null);
}

/** A client's own dose of an easier movement, cut to the seconds of the set in hand; null where it is heavier or takes longer whatever is cut. */
function lessDose(view: LaneView, step: RunStep, movement: MovementSummary): PlanLane | null {
  const dose = doseFor(view, movement);
  if ((dose.load?.kg ?? 0) > (step.lane.load?.kg ?? 0)) return null;
  const find = (id: string) => movementOf(view, id);
  const most = stepSeconds({ ...step, block: null }, find);
  for (let amount = dose.amount; amount >= 1; amount -= 1) {
    const less = { ...dose, amount };
    if (stepSeconds({ ...step, lane: less, block: null }, find) <= most) return less;
  }
  return null;
}

/** The first set of what eases off, where it is still to come and open. */
const stretchOf = (view: LaneView): RunStep | undefined =>
  view.steps.find((step) => isPending(step) && step.block?.kind === 'stretch' && isStepOpen(view, step));

/** Lines that are still to do and do not ease off. */
const before = ({ steps }: LaneView, stretch: RunStep): string[] => [
  ...new Set(
    steps
      .filter((step) => isPending(step) && step.block?.kind !== 'stretch' && step !== stretch)
      .map(({ itemId }) => itemId),
  ),
];

/** Takes less of what is left, and notes it; or only notes that it was asked. */
export function takeMark(view: LaneView, { entryId }: Mark, take: Mark['takes'][number] | null, newId: NewId): Draft[] {
  const noted = draft(newId(), 'mark-noted', { entryId, took: take?.take ?? 'nothing' });
  if (!take) return [noted];
  return [noted, ...lessOf(view, take, newId)];
}

function lessOf(view: LaneView, { take, movementId }: Mark['takes'][number], newId: NewId): Draft[] {
  const itemId = view.justDone?.entry.itemId ?? null;
  const stretch = stretchOf(view);
  if (take === 'easier') return movementId === null ? [] : toEasier(view, movementId, newId);
  if (take === 'stretch')
    return stretch
      ? [
          ...before(view, stretch).map((id) => endLine(view, id, newId)),
          draft(newId(), 'gone-to', { itemId: stretch.itemId, set: stretch.set }),
        ]
      : [];
  return itemId === null ? [] : [endLine(view, itemId, newId)];
}

/** Goes on with an easier movement, and with no more seconds a set than the one in hand takes. */
function toEasier(view: LaneView, movementId: string, newId: NewId): Draft[] {
  const movement = movementOf(view, movementId);
  const dose = view.step && movement && lessDose(view, view.step, movement);
  if (!dose) return [];
  return swapTo(view, movementId, 'tired', newId).map((one) =>
    one.type === 'dose-changed' ? { ...one, data: { ...one.data, amount: dose.amount } } : one,
  );
}
