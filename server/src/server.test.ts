import { readdirSync } from 'node:fs';

import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { Validator } from '@seriousme/openapi-schema-validator';
import { type Operation, OPERATIONS } from '@waxwing/core/api';
import type { Client, Studio } from '@waxwing/core/client';
import type { ClientRecord } from '@waxwing/core/coaching';
import type { MovementPage } from '@waxwing/core/ladder';
import type { MovementList } from '@waxwing/core/movement';
import type { Plan, PlanSummary } from '@waxwing/core/planning';
import type { Problem } from '@waxwing/core/schema';
import type { ListedSession, SessionView } from '@waxwing/core/session';
import Database from 'better-sqlite3';
import { v7 as uuidv7 } from 'uuid';

import { operationName } from './description.js';
import type { Page } from './problems/cursor.js';
import type { Described } from './test/described.js';
import { LIBRARY, startServer, type StudioServer, wrongFields } from './test/studio-server.js';

const STARTER_SIZE = readdirSync(LIBRARY, { recursive: true, encoding: 'utf8' }).filter((f) =>
  f.endsWith('.yaml'),
).length;

let server: StudioServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.stop());

interface Answer {
  status: number;
  type: string;
  body: { status: number; title: string; detail?: string; errors?: Problem[] };
}

const page = async (id: string): Promise<MovementPage> =>
  (await server.http.get(`/api/movements/${id}`).expect(200)).body as MovementPage;
const newClient = async (name = 'Test Client'): Promise<Client> =>
  (await server.http.post('/api/clients').send({ name }).expect(201)).body as Client;

async function newSession(): Promise<SessionView> {
  const { id } = await newClient();
  const answer = await server.http
    .post('/api/sessions')
    .send({ clientIds: [id], startedAt: new Date().toISOString() })
    .expect(201);
  return answer.body as SessionView;
}

const note = (session: SessionView, change: object = {}) => ({
  id: uuidv7(),
  sessionId: session.id,
  clientId: session.clients[0]?.id,
  counter: 1,
  at: new Date().toISOString(),
  type: 'note-written',
  data: { text: 'fine' },
  ...change,
});

describe('a fresh place', () => {
  test('has the starter library and no clients, in a WAL database with foreign keys', async () => {
    const { body } = await server.http.get('/api/studio').expect(200);
    expect(body).toMatchObject({ clients: 0, movements: STARTER_SIZE, kit: [] });
    const db = new Database(server.database, { readonly: true });
    expect(db.pragma('journal_mode', { simple: true })).toBe('wal');
    expect(db.prepare('SELECT count(*) AS n FROM migrations').get()).toEqual({ n: 18 });
    db.close();
  });

  test('describes its API: every operation of the table, with what is sent, answered and gone wrong', async () => {
    const document = (await server.http.get('/api/docs-json').expect(200)).body as Described;
    const { valid, errors } = await new Validator().validate({ ...structuredClone(document) });
    expect([valid, errors]).toEqual([true, undefined]);
    const described = Object.entries(document.paths).flatMap(([path, item]) =>
      Object.entries(item).map(([method, operation]) => ({
        name: operationName(method, path),
        operation,
      })),
    );
    expect(described.map(({ name }) => name).sort()).toEqual(Object.keys(OPERATIONS).sort());
    for (const { name, operation } of described) {
      const { query = [], body, answer } = (OPERATIONS as Readonly<Record<string, Operation>>)[name] as Operation;
      const { parameters = [] } = operation;
      const inQuery = parameters.filter((one) => one.in === 'query').map((one) => one.name);
      const inPath = parameters.filter((one) => one.in === 'path').map((one) => one.name);
      expect([name, inQuery.sort()]).toEqual([name, [...query].sort()]);
      expect([name, inPath.sort()]).toEqual([name, [...name.matchAll(/\{(\w+)\}/g)].map(([, one]) => one).sort()]);
      expect([name, operation.requestBody !== undefined]).toEqual([name, body !== undefined]);
      const [good] = Object.entries(operation.responses).filter(([code]) => code.startsWith('2'));
      expect([name, Object.keys(good?.[1].content ?? {}).length]).toEqual([name, answer === null ? 0 : 1]);
      expect([name, operation.responses.default]).toMatchObject([
        name,
        { content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } } },
      ]);
    }
  });

  test('tells other sites and frames to keep out, and nothing of what it is made of', async () => {
    for (const path of ['/api/clients', '/api/docs']) {
      const { headers } = await server.http.get(path);
      expect(headers).toMatchObject({
        'cross-origin-resource-policy': 'same-origin',
        'cross-origin-opener-policy': 'same-origin',
        'x-frame-options': 'DENY',
        'content-security-policy': expect.stringContaining("frame-ancestors 'none'"),
        'permissions-policy': expect.stringContaining('camera=(self)'),
      });
      expect(headers['x-powered-by']).toBeUndefined();
    }
  });

  test('refuses other sites by name and by origin', async () => {
    await server.http.get('/api/clients').set('Host', 'elsewhere.example').expect(403);
    await server.http.post('/api/studio/demo').set('Origin', 'http://elsewhere.example').expect(403);
  });
});

