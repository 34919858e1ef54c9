/** The order of a plan's items that costs least, block by block, and what it saves. */
import type { Muscle } from '../movement/vocabulary.js';
import { changesBetween } from './changes.js';
import { coverageOf, totalsOfPlan } from './coverage.js';
import { bestOrder, type OrderProblem } from './order.js';
import { inRounds, type Block, type Plan, type PlanContext, type PlanItem, type PlanLane } from './plan.js';

/** Penalties in seconds: how much changing about it is worth to avoid each. Starting guesses. */
export const ORDER_PENALTY = {
  /** The same prime muscles twice running, times the share in common. */
  sameMuscles: 40,
  /** Two that tire the grip, one after the other. */
  gripTwice: 20,
  /** A skill or an impact movement, for each place it comes later than first. */
  late: 15,
} as const;

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

/** A block as a matter of order, after what was done before it. */
export function orderProblem(block: Block, before: readonly PlanLane[], context: PlanContext): OrderProblem {
  const { items } = block;
  const muscles = items.map((item) => musclesOf(item, context));
  const grips = items.map((item) => asks(item, 'hard-grip', context) >= CLEARLY);
  const fresh = items.map((item) => wantsFreshness(item, context));
  const change = (from: readonly PlanLane[], to: PlanItem): number => {
    const { load, position } = changesBetween(from, to.lanes, context);
    return load + position;
  };
  return {
    size: items.length,
    first: items.map((item) => change(before, item)),
    step: items.map((a, i) =>
      items.map((b, j) =>
        i === j
          ? 0
          : change(a.lanes, b) +
            ORDER_PENALTY.sameMuscles * shared(muscles[i] ?? new Set(), muscles[j] ?? new Set()) +
            (grips[i] && grips[j] ? ORDER_PENALTY.gripTwice : 0),
      ),
    ),
    place: items.map((_, i) => items.map((__, at) => (fresh[i] ? ORDER_PENALTY.late * at : 0))),
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
  return {
    blocks,
    moved,
    saved: {
      seconds: old.seconds - now.seconds,
      weightChanges: old.weightChanges - now.weightChanges,
      floorTrips: trips(plan, context) - trips(after, context),
    },
  };
}

/** `6 fewer weight changes, 4 min less`; what the order is better for where no time is saved. */
export function savedWords({ saved, moved }: Reordered): string {
  if (!moved) return 'This order is already the best.';
  const count = (n: number, one: string, many: string) =>
    `${Math.abs(n)} ${n > 0 ? 'fewer' : 'more'} ${Math.abs(n) === 1 ? one : many}`;
  const words = [
    ...(saved.weightChanges === 0 ? [] : [count(saved.weightChanges, 'weight change', 'weight changes')]),
    ...(saved.floorTrips === 0 ? [] : [count(saved.floorTrips, 'trip to the floor', 'trips to the floor')]),
    ...(saved.seconds === 0
      ? []
      : [
          `${Math.floor(Math.abs(saved.seconds) / 60)}:${String(Math.abs(saved.seconds) % 60).padStart(2, '0')} min ${saved.seconds > 0 ? 'saved' : 'more'}`,
        ]),
  ];
  if (words.length === 0) return 'No minutes saved; muscles and grip rest better.';
  // Where nothing is saved, what the new order is better for has to be said.
  const gains = saved.weightChanges > 0 || saved.floorTrips > 0 || saved.seconds > 0;
  return `${words.join(', ')}${gains ? '' : ', but muscles and grip rest better'}.`;
}
