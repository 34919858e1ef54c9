/** Everything that the floor computes for one client: where they are, what may come next, what to say now, and what a tap means. */
import type { Client, ClientRecord, MovementPage, MovementSummary, Studio } from '@waxwing/core/formats';
import {
  advise,
  awaitsClearance,
  easeOf,
  limitsFromPain,
  limitsHolding,
  teachingCues,
  type Advice,
  type TeachingCue,
} from '@waxwing/core/coaching';
import {
  readiness,
  signWords,
  substitutes,
  type Catalog,
  type Substitute,
  type SubstituteAnswer,
  type SwapReason,
} from '@waxwing/core/ladder';
import {
  faultKey,
  fitFor,
  kitCounts,
  tagsInForce,
  underRules,
  usableOption,
  type Fit,
  EFFORTS,
  type HouseRule,
  type KitItem,
  type Limit,
  type Movement,
  type Region,
} from '@waxwing/core/movement';
import {
  currentEntry,
  isPending,
  likelyFault,
  openFaults,
  progressOf,
  stepNow,
  stepsOf,
  type Entry,
  type Lane,
  type Programme,
  type RunStep,
  type SetRecord,
} from '@waxwing/core/session';
import { loadsFor, nextSet, type Load, type NextSet } from '@waxwing/core/dosage';
import { capFor, EASING, jumpFor, laneFor, tempoFor, windowFor, type PlanLane } from '@waxwing/core/planning';
import { v7 as uuidv7 } from 'uuid';
import type { Recorder } from './use-session';

/** What a lane is computed from. */
export interface LaneParts {
  lane: Lane;
  client: Client;
  record: ClientRecord;
  studio: Studio;
  rules: readonly HouseRule[];
  movements: readonly MovementSummary[];
  catalog: Catalog;
  programme: Programme | null;
  /** The clock that everybody of a block goes by, and the turn it is at. */
  clock: { blockId: string; turn: number } | null;
  /** Whole movements, as far as they are here. */
  pageOf: (movementId: string) => MovementPage | undefined;
  /** YYYY-MM-DD. */
  day: string;
  tap: (say: (record: Recorder) => void) => void;
}

export interface LaneView extends Omit<LaneParts, 'rules' | 'clock' | 'pageOf'> {
  limits: readonly Limit[];
  kit: ReadonlyMap<KitItem, number>;
  /** Movements that hurt today. */
  hurt: readonly string[];
  /** Why nothing goes up today, in words; null when it may. */
  ease: string | null;
  steps: readonly RunStep[];
  /** The set in hand. */
  step: RunStep | undefined;
  /** The clock has no place for this client in this turn. */
  waits: boolean;
  /** The movement in hand, in short and whole. */
  movement: MovementSummary | undefined;
  page: MovementPage | undefined;
  /** The stay at it, once something was recorded of it. */
  entry: Entry | undefined;
  /** The rest after the latest set: since when, and how many seconds it should have; null while a side or a set is under way. */
  rest: { from: string; seconds: number } | null;
  swaps: (reason: SwapReason, region?: Region, most?: number) => SubstituteAnswer;
}

