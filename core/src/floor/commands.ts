/** What the taps of the floor mean, as drafts of events. Nothing is recorded here. */
import type { BodySide, PainQuality } from '../client/pain.js';
import { type Load, loadsFor, SAME_KG } from '../dosage/loads.js';
import { amountOfParts } from '../dosage/parts.js';
import { itemsOf } from '../movement/kit.js';
import type { KitPiece } from '../movement/kit-schema.js';
import type { MovementSummary } from '../movement/summary-schema.js';
import type { KitItem, Region } from '../movement/vocabulary.js';
import { isEvery, roundsIn } from '../planning/block-clock.js';
import type { RoundSide } from '../planning/set-change.js';
import type { Part } from '../schema/part.js';
import type { SetSide } from '../session/events.js';
import type { ChangedDose } from '../session/fold.js';
import { firstSide, progressOf } from '../session/progress.js';
import type { RunStep } from '../session/run.js';
import { type Timer, workOf } from '../session/timer.js';
import { sideByClock } from './clock-turn.js';
import { type Draft, draft, type NewId } from './draft.js';
import { timerSeconds } from './lane-time.js';
import { entryOf, type JustDone, type LaneView, movementOf } from './lane-view.js';
import { doseFor, doseNow, isStepOpen, type Proposal } from './next.js';

/** The stay at the movement in hand, begun with the first thing that is recorded of it. @throws Error when no movement is in hand */
function stayOf({ entry, movement, step }: LaneView, newId: NewId): { entryId: string; drafts: Draft[] } {
  if (entry) return { entryId: entry.id, drafts: [] };
  if (!movement) throw new Error('no movement is in hand');
  const entryId = newId();
  const started = draft(entryId, 'movement-started', {
    movementId: movement.id,
    why: null,
    ...(step ? { itemId: step.itemId } : {}),
    ...(step?.lane.withId ? { withId: step.lane.withId } : {}),
  });
  return { entryId, drafts: [started] };
}

/** Something that is recorded of the stay in hand. */
export function atStay(view: LaneView, newId: NewId, of: (entryId: string) => readonly Draft[]): Draft[] {
  const { entryId, drafts } = stayOf(view, newId);
  return [...drafts, ...of(entryId)];
}

/**
 * Puts a movement in after the one in hand, and goes to it.
 * @param sets how many of it; as many as usual without a number
 */
export function begin(view: LaneView, movementId: string, why: string | null, newId: NewId, sets?: number): Draft[] {
  const movement = movementOf(view, movementId);
  if (!movement) return [];
  const itemId = newId();
  const dose = doseFor(view, movement);
  const lane = sets === undefined ? dose : { ...dose, sets };
  return [
    draft(newId(), 'item-added', { itemId, afterId: view.step?.itemId ?? null, lane }),
    draft(newId(), 'gone-to', { itemId, set: 1 }),
    draft(newId(), 'movement-started', { movementId, why, itemId }),
  ];
}

/**
 * Goes on with another movement in the place of the one in hand, at this client's own dose of it.
 * @param aside it is for want of kit or room, for a change or for everybody, and says nothing about the rung
 */
export const swapTo = (view: LaneView, movementId: string, why: string, newId: NewId, aside = false): Draft[] =>
  view.step ? inPlaceOf(view, view.step.itemId, movementId, why, newId, aside) : begin(view, movementId, why, newId);

function inPlaceOf(
  view: LaneView,
  itemId: string,
  movementId: string,
  why: string,
  newId: NewId,
  aside = false,
): Draft[] {
  const movement = movementOf(view, movementId);
  if (!movement) return [];
  const { amount, load, tempo } = doseFor(view, movement);
  return [
    draft(newId(), 'movement-started', { movementId, why, itemId, ...(aside && { aside }) }),
    draft(newId(), 'dose-changed', { itemId, amount, load, tempo }),
  ];
}

/** Goes on with another movement in the place of the one that hurt. */
export function afterPain(view: LaneView, movementId: string, newId: NewId): Draft[] {
  const itemId = view.lane.entries.findLast((entry) => entry.movementId === view.alarm?.movementId)?.itemId ?? null;
  if (itemId === null) return begin(view, movementId, 'pain', newId);
  const next = view.steps.find((step) => step.itemId === itemId && step.state === 'skipped');
  return [
    ...inPlaceOf(view, itemId, movementId, 'pain', newId),
    ...(next ? [draft(newId(), 'gone-to', { itemId, set: next.set })] : []),
  ];
}

export const goTo = ({ itemId, set }: Pick<RunStep, 'itemId' | 'set'>, newId: NewId): Draft[] => [
  draft(newId(), 'gone-to', { itemId, set }),
];

