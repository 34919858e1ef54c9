/** Everything that planning for some clients rests on: the library, the kit, who they are today and what they did. */
import { useQueries, useQuery } from '@tanstack/react-query';
import {
  AT_STUDIO,
  type ClientOnDay,
  dueTests,
  type Place,
  placeKey,
  placeOf,
  type PlaceRef,
  placesFor,
  type Studio,
} from '@waxwing/core/client';
import type { ClientRecord } from '@waxwing/core/coaching';
import { buildCatalog, type Catalog } from '@waxwing/core/ladder';
import { kitCounts, type MovementSummary } from '@waxwing/core/movement';
import type { PlanContext, SuggestClient, WarnContext } from '@waxwing/core/planning';
import { NOTHING_LEFT, replacementFor, standingOf } from '@waxwing/core/progress';
import { type Remote, wrap } from 'comlink';
import { useEffect, useMemo } from 'react';
import { v7 as uuidv7 } from 'uuid';

import { clientOnDayQuery, movementsQuery, recordQuery, studioQuery } from '../api/queries';
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
  /** Where it is held: its kit decides. */
  place: Place;
  /** Everywhere that these people could meet. */
  places: readonly Place[];
  clients: readonly ClientOnDay[];
  records: ReadonlyMap<string, ClientRecord>;
  suggestClients: readonly SuggestClient[];
  catalog: Catalog;
  context: PlanContext & WarnContext;
  planner: Remote<Planner>;
}

/** The world of some clients, in the studio; undefined until all of it is here. */
export function useWorld(clientIds: readonly string[]): { world: World | undefined; error: Error | null } {
  const movements = useQuery(movementsQuery);
  const studio = useQuery(studioQuery);
  const clients = useQueries({
    queries: clientIds.map((id) => clientOnDayQuery(id, today())),
    combine: together<ClientOnDay>,
  });
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
    const day = today();
    const suggestClients = people.map((client): SuggestClient => {
      const record = recordOf.get(client.id);
      return {
        id: client.id,
        name: client.name,
        standing: standingOf(client, record ?? NOTHING_LEFT),
        day: client.dayMostly,
        left: record?.left ?? [],
        sets: record?.sets ?? {},
        moves: record?.moves ?? [],
        tests: dueTests(client.benchmarks, record?.tests ?? [], day),
      };
    });
    const places = placesFor(studio.data, people);
    const unequipped: Unequipped = {
      catalog,
      movements: all,
      studio: studio.data,
      places,
      clients: people,
      records: recordOf,
      suggestClients,
      context: {
        find: (id) => byId.get(id),
        knows: (clientId, id) => (recordOf.get(clientId)?.sets[id]?.length ?? 0) > 0,
        clients: suggestClients,
        movements: all,
        ladder: catalog.ladder,
        newId: uuidv7,
      },
      planner: worker(),
    };
    return equipped(unequipped, placeOf(AT_STUDIO, studio.data, people));
  }, [movements.data, studio.data, whole, catalog, people, pasts]);
  return { world, error };
}

type Unequipped = Omit<World, 'place' | 'context'> & { context: Omit<World['context'], 'kit' | 'instead'> };

/** A world with the kit of a place. */
function equipped(world: Unequipped, place: Place): World {
  const { context, catalog, suggestClients } = world;
  const counts = kitCounts(place.kit);
  return {
    ...world,
    place,
    context: {
      ...context,
      kit: place.kit,
      instead: (clientId, movementId) => {
        const client = suggestClients.find(({ id }) => id === clientId);
        return client && context.find(replacementFor(catalog, client.standing, counts, movementId)?.id ?? '');
      },
    },
  };
}

/** The same people somewhere else. */
export const worldAt = (world: World, where: PlaceRef): World =>
  placeKey(where) === placeKey(world.place.ref) ? world : equipped(world, placeOf(where, world.studio, world.clients));

/** `client movement` for all that was done before: what a worker needs instead of a function. */
export const knownPairs = ({ records }: World): string[] =>
  [...records].flatMap(([clientId, { sets }]) => Object.keys(sets).map((id) => `${clientId} ${id}`));
