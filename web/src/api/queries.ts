/** Everything that screens read from the server, as cached queries. */
import type { FigureLibrary } from '@waxwing/core/body';
import type {
  Client,
  ClientRecord,
  ClientSummary,
  MovementList,
  MovementPage,
  MovementVersion,
  OutboxMessage,
  Picture,
  PlanSummary,
  SessionSummary,
  SessionView,
  Sheet,
  StoredPlan,
  Studio,
} from '@waxwing/core/formats';
import type { Health } from '@waxwing/core/ladder';
import type { HouseRule } from '@waxwing/core/movement';
import { queryOptions } from '@tanstack/react-query';
import { call } from './http';

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

/** Figures change only with a new server: they are fetched once a visit, when the first is shown. */
export const figuresQuery = queryOptions({
  queryKey: ['figures'],
  queryFn: () => call<FigureLibrary>('GET', '/library/figures'),
  staleTime: Infinity,
  gcTime: Infinity,
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

export const movementQuery = (id: string) =>
  queryOptions({
    queryKey: ['library', 'movement', id],
    queryFn: () => call<MovementPage>('GET', `/movements/${encodeURIComponent(id)}`),
  });

export const clientsQuery = queryOptions({
  queryKey: ['clients'],
  queryFn: () => call<{ items: ClientSummary[] }>('GET', '/clients').then((answer) => answer.items),
});

export const clientQuery = (id: string) =>
  queryOptions({ queryKey: ['client', id], queryFn: () => call<Client>('GET', `/clients/${id}`) });

export const recordQuery = (clientId: string) =>
  queryOptions({
    queryKey: ['record', clientId],
    queryFn: () => call<ClientRecord>('GET', `/clients/${clientId}/record`),
  });

export const sessionsQuery = (filter: { clientId?: string; status?: 'open' | 'finished' } = {}) =>
  queryOptions({
    queryKey: ['sessions', filter],
    queryFn: () =>
      call<{ items: SessionSummary[] }>('GET', `/sessions?${new URLSearchParams(filter).toString()}`).then(
        (answer) => answer.items,
      ),
  });

export const sessionQuery = (id: string) =>
  queryOptions({ queryKey: ['session', id], queryFn: () => call<SessionView>('GET', `/sessions/${id}`) });

export const studioQuery = queryOptions({ queryKey: ['studio'], queryFn: () => call<Studio>('GET', '/studio') });

export const plansQuery = queryOptions({
  queryKey: ['plans'],
  queryFn: () => call<{ items: PlanSummary[] }>('GET', '/plans').then((answer) => answer.items),
});

export const planQuery = (id: string) =>
  queryOptions({ queryKey: ['plan', id], queryFn: () => call<StoredPlan>('GET', `/plans/${id}`) });

export const sheetQuery = (planId: string, clientId: string) =>
  queryOptions({
    queryKey: ['sheet', planId, clientId],
    queryFn: () => call<Sheet>('GET', `/plans/${planId}/sheet?clientId=${clientId}`),
    staleTime: 0,
  });

export const outboxQuery = queryOptions({
  queryKey: ['outbox'],
  queryFn: () => call<{ items: OutboxMessage[] }>('GET', '/outbox').then((answer) => answer.items),
  staleTime: 0,
});