/** The lane of one client. */
export function viewOf({ rules, clock, pageOf, ...parts }: LaneParts): LaneView {
  const { lane, client, record, studio, movements, catalog, programme, day } = parts;
  const find = (id: string) => movements.find((movement) => movement.id === id) ?? summaryOf(pageOf(id));
  const steps = atClock(stepsOf(programme, lane, find), clock);
  const step = stepNow(steps);
  const alone = steps.length === 0 ? currentEntry(lane) : undefined;
  const movementId = step?.lane.movementId ?? alone?.movementId;
  const entry = step ? entryOf(lane, step) : alone;
  const whole = movementId === undefined ? undefined : pageOf(movementId);
  const tags = tagsInForce(rules, studio.houseRules, client.houseRules);
  const limits = [...limitsHolding(client, day), ...limitsFromPain(lane.pains)];
  const kit = kitCounts(studio.kit);
  const hurt = lane.pains.filter((pain) => pain.quality === 'sharp').flatMap((pain) => pain.movementId ?? []);
  const avoid = [...hurt, ...record.hurt.map((one) => one.movementId)];
  const view: LaneView = {
    ...parts,
    limits,
    kit,
    hurt,
    ease: awaitsClearance(client.readiness) ? 'waiting for clearance' : easeOf(client.today, day),
    steps,
    step,
    waits: clock !== null && !step && steps.some((one) => one.block?.id === clock.blockId && isPending(one)),
    movement: movementId === undefined ? undefined : find(movementId),
    page: whole && { ...whole, movement: underRules(whole.movement, withSeen(tags, whole.movement, entry)) },
    entry,
    swaps: (reason, region, most) =>
      movementId === undefined
        ? NOTHING
        : ask(catalog, { from: movementId, reason, region, limits, kit, avoid, ...(most ? { most } : {}) }),
    rest: null,
  };
  return { ...view, rest: restOf(view) };
}

/** The first set to come of another line than the one in hand. */
export function nextOther({ steps, step }: LaneView): RunStep | undefined {
  const at = steps.findIndex((one) => one === step);
  return steps.find((one, i) => i > at && isPending(one) && one.itemId !== step?.itemId);
}

/** The stay at what a step holds now; undefined until something was recorded of it. */
const entryOf = ({ entries }: Lane, { itemId, lane }: RunStep): Entry | undefined =>
  entries.findLast((entry) => entry.itemId === itemId && entry.movementId === lane.movementId);

/** What a list would show of a movement that is in none any more, because it was archived meanwhile. */
const summaryOf = (page: MovementPage | undefined): MovementSummary | undefined =>
  page && { ...page.movement, level: page.level };

/** While everybody goes by a clock, its turn says what is now. */
function atClock(steps: readonly RunStep[], clock: LaneParts['clock']): readonly RunStep[] {
  if (!clock || !steps.some((step) => step.block?.id === clock.blockId && isPending(step))) return steps;
  return steps.map((step): RunStep => {
    if (!isPending(step)) return step;
    const away = step.block?.id === clock.blockId && step.turn !== null ? step.turn - clock.turn : null;
    return { ...step, state: away === 0 ? 'now' : away === 1 ? 'next' : 'later' };
  });
}

/** A fault that was seen stays on the screen and in force, whatever school it belongs to. */
function withSeen(tags: ReadonlySet<string>, movement: Movement, entry: Entry | undefined): ReadonlySet<string> {
  const seen = movement.faults.filter(({ id }) => entry?.faults.some((fault) => fault.faultId === id));
  return new Set([...tags, ...seen.flatMap(({ houseRule }) => houseRule ?? [])]);
}

const NOTHING: SubstituteAnswer = { ranked: [], ruledOut: [] };

/** A movement that is no longer in the library has no substitutes. */
const ask = (catalog: Catalog, query: Parameters<typeof substitutes>[1]): SubstituteAnswer =>
  catalog.entries.has(query.from) ? substitutes(catalog, query) : NOTHING;

/** Whether this client may do a movement now: limits, kit, and what hurt today. */
export function fitNow(view: LaneView, movement: MovementSummary): Fit {
  if (view.hurt.includes(movement.id)) return { status: 'closed', because: ['hurt today'] };
  const fit = fitFor(movement.demands, view.limits);
  if (fit.status === 'closed') return fit;
  return usableOption(movement.kit, view.kit) ? fit : { status: 'closed', because: ['kit is missing'] };
}

/** What to do about the open faults of the movement in hand. */
export function adviceFor(view: LaneView, now: string): Advice {
  const { entry, page, record, client } = view;
  if (!entry || !page) return { kind: 'clear' };
  return advise({
    movement: page.movement,
    seen: openFaults(entry),
    attempts: entry.corrections,
    trials: record.trials,
    clientId: client.id,
    now,
    mayTouch: client.touchConsentOn !== null,
    maySwapTo: (id) => {
      const movement = view.movements.find((m) => m.id === id);
      return movement !== undefined && fitNow(view, movement).status !== 'closed';
    },
  });
}

