/** A block gone round as stations: how many may be at each line, and which lines share a piece, from the kit that there is. */
import type { KitPiece } from '../movement/kit-schema.js';
import { type Block, isAround, type Plan, type PlanContext } from './plan.js';
import { shortagesOf } from './shortage.js';
import { rotate, type Rotation } from './stations.js';

/** Whether a block could be gone round by several people at all. */
export const mayRotate = (block: Block): boolean =>
  block.items.length > 1 && !isAround(block) && block.items.some(({ lanes }) => lanes.length > 1);

const KNOWN = new WeakMap<Block, { kit: readonly KitPiece[]; key: string; rotation: Rotation | null }>();

/** Who is where when; null where a line has no place at all. Worked out once for the same block, kit and people. */
export function rotationOf(
  block: Block,
  clientIds: readonly string[],
  kit: readonly KitPiece[],
  context: PlanContext,
): Rotation | null {
  const key = clientIds.join();
  const known = KNOWN.get(block);
  if (known?.kit === kit && known.key === key) return known.rotation;
  const rotation = findRotation(block, clientIds, kit, context);
  KNOWN.set(block, { kit, key, rotation });
  return rotation;
}

function findRotation(
  block: Block,
  clientIds: readonly string[],
  kit: readonly KitPiece[],
  context: PlanContext,
): Rotation | null {
  const short = (lanes: Block['items'][number]['lanes']) => shortagesOf(lanes, kit, context).length > 0;
  const lanesAt = (item: number, people: readonly number[]) =>
    people.flatMap((who) => block.items[item]?.lanes.find(({ clientId }) => clientId === clientIds[who]) ?? []);
  const people = clientIds.map((_, i) => i);
  const pairs = block.items.flatMap((_, a) =>
    block.items.slice(a + 1).map((__, j): [number, number] => [a, a + 1 + j]),
  );
  return rotate({
    people: people.length,
    items: block.items.length,
    places: block.items.map((_, item) =>
      Math.max(1, people.findLastIndex((who) => !short(lanesAt(item, people.slice(0, who + 1)))) + 1),
    ),
    sharing: pairs.filter(([a, b]) =>
      people.some((one) => people.some((two) => one !== two && short([...lanesAt(a, [one]), ...lanesAt(b, [two])]))),
    ),
  });
}

/** The rotations that a session goes by: of circuits in which the kit is too short for everybody at once. */
export function rotationsOf(
  { blocks, clientIds }: Pick<Plan, 'blocks' | 'clientIds'>,
  kit: readonly KitPiece[],
  context: PlanContext,
): Record<string, Rotation> {
  return Object.fromEntries(
    blocks.flatMap((block) => {
      const short = block.items.some(({ lanes }) => shortagesOf(lanes, kit, context).length > 0);
      const rotation =
        block.kind === 'circuit' && mayRotate(block) && short ? rotationOf(block, clientIds, kit, context) : null;
      return rotation ? [[block.id, rotation]] : [];
    }),
  );
}
