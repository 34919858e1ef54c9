import 'fake-indexeddb/auto';

import { expect, test } from '@jest/globals';
import { QueryClient } from '@tanstack/react-query';
import { BLANK_CLIENT, type Client, clientOnDay } from '@waxwing/core/client';

import { clientOnDayQuery, clientQuery, sessionQuery, sessionsQuery } from '../api/queries';
import { dropPacks, packedIds, packUp, throwAway, unpack } from './pack';

const CLIENT: Client = {
  ...BLANK_CLIENT,
  id: 'ada',
  version: 1,
  name: 'Ada',
  healthNote: 'had a stroke',
  note: 'pays late',
  email: 'ada@example.org',
  readiness: { on: '2030-01-01', yes: ['heart'], clearedOn: null, clearedBy: 'nobody' },
  limits: [{ demand: 'impact', allowed: 0, reason: 'a weak heart' }],
};
const DAY = '2030-01-02';

/** A page with what the floor has read. */
function page(): QueryClient {
  const queries = new QueryClient();
  queries.setQueryData(clientQuery('ada').queryKey, CLIENT);
  queries.setQueryData(clientOnDayQuery('ada', DAY).queryKey, clientOnDay(CLIENT, DAY));
  queries.setQueryData(['session', 's'], { id: 's' });
  queries.setQueryData(sessionsQuery().queryKey, { pages: [], pageParams: [] });
  return queries;
}

/** Everything that the device keeps of sessions, as text; bytes as letters. */
async function kept(): Promise<string> {
  const all = await new Promise<unknown[]>((resolve) => {
    const asked = indexedDB.open('waxwing-pack');
    asked.onsuccess = () => {
      const store = asked.result.transaction('packs').objectStore('packs').getAll();
      store.onsuccess = () => resolve(store.result as unknown[]);
    };
  });
  return JSON.stringify(all, (_, value: unknown) =>
    value instanceof ArrayBuffer ? Buffer.from(value).toString('latin1') : value,
  );
}

test('a session comes back without a server, its clients with nothing that is private, and leaves nothing when it is over', async () => {
  expect(await packUp('s', page())).toBe(true);
  expect(await packedIds()).toEqual(['s', 'ada']);
  // Neither what is private nor anything else of a person can be read in what lies on the device.
  for (const private_ of ['Ada', 'impact', 'stroke', 'pays late', 'example.org', 'heart', 'nobody'])
    expect(await kept()).not.toContain(private_);
  const anew = new QueryClient();
  expect(await unpack('s', anew)).toBe(true);
  expect(anew.getQueryData(clientQuery('ada').queryKey)).toBeUndefined();
  expect(anew.getQueryData(clientOnDayQuery('ada', DAY).queryKey)).toMatchObject({
    limits: [{ demand: 'impact', allowed: 0, reason: 'a recorded limit' }],
    ease: { code: 'some' },
  });
  expect(anew.getQueryData(sessionQuery('s').queryKey)).toEqual({ id: 's' });
  expect(anew.getQueryData(sessionsQuery().queryKey)).toBeUndefined();
  expect(await unpack('another', anew)).toBe(false);
  await throwAway('s');
  expect(await packedIds()).toEqual([]);
  expect(await unpack('s', new QueryClient())).toBe(false);
});

test('what was read once is packed even when reading it again has failed', async () => {
  const queries = page();
  await queries
    .fetchQuery({ queryKey: ['session', 's'], retry: false, queryFn: () => Promise.reject(new Error('away')) })
    .catch(() => undefined);
  await packUp('s', queries);
  const anew = new QueryClient();
  await unpack('s', anew);
  expect(anew.getQueryState(['session', 's'])).toMatchObject({ status: 'success', data: { id: 's' } });
});

test('whoever was deleted for good goes from every pack', async () => {
  await packUp('s', page());
  expect((await packedIds()).sort()).toEqual(['ada', 's']);
  await dropPacks(new Set(['ada']));
  expect(await packedIds()).toEqual([]);
});
