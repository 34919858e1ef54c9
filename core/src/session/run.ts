/**
 * How one client's programme goes: every set that is planned, in the order in which it is done, with what was changed on the way;
 * what is done, what is left out, what is now and next. Nothing is stored of it: it follows from the plan and the events.
 */
import { amountOfParts } from '../dosage/parts.js';
import type { MovementSummary } from '../movement/summary-schema.js';
import type { Sides } from '../movement/vocabulary.js';
import type { Going } from '../planning/block-clock.js';
import { hasOwnDose, laneOfSet, type SetLane } from '../planning/by-set.js';
import { type Block, type BlockKind, inRounds, type Plan, type PlanLane, setsOfLane } from '../planning/plan.js';
import type { RoundSide } from '../planning/set-change.js';
import type { Rotation } from '../planning/stations.js';
import { laneSeconds, type Moment, secondsOf, timelineOfMoments } from '../planning/timeline.js';
import type { ChangedDose, Entry, Lane } from './fold.js';

/** The plan that a session began with. It stays as it was; what changes on the way is in the events. */
export interface Programme {
  /** The plan it came from, which may have changed since. */
  planId: string;
  plan: Plan;
  /** For blocks that are gone round as stations: by turn, then by client, the item or null to wait. */
  rotations: Readonly<Record<string, Rotation>>;
}

/** The part of a movement that a run needs. */
export type RunMovement = Pick<MovementSummary, 'id' | 'name' | 'sides' | 'dose' | 'position'>;
export type FindRunMovement = (id: string) => RunMovement | undefined;

export type StepState = 'done' | 'skipped' | 'now' | 'next' | 'later';

/** One set of one client. */
export interface RunStep {
  itemId: string;
  /** From 1. */
  set: number;
  /** Sets of this line in all. */
  of: number;
  /** Null for a line that was put in on the way. */
  block: (Pick<Block, 'id'> & Going) | null;
  /** The turn of its block in which it comes, from 0, where the block is gone round. */
  turn: number | null;
  /** Its place in the programme of everybody: what is done at once by several has one. */
  place: number;
  /** What is done in this set: the movement in hand after swaps, and the dose after changes. */
  lane: SetLane;
  /** This set has a dose of its own, which differs from that of the line. */
  own: boolean;
  state: StepState;
}

interface Line {
  itemId: string;
  block: Block | null;
  lane: PlanLane;
  sets: number;
  /** Doses of single sets that were changed on the way. */
  changes: Readonly<Record<number, ChangedDose>>;
  /** What was done of it so far. */
  before: readonly Entry[];
}

/** Every set of a client, in order, each with its state. Without a programme there is only what was put in. */
export function stepsOf(programme: Programme | null, lane: Lane, find: FindRunMovement): RunStep[] {
  const { course, entries } = lane;
  const byItem = new Map<string, Entry[]>();
  for (const entry of entries)
    if (entry.itemId !== null) byItem.set(entry.itemId, [...(byItem.get(entry.itemId) ?? []), entry]);
  const lineOf = (itemId: string, planned: PlanLane, block: Block | null): Line => ({
    itemId,
    block,
    lane: {
      ...planned,
      ...swapped(planned, byItem.get(itemId)?.at(-1)),
      ...course.doses[itemId],
    },
    changes: course.setDoses[itemId] ?? {},
    before: byItem.get(itemId) ?? [],
    sets: course.sets[itemId] ?? (block ? setsOfLane(block, planned) : planned.sets),
  });
  const isDropped = (itemId: string): boolean => course.dropped.includes(itemId);
  const addedAfter = (places: readonly (string | null)[]): Line[] =>
    course.added
      .filter(({ itemId, afterId }) => places.includes(afterId) && !isDropped(itemId))
      .flatMap(({ itemId, lane: added }) => [lineOf(itemId, added, null), ...addedAfter([itemId])]);

  const steps: Omit<RunStep, 'state'>[] = [];
  const blocks = programme?.plan.blocks ?? [];
  for (const [b, block] of blocks.entries()) {
    const from = b * BLOCK_PLACES;
    const ids = block.items.map(({ id }) => id);
    const turns = turnsFor(block, lane.clientId, programme?.rotations[block.id], programme?.plan.clientIds ?? []);
    const lines = new Map(
      block.items.flatMap((item) => {
        const own = item.lanes.find(({ clientId }) => clientId === lane.clientId);
        return own && !isDropped(item.id) ? [[item.id, lineOf(item.id, own, block)]] : [];
      }),
    );
    const rounds = Math.max(0, ...[...lines.values()].map(({ sets }) => sets));
    if (inRounds(block))
      for (let round = 1; round <= rounds; round += 1)
        turns.forEach((itemId, i) => {
          const line = itemId === null ? undefined : lines.get(itemId);
          const turn = (round - 1) * turns.length + i;
          if (line && round <= line.sets) steps.push(stepOf(line, round, turn, from + turn));
        });
    else for (const line of lines.values()) steps.push(...allSets(line, from + ids.indexOf(line.itemId) * LINE_PLACES));
    const after = from + ids.length * LINE_PLACES + MOST_TURNS;
    steps.push(...addedAfter(ids).flatMap((line, i) => allSets(line, after + i * LINE_PLACES)));
  }
  const end = blocks.length * BLOCK_PLACES;
  steps.push(...addedAfter([null]).flatMap((line, i) => allSets(line, end + i * LINE_PLACES)));
  return withStates(steps, lane, byItem, find);
}

