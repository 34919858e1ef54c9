/** Everything that screens read from the server, as cached queries. */
import { type QueryClient, queryOptions } from '@tanstack/react-query';
import type { Client } from '@waxwing/core/client';
import type { MovementPage } from '@waxwing/core/ladder';
import type { SessionView } from '@waxwing/core/session';
import DataLoader from 'dataloader';

import { today } from '../words/dates';
import { call } from './http';
import { clientKeys, libraryKeys, planKeys, sessionKeys } from './keys';
import { paged } from './paged';

/** Every movement that is not archived. */
export const movementsQuery = queryOptions({
  queryKey: libraryKeys.list,
  queryFn: () => call('GET /movements').then((answer) => answer.items),
});

export const archivedQuery = queryOptions({
  queryKey: libraryKeys.archived,
  queryFn: () => call('GET /movements', { query: { archived: 'true' } }).then((answer) => answer.items),
});

export const healthQuery = queryOptions({
  queryKey: libraryKeys.health,
  queryFn: () => call('GET /library/health'),
});

export const houseRulesQuery = queryOptions({
  queryKey: ['house-rules'],
  queryFn: () => call('GET /library/house-rules').then((answer) => answer.items),
  staleTime: Infinity,
});

export const causesQuery = queryOptions({
  queryKey: ['causes'],
  queryFn: () => call('GET /library/causes').then((answer) => answer.items),
  staleTime: Infinity,
});

export const demandLevelsQuery = queryOptions({
  queryKey: ['demand-levels'],
  queryFn: () => call('GET /library/demands').then((answer) => answer.items),
  staleTime: Infinity,
});

export const conditionsQuery = queryOptions({
  queryKey: ['conditions'],
  queryFn: () => call('GET /library/conditions').then((answer) => answer.items),
  staleTime: Infinity,
});

export const stillsQuery = queryOptions({
  queryKey: ['stills'],
  queryFn: () =>
    call('GET /library/stills').then(({ items, started }) => ({
      drawn: new Set(items),
      started: new Set(started),
    })),
  staleTime: Infinity,
});

export const faultKindsQuery = queryOptions({
  queryKey: ['fault-kinds'],
  queryFn: () => call('GET /library/fault-kinds').then((answer) => answer.items),
  staleTime: Infinity,
  gcTime: Infinity,
});

/** Figures change only with a new server: they are fetched once a visit, when the first is shown. */
export const figuresQuery = queryOptions({
  queryKey: ['figures'],
  queryFn: () => call('GET /library/figures'),
  staleTime: Infinity,
  gcTime: Infinity,
});

/** Pictures kept of a client's clips. */
export const clientStillsQuery = (clientId: string) =>
  queryOptions({
    queryKey: clientKeys.stills(clientId),
    queryFn: () => call('GET /clients/{clientId}/stills', { clientId }).then((answer) => answer.items),
  });

export const versionsQuery = (id: string) =>
  queryOptions({
    queryKey: libraryKeys.versions(id),
    queryFn: () => call('GET /movements/{id}/versions', { id }),
  });

export const picturesQuery = (id: string) =>
  queryOptions({
    queryKey: libraryKeys.pictures(id),
    queryFn: () => call('GET /movements/{movementId}/pictures', { movementId: id }),
  });

/** A session needs dozens of movements at once: what is asked for in one breath is one request. */
const pages = new DataLoader<string, MovementPage>(
  async (ids) => {
    const one = (id: string) => call('GET /movements/{id}', { id }).catch((error: Error) => error);
    if (ids.length === 1) return Promise.all(ids.map(one));
    const { items } = await call('GET /library/pages', { query: { ids: ids.join() } });
    const found = new Map(items.map((page) => [page.movement.id, page]));
    // What is not there is asked for alone, and answered with the reason.
    return Promise.all(ids.map((id) => found.get(id) ?? one(id)));
  },
  // Keeping is the business of the queries.
  { cache: false, maxBatchSize: 60 },
);

export const movementQuery = (id: string) =>
  queryOptions({ queryKey: libraryKeys.movement(id), queryFn: () => pages.load(id) });

export const clientsQuery = queryOptions({
  queryKey: clientKeys.list,
  queryFn: () => call('GET /clients').then((answer) => answer.items),
});

export const clientQuery = (id: string) =>
  queryOptions({ queryKey: clientKeys.one(id), queryFn: () => call('GET /clients/{id}', { id }) });

