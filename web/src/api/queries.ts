/** Everything that screens read from the server, as cached queries. */
import type { FigureLibrary } from '@waxwing/core/body';
import {
  type Client,
  type ClientOnDay,
  type ClientSummary,
  type Condition,
  type Keeping,
  type Still,
  type Studio,
} from '@waxwing/core/client';
import type { ClientRecord } from '@waxwing/core/coaching';
import type { OutboxMessage, SetRow, Sheet } from '@waxwing/core/formats';
import type { Health, MovementPage } from '@waxwing/core/ladder';
import type { FaultKind, HouseRule, MovementList, MovementVersion, Picture } from '@waxwing/core/movement';
import type { Feed, PlanSummary, StoredPlan } from '@waxwing/core/planning';
import type { LaterEvents, SessionSummary, SessionView } from '@waxwing/core/session';
import DataLoader from 'dataloader';
import { queryOptions, type QueryClient } from '@tanstack/react-query';
import { today } from '../words/dates';
import { call } from './http';
import { paged } from './paged';

/** Every movement that is not archived. */
export const movementsQuery = queryOptions({
  queryKey: ['library', 'list'],
  queryFn: () => call<MovementList>('GET', '/movements').then((answer) => answer.items),
});

export const archivedQuery = queryOptions({
  queryKey: ['library', 'archived'],
  queryFn: () => call<MovementList>('GET', '/movements?archived=true').then((answer) => answer.items),
});

export const healthQuery = queryOptions({
  queryKey: ['library', 'health'],
  queryFn: () => call<Health>('GET', '/library/health'),
});

export const houseRulesQuery = queryOptions({
  queryKey: ['house-rules'],
  queryFn: () => call<{ items: HouseRule[] }>('GET', '/library/house-rules').then((answer) => answer.items),
  staleTime: Infinity,
});

export const causesQuery = queryOptions({
  queryKey: ['causes'],
  queryFn: () => call<{ items: string[] }>('GET', '/library/causes').then((answer) => answer.items),
  staleTime: Infinity,
});

export const conditionsQuery = queryOptions({
  queryKey: ['conditions'],
  queryFn: () => call<{ items: Condition[] }>('GET', '/library/conditions').then((answer) => answer.items),
  staleTime: Infinity,
});

export const stillsQuery = queryOptions({
  queryKey: ['stills'],
  queryFn: () =>
    call<{ items: string[]; started: string[] }>('GET', '/library/stills').then(({ items, started }) => ({
      drawn: new Set(items),
      started: new Set(started),
    })),
  staleTime: Infinity,
});

export const faultKindsQuery = queryOptions({
  queryKey: ['fault-kinds'],
  queryFn: () => call<{ items: FaultKind[] }>('GET', '/library/fault-kinds').then((answer) => answer.items),
  staleTime: Infinity,
  gcTime: Infinity,
});

/** Figures change only with a new server: they are fetched once a visit, when the first is shown. */
export const figuresQuery = queryOptions({
  queryKey: ['figures'],
  queryFn: () => call<FigureLibrary>('GET', '/library/figures'),
  staleTime: Infinity,
  gcTime: Infinity,
});

/** Pictures kept of a client's clips. */
export const clientStillsQuery = (clientId: string) =>
  queryOptions({
    queryKey: ['clients', clientId, 'stills'],
    queryFn: () => call<{ items: Still[] }>('GET', `/clients/${clientId}/stills`).then((answer) => answer.items),
  });

export const versionsQuery = (id: string) =>
  queryOptions({
    queryKey: ['library', 'versions', id],
    queryFn: () => call<MovementVersion[]>('GET', `/movements/${encodeURIComponent(id)}/versions`),
  });

export const picturesQuery = (id: string) =>
  queryOptions({
    queryKey: ['pictures', id],
    queryFn: () => call<Picture[]>('GET', `/movements/${encodeURIComponent(id)}/pictures`),
  });

/** A session needs dozens of movements at once: what is asked for in one breath is one request. */
const pages = new DataLoader<string, MovementPage>(
  async (ids) => {
    const one = (id: string) =>
      call<MovementPage>('GET', `/movements/${encodeURIComponent(id)}`).catch((error: Error) => error);
    if (ids.length === 1) return Promise.all(ids.map(one));
    const query = new URLSearchParams({ ids: ids.join() });
    const { items } = await call<{ items: MovementPage[] }>('GET', `/library/pages?${query}`);
    const found = new Map(items.map((page) => [page.movement.id, page]));
    // What is not there is asked for alone, and answered with the reason.
    return Promise.all(ids.map((id) => found.get(id) ?? one(id)));
  },
  // Keeping is the business of the queries.
  { cache: false, maxBatchSize: 60 },
);

