/** What may come next for one client on the floor: the next dose, a rung up or down, a swap, the next line. Each asks the policy of progress. */
import { bestSingle } from '../client/history.js';
import { isToFill, type Load, loadsOpen } from '../dosage/loads.js';
import { partsWords } from '../dosage/parts.js';
import { readiness } from '../ladder/readiness.js';
import type { Substitute, SubstituteAnswer, SwapReason } from '../ladder/substitutes.js';
import type { ReadyWhen } from '../movement/schema.js';
import type { MovementSummary } from '../movement/summary-schema.js';
import { EFFORTS, type Region } from '../movement/vocabulary.js';
import { laneFor } from '../planning/lane-for.js';
import type { PlanLane } from '../planning/plan.js';
import { dropsFrom } from '../planning/rounds.js';
import { type Drop, MOST_DROPS } from '../planning/set-change.js';
import { waysUp } from '../progress/come-back.js';
import { isOpen } from '../progress/fit.js';
import { heldBack } from '../progress/held.js';
import { type NextStep, nextStep } from '../progress/next-step.js';
import type { Held } from '../progress/reason.js';
import { swapsFor } from '../progress/replacement.js';
import { capFor } from '../progress/spotter.js';
import type { Entry, SetRecord } from '../session/fold.js';
import { progressOf } from '../session/progress.js';
import { isPending, type RunStep, sidesInLine } from '../session/run.js';
import { dropOf } from './drop.js';
import { fitOf, type LaneView, movementOf } from './lane-view.js';
import { faultsAgainst } from './say.js';

/** Why nothing goes up now; null when it may. */
export const heldNow = (view: LaneView): Held | null =>
  heldBack(view.standing, faultsAgainst(view), view.entry?.sets.at(-1)?.effort ?? null);

/** Ranked replacements of the movement in hand. */
export const swapsOf = (view: LaneView, reason: SwapReason, region?: Region, most?: number): SubstituteAnswer =>
  swapsFrom(view, view.movement?.id ?? '', reason, region, most);

/** The same for any movement of the lane: one that hurt is no longer in hand. */
export function swapsFrom(
  view: LaneView,
  from: string,
  reason: SwapReason,
  region?: Region,
  most?: number,
): SubstituteAnswer {
  const { catalog, standing, kit } = view;
  const held = heldNow(view) !== null;
  return swapsFor(catalog, { from, reason, region, standing, kit, held, ...(most ? { most } : {}) });
}

export interface NextUp {
  best: Substitute | undefined;
  /** Why it is not offered. */
  held: Held | null;
  /** The sign that is met, where the record shows that the client is ready for it. */
  ready: ReadyWhen | null;
}

/** Answers among which the rung is looked for that somebody was on before. */
const UP_LOOKED_AT = 12;

/** The next rung up, held back while something speaks against it. */
export function nextUp(view: LaneView): NextUp {
  const { movement, catalog, record } = view;
  if (!movement) return { best: undefined, held: null, ready: null };
  const held = heldNow(view);
  const { ranked } = swapsOf(view, 'too-easy', undefined, UP_LOOKED_AT);
  // Where somebody has been before is where they go back to.
  const been = waysUp(catalog.ladder, movement.id, record.sets).find(({ to }) => record.sets[to] !== undefined);
  const best = ranked.find(({ id }) => id === been?.to) ?? ranked[0];
  const sign = catalog.ladder.rungs.get(movement.id)?.harder.find((step) => step.to === best?.id)?.readyWhen;
  const state = sign && readiness(sign, record.sets[movement.id] ?? []);
  return { best, held, ready: sign && state?.ready ? sign : null };
}

const purposeOf = ({ programme }: LaneView) => programme?.plan.purpose ?? 'strength';
const finder = (view: LaneView) => (id: string) => movementOf(view, id);

/** What a movement would be done with by this client today. */
export const doseFor = (view: LaneView, movement: MovementSummary): PlanLane =>
  laneFor({
    clientId: view.client.id,
    standing: view.standing,
    movement,
    purpose: purposeOf(view),
    sets: view.record.sets,
    kit: view.place.kit,
    ladder: view.catalog.ladder,
    find: finder(view),
    faultOf: (id, faultId) => view.pageOf(id)?.movement.faults.find((fault) => fault.id === faultId),
  }).lane;