/** A swap changes the movement of a line, and takes what belonged to the old one out of it. A movement that a round has by plan is no swap. */
const swapped = (planned: PlanLane, last: Entry | undefined): Partial<PlanLane> =>
  last && ![planned.movementId, ...(planned.bySet ?? []).map(({ movementId }) => movementId)].includes(last.movementId)
    ? {
        movementId: last.movementId,
        withId: null,
        load: null,
        parts: undefined,
        bySet: undefined,
        drops: undefined,
        test: undefined,
      }
    : {};

/** One set of a line: what the plan says of that set, and what was changed on the way. */
function laneInSet({ lane, changes, before }: Line, set: number): SetLane {
  const planned = laneOfSet(lane, set);
  const change = changes[set];
  const own = change ? { ...planned, ...change } : planned;
  const { parts } = own;
  const done = own.asClean && before.flatMap(({ sets }) => sets).at(-1);
  const amount = done ? Math.max(1, done.amount) : own.amount;
  const { parts: _, ...plain } = own;
  // Another amount is no composed set.
  return parts && amountOfParts(parts) === amount ? { ...own, amount } : { ...plain, amount };
}

/** Places that a line, a block gone round, and any block can take: more than they ever have. */
const LINE_PLACES = 100;
const MOST_TURNS = 10_000;
const BLOCK_PLACES = 1_000_000;

const stepOf = (line: Line, set: number, turn: number | null, place: number): Omit<RunStep, 'state'> => ({
  itemId: line.itemId,
  set,
  of: line.sets,
  block: line.block && {
    id: line.block.id,
    kind: line.block.kind,
    workSeconds: line.block.workSeconds,
    ...(line.block.workThen && { workThen: line.block.workThen }),
    ...(line.block.clock && { clock: line.block.clock }),
  },
  turn,
  place,
  lane: laneInSet(line, set),
  own: hasOwnDose(line.lane, set),
});

const allSets = (line: Line, from: number): Omit<RunStep, 'state'>[] =>
  Array.from({ length: line.sets }, (_, i) => stepOf(line, i + 1, null, from + i));

/** The order of one round for a client: as planned, or as the stations go. */
function turnsFor(
  block: Block,
  clientId: string,
  rotation: Rotation | undefined,
  clientIds: readonly string[],
): (string | null)[] {
  const who = clientIds.indexOf(clientId);
  if (!rotation || who < 0) return block.items.map(({ id }) => id);
  return rotation.map((places) => block.items[places[who] ?? -1]?.id ?? null);
}

/** What was done of a line, over all its movements, and what of it no step has been counted for yet. */
interface Tally {
  left: number;
  right: number;
  /** Sets of both sides at once, or in turn. */
  both: number;
}