export const skip = ({ itemId, set }: Pick<RunStep, 'itemId' | 'set'>, newId: NewId): Draft[] => [
  draft(newId(), 'step-skipped', { itemId, set }),
];

/** What else is known of a set when it is logged. */
export interface SetExtras {
  /** The side that was done, where another one than the next was chosen. */
  side?: SetSide | undefined;
  /** The pieces that a hold was broken into, in seconds. */
  pieces?: readonly number[] | undefined;
  /** What was done of a composed set; the amount is what they add up to. */
  parts?: readonly Part[] | undefined;
  /** Why it should not have been done, where the trainer chose to do it all the same. */
  despite?: string | undefined;
}

/** The side that comes next; before anything was done, the first one. */
export function sideNext({ movement, entry, step }: Pick<LaneView, 'movement' | 'entry' | 'step'>): SetSide {
  if (movement?.sides !== 'each') return 'both';
  const own = step?.lane.side;
  if (own) return own === 'alternating' ? 'both' : own;
  return entry ? progressOf(entry, movement.sides).side : firstSide(1);
}

/** The side that somebody works on now: the round's own, else the half of a turn by the clock; null where there are no sides. */
export function sideNow(view: LaneView, clock: Timer | undefined, now: number): RoundSide | null {
  const { movement, step } = view;
  if (movement?.sides !== 'each' || !step) return null;
  if (step.lane.side) return step.lane.side;
  const side = clock ? sideByClock(step.set, clock, now) : sideNext(view);
  return side === 'both' ? null : side;
}

/** Somebody does one side, then the other, within one turn. */
export const changesSide = ({ movement, step }: LaneView): boolean =>
  movement?.sides === 'each' && step?.lane.side === undefined;

/** Starts the clock of the set in hand. */
export const startTimer = (view: LaneView, side: SetSide, newId: NewId): Draft[] =>
  atStay(view, newId, (entryId) => [
    draft(newId(), 'timer-started', { entryId, blockId: null, side, work: timerSeconds(view), rest: 0, count: 1 }),
  ]);

/** Logs the set in hand. */
export function logSet(
  view: LaneView,
  amount: number,
  load: Load | null,
  newId: NewId,
  { side = sideNext(view), pieces, parts, despite }: SetExtras = {},
): Draft[] {
  const { movement, step } = view;
  if (!movement || (view.closed && !despite)) return [];
  const test = step?.lane.test;
  const total = pieces?.reduce((sum, piece) => sum + piece, 0);
  return atStay(view, newId, (entryId) => [
    draft(newId(), 'set-done', {
      entryId,
      side,
      amount,
      kg: load?.kg ?? null,
      loadLabel: load?.label ?? null,
      ...(pieces && pieces.length > 1 && total === amount ? { pieces: [...pieces] } : {}),
      ...(parts?.length && amountOfParts(parts) === amount ? { parts: [...parts] } : {}),
      // A weight that is measured has to be known.
      ...(test && (test.unit !== 'kg' || load?.kg != null) ? { test } : {}),
      ...(despite ? { despite } : {}),
    }),
  ]);
}

/**
 * Logs the turns of a block that are over: the dose where each turn has its own, else the seconds worked, with the planned load. Reps that
 * nobody counted are not made up.
 * Turns of what is closed are left out: nobody says that they were done.
 */
export function logTurns(
  view: LaneView,
  turns: readonly RunStep[],
  clock: Pick<Timer, 'work' | 'works'>,
  newId: NewId,
): Draft[] {
  const begun = new Map<string, string>();
  return turns
    .filter((step) => isStepOpen(view, step))
    .flatMap((step) => {
      const { itemId, lane } = step;
      const entry = entryOf(view.lane, step);
      const known = entry?.id ?? begun.get(itemId);
      const first = !begun.has(itemId);
      const entryId = known ?? newId();
      begun.set(itemId, entryId);
      const movement = movementOf(view, lane.movementId);
      const { side } = lane;
      const each = movement?.sides === 'each' && side === undefined;
      // One side may have been logged by hand already.
      const progress = first && each && entry ? progressOf(entry, 'each') : null;
      const sides: readonly SetSide[] = progress?.half
        ? [progress.side]
        : each
          ? ['left', 'right']
          : [movement?.sides === 'each' && side && side !== 'alternating' ? side : 'both'];
      // Where each turn has its own dose, that is what was done.
      const own = step.block !== null && (isEvery(step.block) || roundsIn(step.block) !== null);
      const times = movement?.sides === 'each' && side === 'alternating' ? 2 : 1;
      const numbers = {
        amount: own ? lane.amount * times : Math.round(workOf(clock, step.turn ?? 0) / (each ? 2 : 1)),
        kg: lane.load?.kg ?? null,
        loadLabel: lane.load?.label ?? null,
        ...(own || movement?.dose.mode === 'time' ? {} : { uncounted: true as const }),
        ...(own && lane.parts ? { parts: lane.parts } : {}),
      };
      return [
        ...(known
          ? []
          : [
              draft(entryId, 'movement-started', {
                movementId: lane.movementId,
                why: null,
                itemId,
                ...(lane.withId ? { withId: lane.withId } : {}),
              }),
            ]),
        ...sides.map((side) => draft(newId(), 'set-done', { entryId, side, ...numbers })),
      ];
    });
}

