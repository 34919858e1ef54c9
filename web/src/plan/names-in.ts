/** Names of movements and people, for the words of a plan. */
import type { Names } from '../words/plan-words';
import { say } from '../words/say';
import type { World } from './use-world';

export const namesIn = ({ context, clients }: Pick<World, 'context' | 'clients'>): Names => ({
  movement: (id) => context.find(id)?.name ?? id,
  client: (id) => clients.find((client) => client.id === id)?.name ?? say.plan.somebody,
});