describe('movements', () => {
  test('are listed by family and level, paged by cursor without gaps or repeats', async () => {
    const all = (await server.http.get('/api/movements').expect(200)).body as MovementList;
    const paged: string[] = [];
    let cursor: string | null = '';
    while (cursor !== null) {
      const part: MovementList = (
        await server.http.get(`/api/movements?limit=7${cursor && `&cursor=${cursor}`}`).expect(200)
      ).body as MovementList;
      paged.push(...part.items.map((item) => item.id));
      cursor = part.nextCursor;
    }
    expect(paged).toEqual(all.items.map((item) => item.id));
    const squats = all.items.filter((item) => item.families[0] === 'squat').map((item) => item.level);
    expect(squats).toEqual(squats.toSorted((a, b) => a - b));
    expect(squats[0]).toBe(0);
  });

  test.each([
    ['goblet', 'goblet-squat'],
    ['press-up', 'push-up'],
    ['gobblet squt', 'goblet-squat'],
  ])('%s finds %s', async (words, id) => {
    const { items } = (await server.http.get('/api/movements').query({ q: words }).expect(200)).body as MovementList;
    expect(items.slice(0, 3).map((item) => item.id)).toContain(id);
  });

  test('are found by a fault in other words, what most people do before what few do', async () => {
    const { items } = (await server.http.get('/api/movements').query({ q: 'heels come up' }).expect(200))
      .body as MovementList;
    const at = (id: string) => items.findIndex((item) => item.id === id);
    expect(at('supported-partial-squat')).toBeGreaterThanOrEqual(0);
    expect(at('bodyweight-squat')).toBeGreaterThanOrEqual(0);
    expect(at('bodyweight-squat')).toBeLessThan(at('supported-partial-squat'));
  });

  test('come with their neighbours read from either end of a link', async () => {
    const { easier, harder } = await page('goblet-squat');
    expect(easier.map((step) => step.name)).toEqual(['Bodyweight squat']);
    expect(harder.map((step) => step.name)).toContain('Dumbbell front squat');
  });

  test('are edited as versions; a stale edit changes nothing', async () => {
    const before = await page('wall-push-up');
    const cues = before.movement.cues.map((cue, i) => (i === 0 ? { ...cue, text: 'Two palms on the wall' } : cue));
    const saved = await server.http
      .patch('/api/movements/wall-push-up')
      .send({ version: before.version, name: 'Wall press', cues })
      .expect(200);
    expect(saved.body).toMatchObject({ version: before.version + 1, movement: { name: 'Wall press' } });
    const stale: Answer = await server.http
      .patch('/api/movements/wall-push-up')
      .send({ version: before.version, name: 'Other' });
    expect([stale.status, stale.type, wrongFields(stale)]).toEqual([409, 'application/problem+json', ['version']]);
    await server.restart();
    const after = await page('wall-push-up');
    expect(after).toMatchObject({ author: 'the trainer', movement: { name: 'Wall press' } });
    expect(after.movement.cues[0]?.text).toBe('Two palms on the wall');
  });

  test.each<[string, object, string, string?]>([
    ['an unknown field', { colour: 'red' }, 'colour'],
    ['an empty name', { name: ' ' }, 'name'],
    ['a name of 10,000 characters', { name: 'x'.repeat(10_000) }, 'name'],
    [
      'a link that closes a circle',
      { links: [{ to: 'sit-to-stand', direction: 'harder', lever: 'load' }] },
      'links',
      'goblet-squat → sit-to-stand',
    ],
    ['a link to nowhere', { links: [{ to: 'moon-squat', direction: 'harder', lever: 'load' }] }, 'links[0].to'],
    ['faults without corrections', { faults: [{ id: 'x' }] }, 'faults[0].corrections'],
  ])('refuse %s, naming the field, and stay as they were', async (_, change, path, said = '') => {
    const before = await page('goblet-squat');
    const answer: Answer = await server.http
      .patch('/api/movements/goblet-squat')
      .send({ version: before.version, ...change });
    expect(answer.status).toBe(422);
    expect(wrongFields(answer)).toContain(path);
    expect(answer.body.detail).toContain(said);
    expect(await page('goblet-squat')).toEqual(before);
  });

  test('that do not exist are a 404, and text that is not JSON is refused as such', async () => {
    const missing: Answer = await server.http.get('/api/movements/moon-squat');
    expect([missing.status, missing.type]).toEqual([404, 'application/problem+json']);
    for (const path of ['clients/nobody', 'plans/nobody/sheet', 'sessions/nobody/events']) {
      const nobody: Answer = await server.http.get(`/api/${path}`);
      expect([nobody.status, nobody.type]).toEqual([404, 'application/problem+json']);
    }
    const garbled: Answer = await server.http
      .patch('/api/movements/goblet-squat')
      .set('Content-Type', 'application/json')
      .send('{');
    expect([garbled.status, garbled.type]).toEqual([422, 'application/problem+json']);
  });
});