export const movementQuery = (id: string) =>
  queryOptions({ queryKey: ['library', 'movement', id], queryFn: () => pages.load(id) });

export const clientsQuery = queryOptions({
  queryKey: ['clients'],
  queryFn: () => call<{ items: ClientSummary[] }>('GET', '/clients').then((answer) => answer.items),
});

export const clientQuery = (id: string) =>
  queryOptions({ queryKey: ['client', id], queryFn: () => call<Client>('GET', `/clients/${id}`) });

/** A client as they are on one day: all that a session and a plan need of them, and nothing private. */
export const clientOnDayQuery = (id: string, day: string) =>
  queryOptions({
    queryKey: ['client-on-day', id, day],
    queryFn: () => call<ClientOnDay>('GET', `/clients/${id}/on/${day}`),
  });

export const recordQuery = (clientId: string) =>
  queryOptions({
    queryKey: ['record', clientId],
    queryFn: () => call<ClientRecord>('GET', `/clients/${clientId}/record`),
  });

/** Sessions, latest first. */
export const sessionsQuery = (filter: { clientId?: string; status?: 'open' | 'finished' } = {}) =>
  paged<SessionSummary>(['sessions', filter], '/sessions', filter);

/** Sessions that began within a span of time. */
export const sessionsBetweenQuery = (from: string, to: string) =>
  paged<SessionSummary>(['sessions', 'between', from, to], '/sessions', { from, to, limit: '200' });

/** Sets of a client, latest first. */
export const setsQuery = (clientId: string) => paged<SetRow>(['sets', clientId], `/clients/${clientId}/sets`);

/**
 * A session with all of its events, however many pieces they come in. The first names who takes part: what is known of them is asked
 * for beside the rest, as every screen of a session needs it.
 */
export const sessionQuery = (id: string) =>
  queryOptions({
    queryKey: ['session', id],
    queryFn: async ({ client: cache }) => {
      const view = await call<SessionView>('GET', `/sessions/${id}`);
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
    const piece = await call<LaterEvents>('GET', `/sessions/${id}/events?after=${place}`);
    events.push(...piece.events);
    if (piece.events.length === 0) break;
    ({ place, last } = piece);
  }
  return { events, place, last };
}

export const keepingQuery = queryOptions({
  queryKey: ['keeping'],
  queryFn: () => call<Keeping>('GET', '/studio/keeping'),
});

export const studioQuery = queryOptions({ queryKey: ['studio'], queryFn: () => call<Studio>('GET', '/studio') });

/** Plans, or templates, latest change first. */
export const plansQuery = (kind: 'plans' | 'templates') => paged<PlanSummary>(['plans', kind], '/plans', { kind });

/** Plans of a span of time, each with the session that was held by it. */
export const plansBetweenQuery = (from: string, to: string) =>
  paged<PlanSummary>(['plans', 'between', from, to], '/plans', { kind: 'plans', from, to, limit: '200' });

export const planQuery = (id: string) =>
  queryOptions({ queryKey: ['plan', id], queryFn: () => call<StoredPlan>('GET', `/plans/${id}`) });

export const sheetQuery = (planId: string, clientId: string) =>
  queryOptions({
    queryKey: ['sheet', planId, clientId],
    queryFn: () => call<Sheet>('GET', `/plans/${planId}/sheet?clientId=${clientId}`),
    staleTime: 0,
  });

/** Whether there is a link for calendar programs. */
export const feedQuery = queryOptions({ queryKey: ['feed'], queryFn: () => call<Feed>('GET', '/calendar') });

export const outboxQuery = queryOptions({
  queryKey: ['outbox'],
  queryFn: () => call<{ items: OutboxMessage[] }>('GET', '/outbox').then((answer) => answer.items),
  staleTime: 0,
});

/** A client was changed here: everything that rests on it is told. */
export function keepClient(queries: QueryClient, client: Client): void {
  queries.setQueryData(clientQuery(client.id).queryKey, client);
  void queries.invalidateQueries({ queryKey: ['client-on-day', client.id] });
}

/** A plan was made, changed or deleted here: the lists of plans are told, and when its clients come next. */
export const plansChanged = (queries: QueryClient): Promise<unknown> =>
  Promise.all([
    queries.invalidateQueries({ queryKey: ['plans'] }),
    queries.invalidateQueries({ queryKey: clientsQuery.queryKey, exact: true }),
  ]);