/** The dose in hand. */
export const doseNow = (view: LaneView): PlanLane | undefined =>
  view.step?.lane ?? (view.movement && doseFor(view, view.movement));

/** The first set to come of another line than the one in hand that is open now. */
export function nextOther(view: LaneView): RunStep | undefined {
  const { steps, step } = view;
  const at = steps.findIndex((one) => one === step);
  return steps.find((one, i) => i > at && isPending(one) && one.itemId !== step?.itemId && isStepOpen(view, one));
}

/** The first set to come that is open now, whatever line it is in. */
export const nextOpen = (view: LaneView): RunStep | undefined =>
  view.steps.find((step) => isPending(step) && isStepOpen(view, step));

/** Whether nothing of a step is closed now. */
export const isStepOpen = (view: LaneView, { lane }: RunStep): boolean =>
  [lane.movementId, ...(lane.withId === null ? [] : [lane.withId])].every((id) => {
    const movement = movementOf(view, id);
    return movement !== undefined && isOpen(fitOf(view, movement, lane.load?.item));
  });

export interface Unanswered {
  entry: Entry;
  sets: SetRecord[];
  /** The movement, where it is not the one in hand. */
  name: string | null;
}

/** Preparing and easing off have no effort to speak of. */
const isFelt = (movement: MovementSummary | undefined): boolean =>
  movement?.role !== 'mobility' && movement?.role !== 'stretch';

/** Sets whose effort is not known yet: those of the latest stay that has any. Both sides are asked for at once. */
export function unanswered(view: LaneView): Unanswered | null {
  const entry = view.lane.entries.findLast(
    ({ movementId, sets }) => isFelt(movementOf(view, movementId)) && sets.some(({ effort }) => effort === null),
  );
  if (!entry) return null;
  const movement = movementOf(view, entry.movementId);
  if (progressOf(entry, sidesInLine(view.steps, entry.itemId, movement?.sides ?? 'both')).half) return null;
  const name = entry.id === view.entry?.id ? null : (movement?.name ?? null);
  return { entry, sets: entry.sets.filter(({ effort }) => effort === null), name };
}

/** A set as history has it. */
const whole = ({ amount, pieces }: SetRecord) => ({ amount, ...(pieces ? { pieces } : {}) });

export interface Proposal {
  step: NextStep;
  dose: NextStep['dose'];
  why: NextStep['why'];
  /** It changes the dose in hand. */
  changes: boolean;
  /** A movement to go to, open now: for a rung up or down. */
  to: MovementSummary | null;
}

/** What the next set of the movement in hand should be, from the one before; null until that is known. */
export function proposalFor(view: LaneView): Proposal | null {
  const { step, entry, movement, record } = view;
  const dose = doseNow(view);
  if (!step || !entry || !movement || !dose) return null;
  const inLine = sidesInLine(view.steps, entry.itemId, movement.sides);
  if (progressOf(entry, inLine).half) return null;
  const sides = inLine === 'each' ? (['left', 'right'] as const) : null;
  const last = sides
    ? sides.flatMap((side) => entry.sets.findLast((set) => set.side === side) ?? [])
    : entry.sets.slice(-1);
  // What nobody counted says nothing of the next one.
  if (last.some(({ uncounted }) => uncounted)) return null;
  const efforts = last.flatMap(({ effort }) => effort ?? []);
  const effort = efforts.toSorted((a, b) => EFFORTS.indexOf(b) - EFFORTS.indexOf(a))[0];
  const wanted = sides?.length ?? 1;
  if (last.length < wanted || efforts.length < wanted || !effort) return null;
  const left = last.flatMap((set) => set.left ?? []);
  const next = nextStep({
    standing: view.standing,
    movement,
    purpose: purposeOf(view),
    kit: view.place.kit,
    ladder: view.catalog.ladder,
    find: finder(view),
    sets: record.sets,
    work: {
      amount: Math.min(...last.map((set) => set.amount)),
      effort,
      left: left.length > 0 ? Math.min(...left) : null,
      kg: last[0]?.kg ?? null,
      label: last[0]?.loadLabel ?? null,
      pieces: last.toSorted((a, b) => bestSingle(whole(a)) - bestSingle(whole(b)))[0]?.pieces ?? null,
      parts: last.toSorted((a, b) => a.amount - b.amount)[0]?.parts ?? null,
    },
    faults: faultsAgainst(view),
    planned: dose.amount,
    plannedParts: dose.parts,
    within: true,
  });
  const { amount, load, tempo, parts } = next.dose;
  const keeps = next.kind === 'stop' || next.kind === 'rung-down' || next.kind === 'rung-up';
  return {
    step: next,
    dose: next.dose,
    why: next.why,
    changes:
      !keeps &&
      (amount !== dose.amount ||
        load?.label !== dose.load?.label ||
        tempo !== dose.tempo ||
        partsWords(parts ?? []) !== partsWords(dose.parts ?? [])),
    to: next.to === null ? null : (movementOf(view, next.to) ?? null),
  };
}