describe('clients', () => {
  test('keep what was entered, leave alone what was not sent, and refuse a stale edit', async () => {
    const limits = [{ demand: 'impact', allowed: 0, reason: 'knee' }];
    const client = (
      await server.http
        .post('/api/clients')
        .send({ name: ' Ada ', limits, kit: [{ item: 'bell', count: 1, kg: 11.34, label: '25 lb' }] })
        .expect(201)
    ).body as Client;
    expect(client).toMatchObject({ name: 'Ada', limits, kit: [{ label: '25 lb' }] });
    const edited = (
      await server.http.patch(`/api/clients/${client.id}`).send({ version: 1, goal: 'Climb' }).expect(200)
    ).body as Client;
    expect(edited).toMatchObject({ name: 'Ada', goal: 'Climb', limits, version: 2 });
    await server.http.patch(`/api/clients/${client.id}`).send({ version: 1, goal: 'Other' }).expect(409);
  });

  test('never show a health note in a list or a session', async () => {
    const secret = 'a private matter';
    const { id } = (await server.http.post('/api/clients').send({ name: 'Quiet', healthNote: secret }).expect(201))
      .body as Client;
    const session = await server.http
      .post('/api/sessions')
      .send({ clientIds: [id], startedAt: new Date().toISOString() })
      .expect(201);
    for (const answer of [session, await server.http.get('/api/clients'), await server.http.get('/api/sessions')])
      expect(JSON.stringify(answer.body)).not.toContain(secret);
  });

  test.each<[string, object, string]>([
    ['an unknown field', { name: 'A', shoe: 44 }, 'shoe'],
    ['no name', {}, 'name'],
    ['an empty name', { name: '  ' }, 'name'],
    ['a long name', { name: 'x'.repeat(10_000) }, 'name'],
    [
      'a limit on nothing known',
      { name: 'A', limits: [{ demand: 'flying', allowed: 1, reason: 'x' }] },
      'limits[0].demand',
    ],
    [
      'a limit without reason',
      { name: 'A', limits: [{ demand: 'impact', allowed: 1, reason: ' ' }] },
      'limits[0].reason',
    ],
    ['a stray field in kit', { name: 'A', kit: [{ item: 'bell', count: 1, hue: 'x' }] }, 'kit[0].hue'],
    ['nothing where text belongs', { name: 'A', goal: null }, 'goal'],
  ])('refuse %s by field, and none is added', async (_, body, path) => {
    const count = async () => ((await server.http.get('/api/clients')).body as { items: unknown[] }).items.length;
    const before = await count();
    const answer: Answer = await server.http.post('/api/clients').send(body);
    expect(answer.status).toBe(422);
    expect(wrongFields(answer)).toContain(path);
    expect(await count()).toBe(before);
  });
});

