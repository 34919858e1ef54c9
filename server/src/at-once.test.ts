/** What happens when several things arrive at the same moment, when a server dies, and when nonsense is sent. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Client } from '@waxwing/core/client';
import type { ClientRecord } from '@waxwing/core/coaching';
import type { MovementPage } from '@waxwing/core/ladder';
import { DEMANDS, KIT_ITEMS } from '@waxwing/core/movement';
import type { Problem } from '@waxwing/core/schema';
import { fold, type SessionEvent, type SessionSummary, type SessionView } from '@waxwing/core/session';
import fc from 'fast-check';
import { v7 as uuidv7 } from 'uuid';

import { startServer, type StudioServer } from './test/studio-server.js';

let server: StudioServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.stop());

const NOBODY = '018f0000-0000-7000-8000-000000000000';

interface Answer {
  status: number;
  type: string;
  body: { detail?: string; errors?: Problem[] };
}

const addClient = async (fields: object = { name: 'Test Client' }): Promise<Client> =>
  (await server.http.post('/api/clients').send(fields).expect(201)).body as Client;

const start = async (clientIds: readonly string[], id = uuidv7()): Promise<SessionView> =>
  (await server.http.post('/api/sessions').send({ id, clientIds, startedAt: new Date().toISOString() }).expect(201))
    .body as SessionView;

const read = async (id: string): Promise<SessionView> =>
  (await server.http.get(`/api/sessions/${id}`).expect(200)).body as SessionView;

/** The taps of one device in one session: it counts for itself, as a device does that hears nothing of the other. */
function device(session: SessionView): SessionEvent[] {
  const clientId = session.clients[0]?.id ?? '';
  const tap = (counter: number, type: string, data: object): SessionEvent =>
    ({
      id: uuidv7(),
      sessionId: session.id,
      clientId,
      counter,
      at: new Date().toISOString(),
      type,
      data,
    }) as SessionEvent;
  const started = tap(1, 'movement-started', { movementId: 'goblet-squat', why: null });
  const sets = Array.from({ length: 20 }, (_, i) =>
    tap(i + 2, 'set-done', { entryId: started.id, side: 'both', amount: i, kg: 8, loadLabel: '8 kg' }),
  );
  return [started, ...sets];
}

describe('at the same moment', () => {
  test('of two edits made from one version one is saved, and the other is told', async () => {
    const { version } = (await server.http.get('/api/movements/wall-sit').expect(200)).body as MovementPage;
    const answers = await Promise.all(
      ['Out, slowly.', 'In through the nose.'].map((breath) =>
        server.http.patch('/api/movements/wall-sit').send({ version, breath }),
      ),
    );
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409]);
    const after = (await server.http.get('/api/movements/wall-sit').expect(200)).body as MovementPage;
    const winner = answers.find(({ status }) => status === 200)?.body as MovementPage;
    expect(after.version).toBe(version + 1);
    expect(after.movement.breath).toBe(winner.movement.breath);

    const client = await addClient();
    const edits = await Promise.all(
      ['one', 'two', 'three'].map((goal) => server.http.patch(`/api/clients/${client.id}`).send({ version: 1, goal })),
    );
    expect(edits.map(({ status }) => status).sort()).toEqual([200, 409, 409]);
  });

  test('a session that is started twice by one tap is one session', async () => {
    const { id: clientId } = await addClient();
    const id = uuidv7();
    const [one, two] = await Promise.all([start([clientId], id), start([clientId], id)]);
    expect(two).toEqual(one);
    const { items } = (await server.http.get(`/api/sessions?clientId=${clientId}`).expect(200)).body as {
      items: SessionSummary[];
    };
    expect(items).toHaveLength(1);
  });

  test('two devices send their taps in any order and more than once; all are kept, each once, and both see one state', async () => {
    const { id: clientId } = await addClient();
    const session = await start([clientId]);
    const taps = [...device(session), ...device(session)];
    const batches = Array.from({ length: 14 }, (_, i) => taps.filter((_tap, n) => n % 14 === i || n % 5 === i % 5));
    const answers = await Promise.all(
      batches.map((events) => server.http.post(`/api/sessions/${session.id}/events`).send({ events })),
    );
    expect(answers.map(({ status }) => status)).toEqual(batches.map(() => 200));
    const stored = answers.reduce((sum, { body }) => sum + (body as { stored: number }).stored, 0);
    expect(stored).toBe(taps.length);
    const view = await read(session.id);
    expect(new Set(view.events.map(({ id }) => id))).toEqual(new Set(taps.map(({ id }) => id)));
    expect(fold(view.events, [clientId])).toEqual(fold(taps, [clientId]));
  });

  test('a batch with one bad tap keeps none of it, while the good batch beside it is kept whole', async () => {
    const { id: clientId } = await addClient();
    const session = await start([clientId]);
    const [good, other] = [device(session), device(session)];
    const bad = [...other, { ...other[0], id: uuidv7(), type: 'somersault' }];
    const [kept, refused] = await Promise.all(
      [good, bad].map((events) => server.http.post(`/api/sessions/${session.id}/events`).send({ events })),
    );
    expect([kept?.status, refused?.status]).toEqual([200, 422]);
    expect((await read(session.id)).events).toHaveLength(good.length);
  });
});

test('what was answered for is there when the server comes back', async () => {
  const { id: clientId } = await addClient();
  const session = await start([clientId]);
  const taps = device(session);
  for (const event of taps) await server.http.post(`/api/sessions/${session.id}/events`).send({ events: [event] });
  const before = await read(session.id);
  await server.restart();
  expect(await read(session.id)).toEqual(before);
  const record = (await server.http.get(`/api/clients/${clientId}/record`).expect(200)).body as ClientRecord;
  expect(record.sets['goblet-squat']?.[0]?.sets).toHaveLength(20);
});