/** What to say before anything goes wrong. */
export const cuesFor = (view: LaneView, now: string): TeachingCue[] =>
  view.page ? teachingCues(view.page.movement, view.record.trials, view.client.id, now) : [];

/** Chance per set that a fault of the movement in hand shows in this client. */
export const likelihood =
  (view: LaneView) =>
  (fault: Parameters<typeof likelyFault>[0]): number =>
    likelyFault(fault, view.record.faults[faultKey(view.movement?.id ?? '', fault.id)]);

export interface NextUp {
  best: Substitute | undefined;
  /** Why it is not offered. */
  held: string | null;
  /** Said when the record shows that the client is ready for it. */
  ready: string | null;
}

/** Open faults of the movement in hand that are more than polish, by severity. */
const seriousFaults = ({ entry, page }: LaneView) => {
  const open = entry ? openFaults(entry) : [];
  return (page?.movement.faults ?? []).filter(({ id, severity }) => severity !== 'polish' && open.includes(id));
};

/** Why nothing goes up now; null when it may. */
export function heldBack(view: LaneView): string | null {
  const [open] = seriousFaults(view);
  if (open) return `first solve: ${open.name.toLowerCase()}`;
  if (view.lane.pains.length > 0) return 'not after pain today';
  if (view.entry?.sets.at(-1)?.effort === 'failed') return 'not after a failed set';
  return view.ease;
}

/** The next rung up, held back while a serious fault is open, after pain, after a failed set, or on a day that asks for ease. */
export function nextUp(view: LaneView): NextUp {
  const { movement, page } = view;
  if (!movement) return { best: undefined, held: null, ready: null };
  const best = view.swaps('too-easy', undefined, 1).ranked[0];
  const sign = page?.harder.find((step) => step.to === best?.id)?.readyWhen;
  const state = sign && readiness(sign, view.record.sets[movement.id] ?? []);
  return { best, held: heldBack(view), ready: sign && state?.ready ? `ready: ${signWords(sign)}` : null };
}

/** The movement of a stay, in short. */
export const movementOf = (view: LaneView, movementId: string): MovementSummary | undefined =>
  movementId === view.movement?.id ? view.movement : view.movements.find(({ id }) => id === movementId);

const LOADS = new WeakMap<Studio['kit'], Map<string, Load[]>>();

/** The loads that exist for the movement in hand. Worked out once for a kit: plates have many sums. */
export function loadsOf({ movement, studio: { kit } }: Pick<LaneView, 'movement' | 'studio'>): readonly Load[] {
  if (!movement) return [];
  const known = LOADS.get(kit) ?? new Map<string, Load[]>();
  LOADS.set(kit, known);
  const loads = known.get(movement.id) ?? loadsFor(movement.kit, kit);
  known.set(movement.id, loads);
  return loads;
}

/** What a movement would be done with by this client today. */
export const doseFor = (view: LaneView, movement: MovementSummary): PlanLane =>
  laneFor({
    clientId: view.client.id,
    movement,
    purpose: view.programme?.plan.purpose ?? 'strength',
    past: view.record.sets[movement.id] ?? [],
    kit: view.studio.kit,
    ease: view.lane.pains.length > 0 ? 'pain today' : view.ease,
  }).lane;

/** The dose in hand. */
export const doseNow = (view: LaneView): PlanLane | undefined =>
  view.step?.lane ?? (view.movement && doseFor(view, view.movement));

/** The stay at the movement in hand: begun with the first thing that is recorded of it. */
export function entryFor(view: LaneView, record: Recorder): string {
  const { entry, movement, step } = view;
  if (entry) return entry.id;
  if (!movement) throw new Error('no movement is in hand');
  return record('movement-started', { movementId: movement.id, why: null, ...(step ? { itemId: step.itemId } : {}) });
}

