/** Who is in, who works here, from which devices, and what was done: as cached queries. */
import type { Account, AuditEntry, Device, Door, Keeps } from '@waxwing/core/door';
import { infiniteQueryOptions, queryOptions } from '@tanstack/react-query';
import { call, setToken } from './http';
import { paged } from './paged';

export const doorQuery = queryOptions({
  queryKey: ['door'],
  queryFn: async () => {
    const door = await call<Door>('GET', '/door');
    setToken(door.token);
    return door;
  },
  staleTime: Infinity,
  retry: false,
});

export const accountsQuery = queryOptions({
  queryKey: ['accounts'],
  queryFn: () => call<{ items: Account[] }>('GET', '/accounts').then(({ items }) => items),
});

export const devicesQuery = queryOptions({
  queryKey: ['devices'],
  queryFn: () => call<{ items: Device[] }>('GET', '/door/devices').then(({ items }) => items),
  staleTime: 0,
});

export const networkQuery = queryOptions({
  queryKey: ['network'],
  queryFn: () => call<{ addresses: string[]; fingerprint: string | null }>('GET', '/network'),
});

export const trainersQuery = (clientId: string) =>
  queryOptions({
    queryKey: ['trainers', clientId],
    queryFn: () =>
      call<{ accountIds: string[] }>('GET', `/clients/${clientId}/trainers`).then(({ accountIds }) => accountIds),
  });

export const keepsQuery = queryOptions({ queryKey: ['keeps'], queryFn: () => call<Keeps>('GET', '/door/keeps') });

/** Latest first. */
export const auditQuery = (filter: { clientId?: string; accountId?: string } = {}) =>
  infiniteQueryOptions({ ...paged<AuditEntry>(['audit', filter], '/audit', filter), staleTime: 0 });

/** The place of the first entry that is not as it was written; null when all are. */
export const auditWholeQuery = queryOptions({
  queryKey: ['audit-whole'],
  queryFn: () => call<{ brokenAt: number | null }>('GET', '/audit/whole').then(({ brokenAt }) => brokenAt),
  staleTime: 0,
});
