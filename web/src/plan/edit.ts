/** Changes to a plan, each from one plan to the next. */
import type { Place } from '@waxwing/core/client';
import {
  type Block,
  type BlockKind,
  classLevels,
  laneAtLevel,
  laneFor,
  type LaneRequest,
  loadExists,
  type Plan,
  type PlanItem,
  type PlanLane,
  setsOfLane,
  withSets,
} from '@waxwing/core/planning';
import { v7 as uuidv7 } from 'uuid';

import { type World, worldAt } from './use-world';

export const withBlocks = (plan: Plan, blocks: Block[]): Plan => ({ ...plan, blocks });

export const changeBlock = (plan: Plan, blockId: string, change: (block: Block) => Block): Plan =>
  withBlocks(
    plan,
    plan.blocks.map((block) => (block.id === blockId ? change(block) : block)),
  );

export const changeItem = (plan: Plan, itemId: string, change: (item: PlanItem) => PlanItem): Plan =>
  withBlocks(
    plan,
    plan.blocks.map((block) => ({
      ...block,
      items: block.items.map((item) => (item.id === itemId ? change(item) : item)),
    })),
  );

export const changeLane = (plan: Plan, itemId: string, clientId: string, change: (lane: PlanLane) => PlanLane): Plan =>
  changeItem(plan, itemId, (item) => ({
    ...item,
    lanes: item.lanes.map((lane) => (lane.clientId === clientId ? change(lane) : lane)),
  }));

/** An item to another place of its block. */
export const moveItem = (plan: Plan, blockId: string, from: number, to: number): Plan =>
  changeBlock(plan, blockId, (block) => {
    const items = [...block.items];
    const [moved] = items.splice(from, 1);
    if (moved) items.splice(to, 0, moved);
    return { ...block, items };
  });

/** An item to the end of another block. */
export function toBlock(plan: Plan, item: PlanItem, blockId: string): Plan {
  return changeBlock(removeItem(plan, item.id), blockId, (block) => ({
    ...block,
    items: [...block.items, { ...item, lanes: item.lanes.map((lane) => withSets(lane, setsOfLane(block, lane))) }],
  }));
}

/** A block with so many rounds: what the last ones did otherwise goes with them. */
export const withRounds = (block: Block, rounds: number): Block => ({
  ...block,
  rounds,
  items: block.items.map((item) => ({ ...item, lanes: item.lanes.map((lane) => withSets(lane, rounds)) })),
});

/** A block one place earlier. */
export function blockUp(plan: Plan, blockId: string): Plan {
  const at = plan.blocks.findIndex(({ id }) => id === blockId);
  const [block, before] = [plan.blocks[at], plan.blocks[at - 1]];
  if (!block || !before) return plan;
  return withBlocks(plan, plan.blocks.toSpliced(at - 1, 2, block, before));
}

export const removeItem = (plan: Plan, itemId: string): Plan =>
  withBlocks(
    plan,
    plan.blocks.map((block) => ({ ...block, items: block.items.filter(({ id }) => id !== itemId) })),
  );

export const addBlock = (plan: Plan, kind: BlockKind): Plan =>
  withBlocks(plan, [
    ...plan.blocks,
    { id: uuidv7(), kind, rounds: 3, workSeconds: kind === 'circuit' ? 40 : null, items: [] },
  ]);

/** What the policy of progress is asked about a client and a movement. */
export function laneRequest(world: World, plan: Plan, clientId: string, movementId: string): LaneRequest | undefined {
  const movement = world.context.find(movementId);
  const client = world.suggestClients.find(({ id }) => id === clientId);
  if (!movement || !client) return undefined;
  return {
    clientId,
    movement,
    purpose: plan.purpose,
    sets: client.sets,
    kit: world.place.kit,
    standing: client.standing,
    ladder: world.context.ladder,
    find: world.context.find,
  };
}

/** What a client would do of a movement, from their record. */
export function freshLane(world: World, plan: Plan, clientId: string, movementId: string): PlanLane | undefined {
  const request = laneRequest(world, plan, clientId, movementId);
  return request && laneFor(request).lane;
}