/** Puts a movement in after the one in hand, and goes to it. */
export function begin(view: LaneView, movementId: string, why: string | null): void {
  const movement = movementOf(view, movementId);
  if (!movement) return;
  const itemId = uuidv7();
  view.tap((record) => {
    record('item-added', { itemId, afterId: view.step?.itemId ?? null, lane: doseFor(view, movement) });
    record('gone-to', { itemId, set: 1 });
    record('movement-started', { movementId, why, itemId });
  });
}

/** Goes on with another movement in the place of the one in hand, at this client's own dose of it. */
export function swapTo(view: LaneView, movementId: string, why: string, and?: (record: Recorder) => void): void {
  const { step } = view;
  const movement = movementOf(view, movementId);
  if (!movement) return;
  if (!step) {
    begin(view, movementId, why);
    return;
  }
  const { amount, load, tempo } = doseFor(view, movement);
  view.tap((record) => {
    and?.(record);
    record('movement-started', { movementId, why, itemId: step.itemId });
    record('dose-changed', { itemId: step.itemId, amount, load, tempo });
  });
}

/** Logs the set in hand: the side that is next. */
export function logSet(view: LaneView, amount: number, load: Load | null): void {
  const { movement, entry } = view;
  if (!movement) return;
  const side = entry ? progressOf(entry, movement.sides).side : movement.sides === 'each' ? 'left' : 'both';
  view.tap((record) => {
    record('set-done', {
      entryId: entryFor(view, record),
      side,
      amount,
      kg: load?.kg ?? null,
      loadLabel: load?.label ?? null,
    });
  });
}

/** Logs the turns of a block that are over, up to one: the seconds worked, or the reps that were planned, with the planned load. */
export function logTurns(view: LaneView, turns: readonly RunStep[], work: number): void {
  if (turns.length === 0) return;
  view.tap((record) => {
    const begun = new Map<string, string>();
    for (const step of turns) {
      const { itemId, lane } = step;
      const entry = entryOf(view.lane, step);
      const first = !begun.has(itemId);
      const entryId =
        entry?.id ??
        begun.get(itemId) ??
        record('movement-started', { movementId: lane.movementId, why: null, itemId });
      begun.set(itemId, entryId);
      const movement = movementOf(view, lane.movementId);
      const each = movement?.sides === 'each';
      // One side may have been logged by hand already.
      const half = first && each && entry && progressOf(entry, 'each').side === 'right';
      const sides = half ? (['right'] as const) : each ? (['left', 'right'] as const) : (['both'] as const);
      const amount = movement?.dose.mode === 'time' ? Math.round(work / (each ? 2 : 1)) : lane.amount;
      const numbers = { amount, kg: lane.load?.kg ?? null, loadLabel: lane.load?.label ?? null };
      for (const side of sides) record('set-done', { entryId, side, ...numbers });
    }
  });
}

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
  if (progressOf(entry, movement?.sides ?? 'both').side === 'right') return null;
  const name = entry.id === view.entry?.id ? null : (movement?.name ?? null);
  return { entry, sets: entry.sets.filter(({ effort }) => effort === null), name };
}

export interface Proposal extends NextSet {
  tempo: string;
  /** It changes the dose in hand. */
  changes: boolean;
}

