/** Everything that planning for some clients rests on: the library, the kit, who they are today and what they did. */
import { awaitsClearance, easeOf, limitsHolding } from '@waxwing/core/coaching';
import type { Client, ClientRecord, MovementSummary, Studio } from '@waxwing/core/formats';
import { buildCatalog, substitutes } from '@waxwing/core/ladder';
import { kitCounts, mayDo } from '@waxwing/core/movement';
import type { PlanContext, SuggestClient, WarnContext } from '@waxwing/core/planning';
import { useQueries, useQuery } from '@tanstack/react-query';
import { wrap, type Remote } from 'comlink';
import { useEffect, useMemo } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { clientQuery, movementsQuery, recordQuery, studioQuery } from '../api/queries';
import { today } from '../words/dates';
import type { Planner } from '../workers/planner.worker';

let planner: Remote<Planner> | undefined;

/** One worker for the whole visit. */
const worker = (): Remote<Planner> =>
  (planner ??= wrap<Planner>(new Worker(new URL('../workers/planner.worker.ts', import.meta.url), { type: 'module' })));

/** What several queries brought so far, in their order; the same array as long as nothing new came. */
const together = <T>(results: readonly { data: T | undefined; error: Error | null }[]) => ({
  data: results.flatMap(({ data }) => (data === undefined ? [] : [data])),
  error: results.find(({ error }) => error !== null)?.error ?? null,
});

export interface World {
  movements: readonly MovementSummary[];
  studio: Studio;
  clients: readonly Client[];
  records: ReadonlyMap<string, ClientRecord>;
  suggestClients: readonly SuggestClient[];
  context: PlanContext & WarnContext;
  planner: Remote<Planner>;
}

/** The world of some clients; undefined until all of it is here. */
export function useWorld(clientIds: readonly string[]): { world: World | undefined; error: Error | null } {
  const movements = useQuery(movementsQuery);
  const studio = useQuery(studioQuery);
  const clients = useQueries({ queries: clientIds.map((id) => clientQuery(id)), combine: together<Client> });
  const records = useQueries({ queries: clientIds.map((id) => recordQuery(id)), combine: together<ClientRecord> });
  useEffect(() => {
    if (movements.data) void worker().load(movements.data);
  }, [movements.data]);
  const people = clients.data;
  const pasts = records.data;
  const whole = people.length === clientIds.length && pasts.length === clientIds.length;
  const catalog = useMemo(() => buildCatalog(movements.data ?? []), [movements.data]);
  const error = movements.error ?? studio.error ?? clients.error ?? records.error;
  const world = useMemo((): World | undefined => {
    if (!movements.data || !studio.data || !whole) return undefined;
    const all = movements.data;
    const byId = new Map(all.map((movement) => [movement.id, movement]));
    const recordOf = new Map(people.map(({ id }, i) => [id, pasts[i] as ClientRecord]));
    const limits = new Map(people.map((client) => [client.id, limitsHolding(client, today())]));
    const kit = studio.data.kit;
    const counts = kitCounts(kit);
    const avoid = (id: string) => (recordOf.get(id)?.hurt ?? []).map(({ movementId }) => movementId);
    return {
      movements: all,
      studio: studio.data,
      clients: people,
      records: recordOf,
      suggestClients: people.map((client) => ({
        id: client.id,
        name: client.name,
        limits: limits.get(client.id) ?? [],
        sets: recordOf.get(client.id)?.sets ?? {},
        avoid: avoid(client.id),
        moves: recordOf.get(client.id)?.moves ?? [],
        // Until a clinician has cleared somebody nothing is made harder.
        ease: awaitsClearance(client.readiness) ? 'waiting for clearance' : easeOf(client.today, today()),
      })),
      context: {
        find: (id) => byId.get(id),
        knows: (clientId, id) => (recordOf.get(clientId)?.sets[id]?.length ?? 0) > 0,
        clients: people.map(({ id, name }) => ({ id, name, limits: limits.get(id) ?? [], avoid: avoid(id) })),
        movements: all,
        kit,
        newId: uuidv7,
        instead: (clientId, movementId) => {
          const from = byId.get(movementId);
          if (!from) return undefined;
          const held = limits.get(clientId) ?? [];
          const hurt = avoid(clientId);
          const { ranked } = substitutes(catalog, {
            from: from.id,
            reason: 'too-hard',
            limits: held,
            kit: counts,
            avoid: hurt,
          });
          const [near] = ranked;
          return near
            ? byId.get(near.id)
            : all.find((one) => one.pattern === from.pattern && !hurt.includes(one.id) && mayDo(one, held, counts));
        },
      },
      planner: worker(),
    };
  }, [movements.data, studio.data, whole, catalog, people, pasts]);
  return { world, error };
}

/** `client movement` for all that was done before: what a worker needs instead of a function. */
export const knownPairs = ({ records }: World): string[] =>
  [...records].flatMap(([clientId, { sets }]) => Object.keys(sets).map((id) => `${clientId} ${id}`));
