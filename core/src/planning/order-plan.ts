/** The order of a plan's items that costs least, block by block, and what it saves. */
import type { Muscle } from '../movement/vocabulary.js';
import { changesBetween } from './changes.js';
import { coverageOf, totalsOfPlan } from './coverage.js';
import { bestOrder, type OrderProblem } from './order.js';
import { type Block, inRounds, type Plan, type PlanContext, type PlanItem, type PlanLane } from './plan.js';

/**
 * Penalties in seconds: how much changing about it is worth to avoid each. Starting guesses, weighed against what
 * a change costs: ten seconds to take up another weight, twelve to get down to the floor.
 */
export const ORDER_PENALTY = {
  /** The same prime muscles twice running, times the share in common. */
  sameMuscles: 40,
  /** Two that tire the grip, one after the other. */
  gripTwice: 20,
  /** A skill or an impact movement, for each place it comes later than first. */
  late: 15,
  /** A carry tires the grip and the trunk for all that comes after it: for each line that does. */
  tires: 12,
} as const;
export type PenaltyKind = keyof typeof ORDER_PENALTY;
const PENALTIES = Object.keys(ORDER_PENALTY) as PenaltyKind[];

/** Share of a penalty that counts where everything comes round again anyway: there, what is done with one weight stays together. */
const IN_ROUNDS = 0.2;

/** Demand from which a movement counts as jumping or gripping hard. */
const CLEARLY = 2;

const musclesOf = (item: PlanItem, { find }: PlanContext): Set<Muscle> =>
  new Set(item.lanes.flatMap(({ movementId }) => find(movementId)?.muscles.prime ?? []));

/** Share of prime muscles that two items have in common, 0–1. */
function shared(a: ReadonlySet<Muscle>, b: ReadonlySet<Muscle>): number {
  const common = [...a].filter((muscle) => b.has(muscle)).length;
  return common === 0 ? 0 : common / (a.size + b.size - common);
}

const asks = (item: PlanItem, demand: 'impact' | 'hard-grip', { find }: PlanContext): number =>
  Math.max(0, ...item.lanes.map(({ movementId }) => find(movementId)?.demands[demand] ?? 0));

/** Whether an item suffers from tired legs and minds: it jumps, or it is there to be learnt. */
export const wantsFreshness = (item: PlanItem, context: PlanContext): boolean =>
  asks(item, 'impact', context) >= CLEARLY ||
  item.lanes.some(({ movementId }) => ['power', 'drill'].includes(context.find(movementId)?.role ?? ''));

/** Combinations come after both of their parts. */
export const buildsOn = (items: readonly PlanItem[], item: PlanItem): number[] =>
  items.flatMap((other, i) =>
    other !== item &&
    item.lanes.some(
      (lane) =>
        lane.withId !== null &&
        other.lanes.some(
          ({ movementId, withId }) => withId === null && (movementId === lane.movementId || movementId === lane.withId),
        ),
    )
      ? [i]
      : [],
  );

/** What each penalty comes to: between two items one after the other, or for an item at a place. */
function penaltiesIn(
  items: readonly PlanItem[],
  context: PlanContext,
): Readonly<Record<PenaltyKind, (i: number, j: number) => number>> {
  const muscles = items.map((item) => musclesOf(item, context));
  const grips = items.map((item) => asks(item, 'hard-grip', context) >= CLEARLY);
  const fresh = items.map((item) => wantsFreshness(item, context));
  const carries = items.map(({ lanes }) =>
    lanes.some(({ movementId }) => context.find(movementId)?.pattern === 'carry'),
  );
  return {
    sameMuscles: (i, j) => ORDER_PENALTY.sameMuscles * shared(muscles[i] ?? new Set(), muscles[j] ?? new Set()),
    gripTwice: (i, j) => (grips[i] && grips[j] ? ORDER_PENALTY.gripTwice : 0),
    late: (i, at) => (fresh[i] ? ORDER_PENALTY.late * at : 0),
    tires: (i, at) => (carries[i] ? ORDER_PENALTY.tires * (items.length - 1 - at) : 0),
  };
}

/** Every penalty of a plan as it stands, in seconds. */
function penaltiesOf({ blocks }: Pick<Plan, 'blocks'>, context: PlanContext): Record<PenaltyKind, number> {
  const sum: Record<PenaltyKind, number> = { sameMuscles: 0, gripTwice: 0, late: 0, tires: 0 };
  for (const { items } of blocks) {
    const of = penaltiesIn(items, context);
    items.forEach((_, i) => {
      for (const kind of ['late', 'tires'] as const) sum[kind] += of[kind](i, i);
      if (i > 0) for (const kind of ['sameMuscles', 'gripTwice'] as const) sum[kind] += of[kind](i - 1, i);
    });
  }
  return sum;
}

/** A block as a matter of order, after what was done before it. */
export function orderProblem(block: Block, before: readonly PlanLane[], context: PlanContext): OrderProblem {
  const { items } = block;
  const between = penaltiesIn(items, context);
  const times = inRounds(block) ? IN_ROUNDS : 1;
  const change = (from: readonly PlanLane[], to: PlanItem): number => {
    const { load, position } = changesBetween(from, to.lanes, context);
    return load + position;
  };
  return {
    size: items.length,
    first: items.map((item) => change(before, item)),
    step: items.map((a, i) =>
      items.map((b, j) =>
        i === j ? 0 : change(a.lanes, b) + times * (between.sameMuscles(i, j) + between.gripTwice(i, j)),
      ),
    ),
    place: items.map((_, i) => items.map((__, at) => between.late(i, at) + between.tires(i, at))),
    rounds: inRounds(block) ? block.rounds : 1,
    locked: items.map((item, i) => (item.locked ? i : null)),
    then: items.map((item, i) => (item.tied && i + 1 < items.length ? i + 1 : null)),
    after: items.map((item) => buildsOn(items, item)),
  };
}

export interface Reordered {
  blocks: Block[];
  /** Seconds, weight changes and trips to the floor that the new order spares; never worse in all. */
  saved: { seconds: number; weightChanges: number; floorTrips: number };
  /** What else is better than before. */
  better: PenaltyKind[];
  moved: boolean;
}

const trips = (plan: Pick<Plan, 'blocks' | 'clientIds'>, context: PlanContext): number =>
  plan.clientIds.reduce((sum, id) => sum + coverageOf(plan, id, context).floorTrips, 0);

/** Puts the items of every block into their best order; blocks stay where they are. */
export function orderPlan(plan: Pick<Plan, 'blocks' | 'minutes' | 'clientIds'>, context: PlanContext): Reordered {
  let before: readonly PlanLane[] = [];
  let moved = false;
  const blocks = plan.blocks.map((block) => {
    const order = bestOrder(orderProblem(block, before, context));
    const items = (order ?? block.items.map((_, i) => i)).flatMap((i) => block.items[i] ?? []);
    moved ||= items.some((item, i) => item !== block.items[i]);
    before = items.at(-1)?.lanes ?? before;
    return { ...block, items };
  });
  const after = { ...plan, blocks };
  const [old, now] = [totalsOfPlan(plan, context), totalsOfPlan(after, context)];
  const [was, is] = [penaltiesOf(plan, context), penaltiesOf(after, context)];
  return {
    blocks,
    moved,
    better: PENALTIES.filter((kind) => is[kind] < was[kind]),
    saved: {
      seconds: old.seconds - now.seconds,
      weightChanges: old.weightChanges - now.weightChanges,
      floorTrips: trips(plan, context) - trips(after, context),
    },
  };
}
