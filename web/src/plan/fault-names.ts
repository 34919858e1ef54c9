/** The faults of what was done, by name: a plan says what holds somebody back, and not only that something does. */
import type { QueryClient } from '@tanstack/react-query';
import { latest, type PastSession } from '@waxwing/core/client';

import { movementQuery } from '../api/queries';
import type { FaultNames } from './fault-in';
import type { World } from './use-world';

const hadFaults = (past: readonly PastSession[]): boolean =>
  latest(past)?.sets.some(({ faults = [] }) => faults.length > 0) ?? false;

/** A movement that cannot be read leaves its faults without a name, and the plan is made all the same. */
export async function faultNames(queries: QueryClient, { suggestClients }: World): Promise<FaultNames> {
  const done = suggestClients.flatMap(({ sets }) => Object.entries(sets));
  const ids = [...new Set(done.flatMap(([id, past]) => (hadFaults(past) ? id : [])))];
  const pages = await Promise.all(ids.map((id) => queries.fetchQuery(movementQuery(id)).catch(() => null)));
  return Object.fromEntries(
    pages.flatMap((page) =>
      page ? [[page.movement.id, page.movement.faults.map(({ id, name, severity }) => ({ id, name, severity }))]] : [],
    ),
  );
}