/** The same at the level of a group that is theirs; the movement itself where none is open, so that it is named. */
function levelledLane(world: World, plan: Plan, clientId: string, movementId: string): PlanLane | undefined {
  const request = laneRequest(world, plan, clientId, movementId);
  if (!request) return undefined;
  const { level } = classLevels(request);
  return (level && laneAtLevel(request, level)) || laneFor(request).lane;
}

/** A plan somewhere else: what cannot be lifted there is dosed anew, and the room is the one of that place. */
export function atPlace(world: World, plan: Plan, place: Place): Plan {
  const there = worldAt(world, place.ref);
  const blocks = plan.blocks.map((block) => ({
    ...block,
    items: block.items.map((item) => ({
      ...item,
      lanes: item.lanes.map((lane) => {
        if (loadExists(lane, place.kit, there.context)) return lane;
        const fresh = freshLane(there, plan, lane.clientId, lane.movementId);
        return fresh ? { ...lane, load: fresh.load, amount: fresh.amount, tempo: fresh.tempo, why: fresh.why } : lane;
      }),
    })),
  }));
  return { ...plan, place: place.ref, space: place.space, blocks };
}

/** A movement for everybody, at the end of a block; in a group each at their level. */
export function addItem(world: World, plan: Plan, blockId: string, movementId: string): Plan {
  const group = plan.clientIds.length > 1;
  const own = group ? levelledLane : freshLane;
  const lanes = plan.clientIds.flatMap((id) => own(world, plan, id, movementId) ?? []);
  if (lanes.length === 0) return plan;
  const item: PlanItem = { id: uuidv7(), locked: false, tied: false, ...(group && { baseId: movementId }), lanes };
  return changeBlock(plan, blockId, (block) => ({ ...block, items: [...block.items, item] }));
}

/** After the last two of a block, both of them in one rep: A, B, then A with B. */
export function combineLast(plan: Plan, block: Block): Plan {
  const [a, b] = block.items.slice(-2);
  if (!a || !b) return plan;
  const lanes = a.lanes.flatMap((lane): PlanLane[] => {
    const other = b.lanes.find(({ clientId }) => clientId === lane.clientId);
    return other && lane.withId === null && other.withId === null && other.movementId !== lane.movementId
      ? [
          {
            ...lane,
            withId: other.movementId,
            amount: Math.min(lane.amount, other.amount),
            why: [{ code: 'combines' }],
          },
        ]
      : [];
  });
  if (lanes.length === 0) return plan;
  const item: PlanItem = { id: uuidv7(), locked: false, tied: false, lanes };
  return changeBlock(plan, block.id, (one) => ({ ...one, items: [...one.items, item] }));
}

/** The same plan under new ids, for another day or another time. */
export const copyOf = (plan: Plan, change: Partial<Plan> = {}): Plan => ({
  ...plan,
  blocks: plan.blocks.map((block) => ({
    ...block,
    id: uuidv7(),
    items: block.items.map((item) => ({ ...item, id: uuidv7() })),
  })),
  ...change,
});

/** A lane with the shape of another one: its sets and rest, its parts, and what its rounds change besides the weight and the movement. */
function likewise(lane: PlanLane, { withId, sets, rest, parts, amount, bySet = [] }: PlanLane): PlanLane {
  const rounds = bySet.filter(({ load, movementId }) => load === undefined && movementId === undefined);
  return {
    ...lane,
    withId,
    sets,
    rest,
    ...(parts && { parts, amount }),
    ...(rounds.length > 0 && { bySet: rounds }),
  };
}

/** Everybody of a new plan on the lines of an old one, each with a dose of their own. */
export function forPeople(world: World, plan: Plan, clientIds: string[]): Plan {
  const next = copyOf(plan, { clientIds, template: false });
  return withBlocks(
    next,
    next.blocks.map((block) => ({
      ...block,
      items: block.items.map((item) => ({
        ...item,
        lanes: clientIds.flatMap((id) => {
          const like = item.lanes.find(({ clientId }) => clientId === id) ?? item.lanes[0];
          const lane = like && freshLane(world, next, id, like.movementId);
          return lane && like ? [likewise(lane, like)] : [];
        }),
      })),
    })),
  );
}