/** What the next set of the movement in hand should be, from the one before; null until that is known. */
export function proposalFor(view: LaneView): Proposal | null {
  const { step, entry, movement } = view;
  const dose = doseNow(view);
  if (!step || !entry || !movement || !dose) return null;
  if (progressOf(entry, movement.sides).side === 'right') return null;
  const sides = movement.sides === 'each' ? (['left', 'right'] as const) : (['both'] as const);
  const last = sides.flatMap((side) => entry.sets.findLast((set) => set.side === side) ?? []);
  const efforts = last.flatMap(({ effort }) => effort ?? []);
  const effort = efforts.toSorted((a, b) => EFFORTS.indexOf(b) - EFFORTS.indexOf(a))[0];
  if (last.length < sides.length || efforts.length < sides.length || !effort) return null;
  const loads = loadsOf(view);
  const done = last[0];
  const load = loads.find(({ label, kg }) => label === done?.loadLabel && kg === done.kg) ?? null;
  const left = last.flatMap((set) => set.left ?? []);
  const serious = seriousFaults(view);
  const next = nextSet({
    mode: movement.dose.mode,
    window: windowFor(movement, view.programme?.plan.purpose ?? 'strength'),
    amount: Math.min(...last.map((set) => set.amount)),
    effort,
    left: left.length > 0 ? Math.min(...left) : null,
    load,
    loads,
    faults: serious.map(({ name }) => name.toLowerCase()),
    stopFault: serious.find(({ severity }) => severity === 'stop')?.name ?? null,
    pain: view.hurt.includes(movement.id) ? 'sharp' : view.lane.pains.length > 0 ? 'dull' : null,
    jump: jumpFor(movement),
    capKg: capFor(movement, done?.kg),
  });
  const held = view.ease !== null && !EASING.includes(next.kind) && next.kind !== 'swap';
  const given: NextSet = held
    ? {
        kind: 'hold',
        load,
        amount: Math.max(1, Math.min(...last.map((set) => set.amount))),
        why: `Held today: ${view.ease}.`,
      }
    : next;
  const tempo = tempoFor(given.kind, movement.dose.tempo);
  const changes =
    given.kind !== 'stop' &&
    given.kind !== 'swap' &&
    (given.amount !== dose.amount || given.load?.label !== dose.load?.label || tempo !== dose.tempo);
  return { ...given, tempo, changes };
}

/** Takes a proposal: from now on this line is done so. */
export function takeProposal({ step, tap }: LaneView, { amount, load, tempo }: Proposal): void {
  if (step) tap((record) => record('dose-changed', { itemId: step.itemId, amount: Math.max(1, amount), load, tempo }));
}

function restOf(view: LaneView): LaneView['rest'] {
  const { lane, steps, step } = view;
  if (!step) return null;
  const entry = lane.entries.reduce<Entry | undefined>(
    (latest, one) => ((one.sets.at(-1)?.at ?? '') > (latest?.sets.at(-1)?.at ?? '') ? one : latest),
    undefined,
  );
  const last = entry?.sets.at(-1);
  if (!entry || !last) return null;
  if (progressOf(entry, movementOf(view, entry.movementId)?.sides ?? 'both').side === 'right') return null;
  const timer = lane.timers.at(-1);
  if (timer && timer.stoppedAt === null && timer.entryId === view.entry?.id && timer.startedAt > last.at) return null;
  const planned = steps.find(({ itemId }) => itemId === entry.itemId)?.lane.rest;
  return { from: last.at, seconds: planned ?? DEFAULT_REST };
}

const DEFAULT_REST = 60;

/** How this movement differs from what was done last time in its place: `last time Chair squat`; null when it does not. */
export function sinceLastTime(view: LaneView): string | null {
  const { movement, record, movements, lane } = view;
  if (!movement || lane.pains.length > 0) return null;
  const before = Object.entries(record.sets)
    .flatMap(([id, sessions]) => {
      const other = movements.find((one) => one.id === id);
      const at = sessions.at(-1)?.at;
      return other && at && other.families.some((family) => movement.families.includes(family)) ? [{ other, at }] : [];
    })
    .sort((a, b) => b.at.localeCompare(a.at))[0];
  if (!before) return 'new to this client';
  if (before.other.id !== movement.id)
    return `last time ${before.other.name.toLowerCase()}, now ${movement.name.toLowerCase()}`;
  const kg = record.sets[movement.id]?.at(-1)?.sets.at(-1)?.kg ?? null;
  const now = doseNow(view)?.load;
  if (kg === null || now?.kg == null || kg === now.kg) return null;
  return `last time ${kg} kg, now ${now.kg} kg`;
}
