/** The rung next to a movement that a client may go to by a suggestion: down always, up only where nothing holds back. */
import { kitCounts } from '@waxwing/core/movement';
import { fitNow, heldBetween, isOpen } from '@waxwing/core/progress';

import type { World } from './use-world';

/** Whether a movement may be offered to a client: nothing closes it, it did not hurt, and its kit is here. */
function offers({ context }: World, clientId: string, movementId: string): boolean {
  const movement = context.find(movementId);
  const client = context.clients.find(({ id }) => id === clientId);
  return (
    movement !== undefined && client !== undefined && isOpen(fitNow(client.standing, kitCounts(context.kit), movement))
  );
}

/** Whether a client may go a rung up from a movement by a suggestion. */
function mayGoUp({ context }: World, clientId: string, movementId: string): boolean {
  const movement = context.find(movementId);
  const client = context.clients.find(({ id }) => id === clientId);
  if (!movement || !client) return false;
  const { standing, sets } = client;
  const { kit, ladder, find } = context;
  return heldBetween({ standing, movement, purpose: 'strength', kit, ladder, find, sets }) === null;
}

/** The first rung in a direction that is open; undefined where there is none. */
export function openRung(
  world: World,
  clientId: string,
  movementId: string,
  direction: 'easier' | 'harder',
): string | undefined {
  if (direction === 'harder' && !mayGoUp(world, clientId, movementId)) return undefined;
  const steps = world.context.ladder.rungs.get(movementId)?.[direction] ?? [];
  return steps.find(({ to }) => offers(world, clientId, to))?.to;
}