/** A line ends with the last set of it that was done. */
export function endLine({ steps }: Pick<LaneView, 'steps'>, itemId: string, newId: NewId): Draft {
  const done = steps.filter((step) => step.itemId === itemId && step.state === 'done').map(({ set }) => set);
  return draft(newId(), 'sets-changed', { itemId, sets: Math.max(0, ...done) });
}

/** Takes a proposal: from now on this line is done so. A rung is taken by `swapTo`. */
export const takeProposal = ({ step }: LaneView, { dose }: Proposal, newId: NewId): Draft[] =>
  step ? [doseChange(step, dose, newId)] : [];

/** What a line is done with from now on; where this set has a dose of its own, of this set alone. */
function doseChange({ itemId, set, own }: RunStep, dose: ChangedDose, newId: NewId): Draft {
  const { amount, load, tempo, parts, rest } = dose;
  return draft(newId(), 'dose-changed', {
    itemId,
    amount,
    load,
    tempo,
    ...(parts && { parts: [...parts] }),
    ...(own && { set }),
    ...(rest !== undefined && { rest }),
  });
}

/** From now on this line is done with another weight. */
export function setLoad(view: LaneView, load: Load | null, newId: NewId): Draft[] {
  const dose = doseNow(view);
  if (!view.step || !dose) return [];
  const { amount, tempo, parts } = dose;
  return [doseChange(view.step, { amount, load, tempo, parts }, newId)];
}

/** From now on this line is done with another dose. */
export const setDose = ({ step }: LaneView, dose: ChangedDose, newId: NewId): Draft[] =>
  step ? [doseChange(step, dose, newId)] : [];

/** The set that was just logged went on with a lighter weight, or, with nothing, ended without it. */
export const logDrop = ({ set }: Pick<JustDone, 'set'>, amount: number, { kg, label }: Load, newId: NewId): Draft[] => [
  draft(newId(), 'drop-done', { setId: set.id, amount, kg, loadLabel: label }),
];

/** Things that a movement can be loaded with. */
export const weighable = ({ kit }: Pick<MovementSummary, 'kit'>): KitItem[] =>
  WEIGHTS.filter((item) => itemsOf(kit).includes(item));

const WEIGHTS: readonly KitItem[] = ['dumbbell', 'bell', 'backpack', 'jug', 'plate', 'barbell'];

/** A weight that is here today is used from now on; everybody in the session can take it. */
export function broughtWeight(view: LaneView, piece: KitPiece, newId: NewId): Draft[] {
  const { item, count, kg, unit = null, stepKg = null, mostKg = null } = piece;
  if (kg == null) return [];
  const loads = view.movement ? loadsFor(view.movement.kit, [piece]) : [];
  // As it was weighed, though more or less could be filled in.
  const load = loads.find((one) => one.kg !== null && Math.abs(one.kg - kg * one.count) < SAME_KG) ?? loads[0];
  return [
    draft(newId(), 'weight-brought', { item, count, kg, unit, stepKg, mostKg }),
    ...(load ? setLoad(view, load, newId) : []),
  ];
}

/** A fault of the movement in hand, or of the set just done when that is what was watched. */
export const seeFault = (view: LaneView, faultId: string, of: JustDone | null, newId: NewId): Draft[] =>
  of
    ? [draft(newId(), 'fault-seen', { entryId: of.entry.id, faultId, setId: of.set.id })]
    : atStay(view, newId, (entryId) => [draft(newId(), 'fault-seen', { entryId, faultId })]);

/** Pain, in the movement in hand, even when nothing else was recorded of it yet. */
export function reportPain(
  view: LaneView,
  pain: { region: Region; quality: PainQuality; side?: BodySide },
  newId: NewId,
): Draft[] {
  return view.movement
    ? atStay(view, newId, (entryId) => [draft(newId(), 'pain-reported', { entryId, ...pain })])
    : [draft(newId(), 'pain-reported', { entryId: null, ...pain })];
}