function tallyOf(entries: readonly Entry[], find: FindRunMovement): Tally {
  const tally: Tally = { left: 0, right: 0, both: 0 };
  for (const entry of entries) {
    const each = find(entry.movementId)?.sides === 'each';
    for (const { side } of entry.sets) tally[each ? side : 'both'] += 1;
  }
  return tally;
}

/** Counts a set of a step as done: of one side, of both at once, or of one after the other. */
function takeDone(tally: Tally, side: RoundSide | undefined): boolean {
  if (side === 'left' || side === 'right') {
    if (tally[side] === 0) return false;
    tally[side] -= 1;
    return true;
  }
  if (tally.both > 0) {
    tally.both -= 1;
    return true;
  }
  if (tally.left === 0 || tally.right === 0) return false;
  tally.left -= 1;
  tally.right -= 1;
  return true;
}

function withStates(
  steps: readonly Omit<RunStep, 'state'>[],
  { course, pains }: Lane,
  byItem: ReadonlyMap<string, readonly Entry[]>,
  find: FindRunMovement,
): RunStep[] {
  const left = new Map<string, Tally>();
  const hurt = hurtIn(pains);
  const marked = steps.map((step): RunStep => {
    const { itemId, set, lane } = step;
    if (course.skipped[itemId]?.includes(set)) return { ...step, state: 'skipped' };
    const tally = left.get(itemId) ?? tallyOf(byItem.get(itemId) ?? [], find);
    left.set(itemId, tally);
    if (takeDone(tally, lane.side)) return { ...step, state: 'done' };
    // What is left of a movement that hurt sharply leaves the run.
    return { ...step, state: hurt.has(lane.movementId) || hurt.has(lane.withId ?? '') ? 'skipped' : 'later' };
  });
  const now = placeOf(marked, course.place);
  const pending = (step: RunStep) => step.state === 'later';
  const next = now < 0 ? -1 : nextAfter(marked, now, pending);
  return marked.map((step, i) =>
    i === now ? { ...step, state: 'now' } : i === next ? { ...step, state: 'next' } : step,
  );
}

/** Movements in which sharp pain was reported. */
export const hurtIn = (pains: Lane['pains']): ReadonlySet<string> =>
  new Set(pains.flatMap(({ quality, movementId }) => (quality === 'sharp' && movementId !== null ? movementId : [])));

/** Where the trainer went by hand, and on from there to the end of that block; else the first set that is not done. */
function placeOf(steps: readonly RunStep[], place: { itemId: string; set: number } | null): number {
  const pending = (step: RunStep) => step.state === 'later';
  const first = steps.findIndex(pending);
  if (!place) return first;
  const at = steps.findIndex(({ itemId, set }) => itemId === place.itemId && set === place.set);
  const from = steps[at];
  if (!from) return first;
  const together = (step: RunStep) =>
    from.block && inRounds(from.block) ? step.block?.id === from.block.id : step.itemId === from.itemId;
  const chosen = steps.findIndex((step, i) => i >= at && together(step) && pending(step));
  return chosen < 0 ? first : chosen;
}

function nextAfter(steps: readonly RunStep[], now: number, pending: (step: RunStep) => boolean): number {
  const after = steps.findIndex((step, i) => i > now && pending(step));
  return after >= 0 ? after : steps.findIndex((step, i) => i !== now && pending(step));
}

export const stepNow = (steps: readonly RunStep[]): RunStep | undefined => steps.find(({ state }) => state === 'now');
export const stepNext = (steps: readonly RunStep[]): RunStep | undefined => steps.find(({ state }) => state === 'next');

/** Sets that are still to do. */
export const isPending = ({ state }: RunStep): boolean => state === 'now' || state === 'next' || state === 'later';

/** Whole seconds of one set, both sides of it. */
export const stepSeconds = (
  { lane, block, set }: Pick<RunStep, 'lane' | 'block' | 'set'>,
  find: FindRunMovement,
): number => laneSeconds(lane, block ?? ON_ITS_OWN, { find }, set);

