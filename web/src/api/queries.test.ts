import { afterEach, expect, test } from '@jest/globals';
import { QueryClient } from '@tanstack/react-query';
import type { MovementPage } from '@waxwing/core/ladder';
import type { SessionView } from '@waxwing/core/session';

import { today } from '../words/dates';
import { movementQuery, sessionQuery } from './queries';

const real = globalThis.fetch;
afterEach(() => {
  globalThis.fetch = real;
});

/** A server of which only the answers are known; the addresses that were asked for, in order. */
function serving(answer: (path: string) => object | undefined): string[] {
  const asked: string[] = [];
  globalThis.fetch = ((path: string) => {
    asked.push(decodeURIComponent(path));
    const body = answer(decodeURIComponent(path));
    return Promise.resolve(body ? Response.json(body) : Response.json({ detail: 'It is not here.' }, { status: 404 }));
  }) as typeof fetch;
  return asked;
}

const page = (id: string) => ({ movement: { id } }) as MovementPage;

test('movements asked for in one breath are one request, and what is not there says so alone', async () => {
  const asked = serving((path) =>
    path === '/api/library/pages?ids=squat,gone,row'
      ? { items: [page('row'), page('squat')] }
      : path === '/api/movements/row'
        ? page('row')
        : undefined,
  );
  const cache = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  const [squat, gone, row] = await Promise.allSettled(
    ['squat', 'gone', 'row'].map((id) => cache.fetchQuery(movementQuery(id))),
  );
  expect(squat).toMatchObject({ value: page('squat') });
  expect(row).toMatchObject({ value: page('row') });
  expect(gone).toMatchObject({ reason: { status: 404, message: 'It is not here.' } });
  expect(asked).toEqual(['/api/library/pages?ids=squat,gone,row', '/api/movements/gone']);
  cache.clear();
  expect(await cache.fetchQuery(movementQuery('row'))).toEqual(page('row'));
  expect(asked.at(-1)).toBe('/api/movements/row');
});

test('a session comes in all its pieces, and what is known of its people is asked for beside them', async () => {
  const event = (id: string) => ({ id });
  const asked = serving((path) => {
    if (path === '/api/sessions/s')
      return { id: 's', clients: [{ id: 'ada' }], events: [event('a')], place: 1, last: 3 };
    if (path.startsWith('/api/sessions/s/events?after='))
      return { events: [event(path.slice(-1))], place: Number(path.slice(-1)) + 1, last: 3 };
    return {};
  });
  const cache = new QueryClient();
  const session = (await cache.fetchQuery(sessionQuery('s'))) as SessionView;
  expect(session).toMatchObject({ events: [event('a'), event('1'), event('2')], place: 3, last: 3 });
  // The next piece first: everything else is waited for less.
  expect(asked.slice(0, 4)).toEqual([
    '/api/sessions/s',
    '/api/sessions/s/events?after=1',
    `/api/clients/ada/on/${today()}`,
    '/api/clients/ada/record',
  ]);
});