/** How the movement in hand differs from what was done last time in its place. */
export type SinceLast =
  { code: 'new' } | { code: 'movement'; from: string; to: string } | { code: 'weight'; from: number; to: number };

/** Null where it does not differ. */
export function sinceLastTime(view: LaneView): SinceLast | null {
  const { movement, record, movements, lane } = view;
  if (!movement || lane.pains.length > 0) return null;
  const before = Object.entries(record.sets)
    .flatMap(([id, sessions]) => {
      const other = movements.find((one) => one.id === id);
      const at = sessions.at(-1)?.at;
      return other && at && other.families.some((family) => movement.families.includes(family)) ? [{ id, at }] : [];
    })
    .sort((a, b) => b.at.localeCompare(a.at))[0];
  if (!before) return { code: 'new' };
  if (before.id !== movement.id) return { code: 'movement', from: before.id, to: movement.id };
  const from = record.sets[movement.id]?.at(-1)?.sets.at(-1)?.kg ?? null;
  const to = doseNow(view)?.load?.kg ?? null;
  return from === null || to === null || from === to ? null : { code: 'weight', from, to };
}

/** The lighter weight to go on with at once: nothing after sharp pain, and not where the movement is closed. */
export function dropNow(view: LaneView): Drop | null {
  const { justDone, steps, alarm } = view;
  if (!justDone?.movement || alarm) return null;
  const drop = dropOf(justDone, steps);
  return drop && isOpen(fitOf(view, justDone.movement, drop.load.item)) ? drop : null;
}

/**
 * A lighter weight to go on with at once that nobody planned: the next real one that is felt, with half of what was just done. Null where the
 * plan has one of its own, where the set was a test or was ended, and where there is none.
 */
export function dropOffered(view: LaneView): Drop | null {
  const { justDone, alarm, standing, place } = view;
  const { set, movement } = justDone ?? {};
  if (!set || !movement || alarm || dropNow(view) || movement.dose.mode !== 'reps') return null;
  if (set.test || set.parts || set.uncounted || set.drops.some(({ amount }) => amount === 0)) return null;
  const from = set.drops.at(-1) ?? set;
  // Nothing is emptied at once.
  const loads = loadsOpen(movement, standing.limits, place.kit).filter((one) => !isToFill(one));
  const load = loads.find(({ kg, label }) => kg === from.kg && label === from.loadLabel);
  const [drop] = load ? dropsFrom({ load, amount: from.amount }, loads, 1) : [];
  return drop && set.drops.length < MOST_DROPS && isOpen(fitOf(view, movement, drop.load.item)) ? drop : null;
}

/**
 * The most kilograms that are offered in one press, where nobody goes heavier alone: what was planned or lifted already. Null where there is
 * no cap.
 */
export function capNow(view: LaneView, load: Load | null): number | null {
  const { movement, record, standing } = view;
  if (!movement || !load) return null;
  const past = (record.sets[movement.id] ?? []).flatMap(({ sets }) => sets.map(({ kg }) => kg ?? 0));
  const today = (view.entry?.sets ?? []).map(({ kg }) => kg ?? 0);
  return capFor(movement, load, standing.limits, Math.max(0, ...past, ...today, view.step?.lane.load?.kg ?? 0));
}
