/** Who is in, who works here, from which devices, and what was done: as cached queries. */
import { infiniteQueryOptions, queryOptions } from '@tanstack/react-query';

import { call, setToken } from './http';
import { doorKeys } from './keys';
import { paged } from './paged';

export const doorQuery = queryOptions({
  queryKey: ['door'],
  queryFn: async () => {
    const door = await call('GET /door');
    setToken(door.token);
    return door;
  },
  staleTime: Infinity,
  retry: false,
});

export const accountsQuery = queryOptions({
  queryKey: ['accounts'],
  queryFn: () => call('GET /accounts').then(({ items }) => items),
});

export const devicesQuery = queryOptions({
  queryKey: ['devices'],
  queryFn: () => call('GET /door/devices').then(({ items }) => items),
  staleTime: 0,
});

/** What devices that were shut out had not sent. */
export const leftQuery = queryOptions({
  queryKey: ['left'],
  queryFn: () => call('GET /left').then(({ items }) => items),
  staleTime: 0,
});

export const networkQuery = queryOptions({
  queryKey: ['network'],
  queryFn: () => call('GET /network'),
});

export const trainersQuery = (clientId: string) =>
  queryOptions({
    queryKey: ['trainers', clientId],
    queryFn: () => call('GET /clients/{id}/trainers', { id: clientId }).then(({ accountIds }) => accountIds),
  });

export const keepsQuery = queryOptions({ queryKey: ['keeps'], queryFn: () => call('GET /door/keeps') });

/** Latest first. */
export const auditQuery = (filter: { clientId?: string; accountId?: string } = {}) =>
  infiniteQueryOptions({
    ...paged(doorKeys.audit(filter), (after) => call('GET /audit', { query: { ...filter, ...after } })),
    staleTime: 0,
  });

/** The place of the first entry that is not as it was written; null when all are. */
export const auditWholeQuery = queryOptions({
  queryKey: ['audit-whole'],
  queryFn: () => call('GET /audit/whole').then(({ brokenAt }) => brokenAt),
  staleTime: 0,
});