/** The sides of a movement as a line takes them: where rounds have a side of their own, no set has a second half. */
export const sidesInLine = (steps: readonly RunStep[], itemId: string | null, sides: Sides): Sides =>
  steps.some((step) => step.itemId === itemId && step.lane.side !== undefined) ? 'both' : sides;

const ON_ITS_OWN = { kind: 'strength', workSeconds: null } as const;

/** What the run needs to know to say how long it takes. */
export interface RunTime {
  find: FindRunMovement;
  /** What is new to somebody is taught. */
  knows: (clientId: string, movementId: string) => boolean;
}

/** What is still to do, in the order in which it is done: everybody's at once where it is one line, or one turn of a circuit. */
export function momentsLeft(lanes: readonly (readonly RunStep[])[]): Moment[] {
  const moments = new Map<string, { place: number; moment: Moment }>();
  for (const { block, itemId, set, turn, lane, place } of lanes.flatMap((steps) => steps.filter(isPending))) {
    const key = block && turn !== null ? `${block.id} ${turn}` : `${itemId} ${set}`;
    const known = moments.get(key)?.moment;
    const moment = known
      ? { ...known, lanes: [...known.lanes, lane] }
      : { block: block ?? { ...ON_ITS_OWN, id: itemId }, itemId, set, lanes: [lane] };
    moments.set(key, { place, moment });
  }
  return [...moments.values()].toSorted((a, b) => a.place - b.place).map(({ moment }) => moment);
}

/** Whole seconds of what is still to do: teaching, changes, work and the rests between, as the plan reckons them. */
export const secondsLeft = (lanes: readonly (readonly RunStep[])[], time: RunTime): number =>
  secondsOf(timelineOfMoments(momentsLeft(lanes), time));

export interface Trim {
  /** What is taken out: a round of a block, or a set of a line. */
  itemIds: string[];
  blockKind: BlockKind | null;
  movementIds: string[];
  /** Whole seconds that it saves everybody. */
  saves: number;
}

/**
 * Ways to come in under the time: one set or one round less of something that has more than one left, everybody's together.
 * Those that are enough come first, the one that takes away least before the others; then the largest.
 */
export function trims(lanes: readonly (readonly RunStep[])[], over: number, time: RunTime): Trim[] {
  const all = secondsLeft(lanes, time);
  const groups = new Map<string, Set<string>>();
  for (const steps of lanes)
    for (const step of steps) {
      if (!isPending(step)) continue;
      const key = step.block && inRounds(step.block) ? step.block.id : step.itemId;
      groups.set(key, (groups.get(key) ?? new Set()).add(step.itemId));
    }
  const found = [...groups.values()].flatMap((ids): Trim[] => {
    const itemIds = [...ids];
    const taken = lanes.flatMap((steps) => steps.filter((step) => isPending(step) && ids.has(step.itemId)));
    const left = secondsLeft(
      lanes.map((steps) => without(steps, itemIds)),
      time,
    );
    return [
      {
        itemIds,
        blockKind: taken[0]?.block?.kind ?? null,
        movementIds: [...new Set(taken.map(({ lane }) => lane.movementId))],
        saves: all - left,
      },
    ];
  });
  return found
    .filter(({ saves }) => saves > 0)
    .sort((a, b) => {
      const [enoughA, enoughB] = [a.saves >= over, b.saves >= over];
      return enoughA === enoughB ? (enoughA ? a.saves - b.saves : b.saves - a.saves) : enoughA ? -1 : 1;
    });
}

/** The lines that a trim shortens for one client, and the sets that they then have: only those with at least two sets left. */
export function shortened(steps: readonly RunStep[], itemIds: readonly string[]): { itemId: string; sets: number }[] {
  return itemIds.flatMap((itemId) => {
    const [first, second] = steps.filter((step) => step.itemId === itemId && isPending(step));
    return first && second ? [{ itemId, sets: first.of - 1 }] : [];
  });
}

const without = (steps: readonly RunStep[], itemIds: readonly string[]): RunStep[] => {
  const short = shortened(steps, itemIds);
  return steps.filter(({ itemId, set }) => !short.some((one) => one.itemId === itemId && set > one.sets));
};