const MOON = { type: 'movement-started', data: { movementId: 'moon-squat', why: null } };
const NEVER = { counter: 2, type: 'effort-felt', data: { setId: uuidv7(), effort: 'easy' } };

describe('sessions', () => {
  test('store an event once, however often it comes, and survive a restart', async () => {
    const session = await newSession();
    const event = note(session);
    const send = () => server.http.post(`/api/sessions/${session.id}/events`).send({ events: [event] });
    const first = (await send().expect(200)).body as { place: number };
    expect(first).toMatchObject({ stored: 1, known: 0 });
    expect((await send().expect(200)).body).toEqual({ stored: 0, known: 1, place: first.place });
    await server.restart();
    const { events } = (await server.http.get(`/api/sessions/${session.id}`).expect(200)).body as SessionView;
    expect(events).toEqual([event]);
  });

  test('start once for one id, and only with clients of the studio and a clock that is near', async () => {
    const { id: clientId } = await newClient();
    const start = { id: uuidv7(), clientIds: [clientId], startedAt: new Date().toISOString() };
    const first = await server.http.post('/api/sessions').send(start).expect(201);
    const again = await server.http.post('/api/sessions').send(start).expect(201);
    expect(again.body).toEqual(first.body);
    const stranger: Answer = await server.http
      .post('/api/sessions')
      .send({ ...start, id: uuidv7(), clientIds: [uuidv7()] });
    expect([stranger.status, wrongFields(stranger)]).toEqual([422, ['clientIds[0]']]);
    const late: Answer = await server.http
      .post('/api/sessions')
      .send({ ...start, id: uuidv7(), startedAt: '2016-01-01T00:00:00.000Z' });
    expect([late.status, wrongFields(late)]).toEqual([422, ['startedAt']]);
  });

  test('are open until they are finished, and open again when the finish is undone', async () => {
    const session = await newSession();
    const clientId = session.clients[0]?.id ?? '';
    const open = async () =>
      ((await server.http.get(`/api/sessions?status=open&clientId=${clientId}`)).body as { items: unknown[] }).items
        .length;
    const finish = note(session, { type: 'session-finished', data: {}, counter: 2 });
    await server.http
      .post(`/api/sessions/${session.id}/events`)
      .send({ events: [note(session), finish] })
      .expect(200);
    expect(await open()).toBe(0);
    const undo = note(session, { type: 'undone', data: { eventId: finish.id }, counter: 3 });
    await server.http
      .post(`/api/sessions/${session.id}/events`)
      .send({ events: [undo] })
      .expect(200);
    expect(await open()).toBe(1);
  });

  test.each<[string, object, string]>([
    ['of another session', { sessionId: uuidv7() }, 'events[1].sessionId'],
    ['of an unknown type', { type: 'somersault' }, 'events[1].type'],
    ['of a year that nobody lives in', { at: '9999-01-01T00:00:00.000Z' }, 'events[1].at'],
    ['of a movement that is not in the library', MOON, 'events[1].data.movementId'],
    ['about an event that never was', NEVER, 'events[1].data.setId'],
    ['with an unknown field', { shoe: 1 }, 'events[1].shoe'],
  ])('refuse an event %s and the whole batch with it', async (_, change, path) => {
    const session = await newSession();
    const answer: Answer = await server.http
      .post(`/api/sessions/${session.id}/events`)
      .send({ events: [note(session), note(session, change)] });
    expect(answer.status).toBe(422);
    expect(wrongFields(answer)).toEqual([path]);
    expect(((await server.http.get(`/api/sessions/${session.id}`)).body as SessionView).events).toEqual([]);
  });

  test('never overwrite an event', async () => {
    const session = await newSession();
    const event = note(session);
    await server.http
      .post(`/api/sessions/${session.id}/events`)
      .send({ events: [event] })
      .expect(200);
    const changed = { ...event, data: { text: 'other' } };
    const answer: Answer = await server.http.post(`/api/sessions/${session.id}/events`).send({ events: [changed] });
    expect([answer.status, wrongFields(answer)]).toEqual([409, ['events[0].id']]);
    expect(((await server.http.get(`/api/sessions/${session.id}`)).body as SessionView).events).toEqual([event]);
  });
});