describe('lists of sessions', () => {
  test('come latest first, by page without gap or repeat, for one client or by state', async () => {
    const { id: clientId } = await addClient();
    const made: string[] = [];
    for (let i = 0; i < 7; i += 1) made.push((await start([clientId])).id);
    const paged: string[] = [];
    let cursor: string | null = null;
    do {
      const query: string = cursor ? `&cursor=${encodeURIComponent(cursor)}` : '';
      const { body } = await server.http.get(`/api/sessions?clientId=${clientId}&limit=3${query}`).expect(200);
      const page = body as { items: SessionSummary[]; nextCursor: string | null };
      paged.push(...page.items.map(({ id }) => id));
      cursor = page.nextCursor;
    } while (cursor);
    expect(paged.toSorted()).toEqual(made.toSorted());
    const { body } = await server.http.get(`/api/sessions?clientId=${clientId}&status=finished`).expect(200);
    expect((body as { items: unknown[] }).items).toEqual([]);
  });

  test.each([
    ['limit=0', 'limit'],
    ['limit=many', 'limit'],
    ['status=sleeping', 'status'],
    ['clientId=osei', 'clientId'],
    ['colour=red', 'colour'],
  ])('refuse %s by name', async (query, path) => {
    const answer: Answer = await server.http.get(`/api/sessions?${query}`);
    expect([answer.status, answer.body.errors?.[0]?.path]).toEqual([422, path]);
  });

  test('one to four different clients share a session', async () => {
    const ids = await Promise.all(Array.from({ length: 5 }, async () => (await addClient()).id));
    expect((await start(ids.slice(0, 4))).clients).toHaveLength(4);
    for (const clientIds of [[], ids, [ids[0], ids[0]]]) {
      const answer: Answer = await server.http
        .post('/api/sessions')
        .send({ clientIds, startedAt: new Date().toISOString() });
      expect([answer.status, answer.body.errors?.[0]?.path]).toEqual([422, 'clientIds']);
    }
  });
});

describe('whatever is sent', () => {
  const text = (most: number) => fc.string({ minLength: 1, maxLength: most }).filter((s) => s.trim() !== '');
  const client = fc.record({
    name: text(80).map((name) => name.trim()),
    about: fc.string({ maxLength: 200 }),
    goal: fc.string({ maxLength: 200 }),
    healthNote: fc.string({ maxLength: 300 }),
    touchConsentOn: fc.constantFrom(null, '2026-01-31'),
    limits: fc.array(
      fc.record({ demand: fc.constantFrom(...DEMANDS), allowed: fc.integer({ min: 0, max: 2 }), reason: text(50) }),
      { maxLength: 4 },
    ),
    kit: fc.array(
      fc.record({
        item: fc.constantFrom(...KIT_ITEMS),
        count: fc.integer({ min: 1, max: 99 }),
        kg: fc.constantFrom(null, 0.5, 11.34),
      }),
      { maxLength: 4 },
    ),
  });

  test('a client is read back exactly as entered', async () => {
    await fc.assert(
      fc.asyncProperty(client, async (fields) => {
        const made = await addClient(fields);
        const { body } = await server.http.get(`/api/clients/${made.id}`).expect(200);
        expect(body).toEqual({ ...made, ...fields });
      }),
      { numRuns: 40 },
    );
  });

  test('nonsense is answered with a problem that names a field, never with a fault of the server, and is not kept', async () => {
    const count = async () => ((await server.http.get('/api/clients')).body as { items: unknown[] }).items.length;
    const before = await count();
    const nonsense = fc.oneof(
      fc.record({ name: fc.constant(''), goal: fc.jsonValue() }),
      fc.record({ name: fc.jsonValue().filter((value) => typeof value !== 'string'), limits: fc.jsonValue() }),
      fc.record({
        name: fc.constant('A'),
        limits: fc.array(
          fc.jsonValue().filter((v) => v !== null),
          { minLength: 1, maxLength: 3 },
        ),
      }),
      fc.record({ name: fc.constant('A'), kit: fc.jsonValue().filter((value) => !Array.isArray(value)) }),
      fc.record({
        name: fc.constant('A'),
        touchConsentOn: fc.constantFrom('yesterday', '2030-1-1', '2031-05-01', 5, []),
      }),
    );
    await fc.assert(
      fc.asyncProperty(nonsense, async (fields) => {
        const answer: Answer = await server.http.post('/api/clients').send(fields);
        expect([answer.status, answer.type]).toEqual([422, 'application/problem+json']);
        expect(answer.body.errors?.length).toBeGreaterThan(0);
        for (const { path, message } of answer.body.errors ?? [])
          expect(`${path}${message}`).not.toMatch(/undefined|\[object/);
      }),
      { numRuns: 80 },
    );
    expect(await count()).toBe(before);
  });

  test.each([
    ['/api/clients/osei', 404],
    [`/api/clients/${NOBODY}`, 404],
    [`/api/clients/${NOBODY}/record`, 404],
    ['/api/sessions/today', 404],
    [`/api/sessions/${NOBODY}`, 404],
    ['/api/movements/moon-squat/versions', 404],
    ['/api/movements/moon-squat/card.md', 404],
    ['/api/movements/wall-sit/pictures/..%2Fwaxwing.sqlite', 404],
    ['/api/nothing', 404],
  ])('%s is a problem with status %i', async (path, status) => {
    const answer: Answer = await server.http.get(path);
    expect([answer.status, answer.type]).toEqual([status, 'application/problem+json']);
  });
});
