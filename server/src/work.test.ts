/**
 * Work that is counted, where time would depend on the machine: how many statements an answer takes, and how many bytes it has. What grows with
 * the studio where it should not is seen here; how long it takes is measured by `npm run bench`.
 */
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { DataSource } from 'typeorm';

import { bytes } from './test/bytes.js';
import { planFor } from './test/plans.js';
import { startServer, type StudioServer } from './test/studio-server.js';

let server: StudioServer;
let statements = 0;
beforeAll(async () => {
  server = await startServer();
  // Every statement that reads passes here.
  const runner = server.app.get(DataSource).createQueryRunner();
  const query = runner.query.bind(runner) as (...asked: unknown[]) => Promise<unknown>;
  runner.query = ((...asked: unknown[]) => {
    statements += 1;
    return query(...asked);
  }) as typeof runner.query;
});
afterAll(() => server.stop());

/** Somebody who has a plan, and a session that began with it. */
async function grow(name: string): Promise<string> {
  const client = await server.client(name);
  const today = new Date().toISOString();
  const plan = await server.keep(planFor([client.id], ['goblet-squat'], { startsAt: today }));
  await server.http
    .post('/api/sessions')
    .send({ clientIds: [client.id], planId: plan.id, startedAt: today })
    .expect(201);
  return client.id;
}

/** The least of three: what the server looks at now and then by itself may fall into one of them. */
async function workOf(path: string): Promise<number> {
  const counts = await inTurn([1, 2, 3], async () => {
    statements = 0;
    await server.http.get(path).expect(200);
    return statements;
  });
  return Math.min(...counts);
}

test('a list takes as many statements for many as for few', async () => {
  const first = await grow('Ada');
  const from = new Date(Date.now() - 86_400_000).toISOString();
  const lists = [
    '/clients',
    '/sessions',
    `/plans?from=${from}`,
    `/sessions?clientId=${first}`,
    '/movements',
    '/outbox',
  ];
  const measure = async () =>
    Object.fromEntries(await inTurn(lists, async (path) => [path, await workOf(`/api${path}`)] as const));
  // Once for what is read once and kept.
  await measure();
  const few = await measure();
  for (let i = 0; i < 12; i += 1) await grow(`Client ${i}`);
  expect(await measure()).toEqual(few);
  expect(few['/clients']).toBeGreaterThan(0);
  for (const count of Object.values(few)) expect(count).toBeLessThan(20);
});

test('an answer has no more bytes than somebody needs to read it', async () => {
  const size = async (path: string) =>
    ((await server.http.get(path).buffer(true).parse(bytes).expect(200)).body as Buffer).length;
  const { total } = (await server.http.get('/api/movements?limit=1')).body as { total: number };
  expect((await size('/api/movements')) / total).toBeLessThan(1_600);
  expect((await size('/api/library/texts')) / total).toBeLessThan(3_000);
  expect(await size('/api/movements/goblet-squat')).toBeLessThan(14_000);
  expect(await size('/api/library/stills/goblet-squat/small.webp')).toBeLessThan(4_000);
});

/** One after the other, so that what is counted is of one. */
async function inTurn<A, B>(all: readonly A[], work: (one: A) => Promise<B>): Promise<B[]> {
  const done: B[] = [];
  for (const one of all) done.push(await work(one));
  return done;
}