test('the studio keeps its name and kit by version', async () => {
  const { body } = await server.http.get('/api/studio').expect(200);
  const { version } = body as { version: number };
  const change = { version, name: 'Loft', trainer: 'M', kit: [{ item: 'dumbbell', count: 2, kg: 8 }] };
  const saved = await server.http.patch('/api/studio').send(change).expect(200);
  expect(saved.body).toMatchObject({ version: version + 1, name: 'Loft', kit: change.kit });
  await server.http.patch('/api/studio').send(change).expect(409);
});

test('who shows the movements is chosen for the studio and for a client, and nobody is a mix', async () => {
  const { body } = await server.http.get('/api/studio').expect(200);
  const { version, looks } = body as Studio;
  expect(looks).toBeNull();
  const change = { version, name: 'Loft', trainer: 'M', kit: [] };
  const wrong: Answer = await server.http.patch('/api/studio').send({ ...change, looks: 'tall' });
  expect([wrong.status, wrongFields(wrong)]).toEqual([422, ['looks']]);
  const saved = await server.http
    .patch('/api/studio')
    .send({ ...change, looks: 'narrow-deep' })
    .expect(200);
  expect((saved.body as Studio).looks).toBe('narrow-deep');
  const made = await server.http.post('/api/clients').send({ name: 'Runa', looks: 'broad-fair' }).expect(201);
  expect((made.body as Client).looks).toBe('broad-fair');
});

describe('the demo studio', () => {
  let demo: StudioServer;
  beforeAll(async () => {
    demo = await startServer();
    await demo.http.post('/api/studio/demo').expect(201);
  });
  afterAll(() => demo.stop());

  test('is not loaded twice, nor over clients', async () => {
    await demo.http.post('/api/studio/demo').expect(409);
  });

  test('has seven clients with six weeks of sessions that teach something', async () => {
    const { items } = (await demo.http.get('/api/clients').expect(200)).body as { items: Client[] };
    expect(items).toHaveLength(7);
    const sessions = (await demo.http.get('/api/sessions?limit=200')).body as {
      items: { startedAt: string; finishedAt: string; clients: unknown[] }[];
    };
    const days = sessions.items.map((session) => (Date.now() - Date.parse(session.startedAt)) / 86_400_000);
    expect(Math.max(...days)).toBeGreaterThan(34);
    expect(Math.max(...days)).toBeLessThan(44);
    expect(Math.min(...days)).toBeGreaterThan(0);
    expect(sessions.items.every((session) => session.finishedAt > session.startedAt)).toBe(true);
    expect(sessions.items.some((session) => session.clients.length === 2)).toBe(true);

    const osei = items.find((client) => client.name === 'Osei Brandt');
    const read = async () => (await demo.http.get(`/api/clients/${osei?.id}/record`).expect(200)).body as ClientRecord;
    let record = await read();
    // What the others' sessions teach is gathered beside the work.
    while (Object.keys(record.others).length < 4) record = await read();
    expect(record.sets['goblet-squat']?.length).toBe(12);
    const held = (await demo.http.get(`/api/sessions?clientId=${osei?.id}&limit=200`)).body as Page<ListedSession>;
    expect(held.items.filter(({ movements }) => movements.includes('goblet-squat'))).toHaveLength(12);
    // Other people's outcomes are counted, without a word of whose they were.
    for (const other of items) if (other.id !== osei?.id) expect(JSON.stringify(record)).not.toContain(other.id);
    const outward = record.trials.filter((trial) => trial.focus === 'outward');
    expect(
      outward.filter((trial) => trial.outcome === 'fixed' || trial.outcome === 'better').length / outward.length,
    ).toBeGreaterThan(0.6);
  });

  test('has plans for the coming days, one of them for today, each with something to do', async () => {
    const { items } = (await demo.http.get('/api/plans').expect(200)).body as { items: PlanSummary[] };
    expect(items.length).toBeGreaterThan(2);
    const days = items.map(({ startsAt }) => Math.floor(Date.parse(startsAt ?? '') / 86_400_000));
    const today = Math.floor(Date.now() / 86_400_000);
    expect(Math.max(...days) - today).toBeLessThan(7);
    expect(Math.min(...days)).toBe(today);
    for (const { id } of items) {
      const { blocks } = (await demo.http.get(`/api/plans/${id}`).expect(200)).body as Plan;
      expect(blocks.map(({ kind }) => kind)).toEqual(['warm-up', 'strength', 'trunk', 'stretch']);
    }
  });
});