/** A client as they are on one day: all that a session and a plan need of them, and nothing private. */
export const clientOnDayQuery = (id: string, day: string) =>
  queryOptions({
    queryKey: clientKeys.onDay(id, day),
    queryFn: () => call('GET /clients/{id}/on/{day}', { id, day }),
  });

export const recordQuery = (clientId: string) =>
  queryOptions({
    queryKey: clientKeys.record(clientId),
    queryFn: () => call('GET /clients/{id}/record', { id: clientId }),
  });

/** Sessions, latest first. */
export const sessionsQuery = (filter: { clientId?: string; status?: 'open' | 'finished' } = {}) =>
  paged(sessionKeys.filtered(filter), (after) => call('GET /sessions', { query: { ...filter, ...after } }));

/** Sessions that began within a span of time. */
export const sessionsBetweenQuery = (from: string, to: string) =>
  paged(sessionKeys.between(from, to), (after) =>
    call('GET /sessions', { query: { from, to, limit: '200', ...after } }),
  );

/** Sets of a client, latest first. */
export const setsQuery = (clientId: string) =>
  paged(clientKeys.sets(clientId), (after) => call('GET /clients/{id}/sets', { id: clientId, query: after }));

/**
 * A session with all of its events, however many pieces they come in. The first names who takes part: what is known of them is asked
 * for beside the rest, as every screen of a session needs it.
 */
export const sessionQuery = (id: string) =>
  queryOptions({
    queryKey: sessionKeys.one(id),
    queryFn: async ({ client: cache }) => {
      const view = await call('GET /sessions/{id}', { id });
      const rest = restOf(view);
      for (const client of view.clients) {
        void cache.prefetchQuery(clientOnDayQuery(client.id, today()));
        void cache.prefetchQuery(recordQuery(client.id));
      }
      return { ...view, ...(await rest) };
    },
  });

/** All events of a session of which the first are here. */
async function restOf({ id, events: first, place, last }: SessionView) {
  const events = [...first];
  while (place < last) {
    const piece = await call('GET /sessions/{id}/events', { id, query: { after: String(place) } });
    events.push(...piece.events);
    if (piece.events.length === 0) break;
    ({ place, last } = piece);
  }
  return { events, place, last };
}

export const keepingQuery = queryOptions({
  queryKey: ['keeping'],
  queryFn: () => call('GET /studio/keeping'),
});

export const studioQuery = queryOptions({ queryKey: ['studio'], queryFn: () => call('GET /studio') });

/** Plans, or templates, latest change first. */
export const plansQuery = (kind: 'plans' | 'templates') =>
  paged(planKeys.kind(kind), (after) => call('GET /plans', { query: { kind, ...after } }));

/** Plans of a span of time, each with the session that was held by it. */
export const plansBetweenQuery = (from: string, to: string) =>
  paged(planKeys.between(from, to), (after) =>
    call('GET /plans', { query: { kind: 'plans', from, to, limit: '200', ...after } }),
  );

export const planQuery = (id: string) =>
  queryOptions({ queryKey: planKeys.one(id), queryFn: () => call('GET /plans/{id}', { id }) });

export const sheetQuery = (planId: string, clientId: string) =>
  queryOptions({
    queryKey: planKeys.sheet(planId, clientId),
    queryFn: () => call('GET /plans/{id}/sheet', { id: planId, query: { clientId } }),
    staleTime: 0,
  });

/** Whether there is a link for calendar programs. */
export const feedQuery = queryOptions({ queryKey: ['feed'], queryFn: () => call('GET /calendar') });

export const outboxQuery = queryOptions({
  queryKey: ['outbox'],
  queryFn: () => call('GET /outbox').then((answer) => answer.items),
  staleTime: 0,
});

/** A client was changed here: everything that rests on it is told. */
export function keepClient(queries: QueryClient, client: Client): void {
  queries.setQueryData(clientQuery(client.id).queryKey, client);
  void queries.invalidateQueries({ queryKey: clientKeys.days(client.id) });
}

/** A plan was made, changed or deleted here: the lists of plans are told, and when its clients come next. */
export const plansChanged = (queries: QueryClient): Promise<unknown> =>
  Promise.all([
    queries.invalidateQueries({ queryKey: planKeys.lists }),
    queries.invalidateQueries({ queryKey: clientsQuery.queryKey, exact: true }),
  ]);
