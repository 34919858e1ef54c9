/** Parts of a plan: what is for some of its clients, or for all but one. */
import { AT_STUDIO } from '../client/place.js';
import type { Plan } from './plan.js';

/** A plan without everybody else: their lanes go, and lines and blocks that held nothing else. */
export const planOf = (plan: Plan, clientId: string): Plan => planWith(plan, [clientId]);

/** The part of a plan that is for some of its clients. */
export const planWith = (plan: Plan, clientIds: readonly string[]): Plan => only(plan, (id) => clientIds.includes(id));

/** A plan without one client; null when nobody is left in it. */
export function planWithout(plan: Plan, clientId: string): Plan | null {
  const rest = only(plan, (id) => id !== clientId);
  return rest.clientIds.length > 0 ? rest : null;
}

const only = (plan: Plan, keep: (clientId: string) => boolean): Plan => ({
  ...plan,
  clientIds: plan.clientIds.filter(keep),
  // Nobody is left in the home of somebody who is not there.
  place: plan.place.kind === 'home' && !keep(plan.place.id) ? AT_STUDIO : plan.place,
  blocks: plan.blocks.map((block) => ({
    ...block,
    items: block.items
      .map((item) => ({ ...item, lanes: item.lanes.filter((lane) => keep(lane.clientId)) }))
      .filter(({ lanes }) => lanes.length > 0),
  })),
});

/** A plan with the part of somebody who comes back to it: their lanes on the lines that are still there, lines that went with them at the end of their block. */
export function planJoined(plan: Plan, part: Plan): Plan {
  const lines = new Map(
    part.blocks.flatMap(({ id: blockId, items }) => items.map((item) => [item.id, { blockId, item }])),
  );
  const blocks = plan.blocks.map((block) => {
    const items = block.items.map((item) => {
      const own = lines.get(item.id)?.item.lanes ?? [];
      lines.delete(item.id);
      return { ...item, lanes: [...item.lanes, ...own] };
    });
    const gone = [...lines.values()].filter(({ blockId }) => blockId === block.id).map(({ item }) => item);
    for (const { id } of gone) lines.delete(id);
    return { ...block, items: [...items, ...gone] };
  });
  return { ...plan, clientIds: [...plan.clientIds, ...part.clientIds], blocks };
}
