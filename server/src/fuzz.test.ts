/**
 * Nonsense at every route that the API describes: each answer is a problem that names what is wrong, in time, and nothing is changed.
 * The cases come from a seed, so that one that fails can be tried again.
 */
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import Database from 'better-sqlite3';
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { v7 as uuidv7 } from 'uuid';

import type { Described, DescribedOperation } from './test/described.js';
import { planFor } from './test/plans.js';
import { startServer, type StudioServer } from './test/studio-server.js';

const SEED = 4310;
const CASES = 460;
/** A request that takes longer hangs; how fast answers are is measured by the bench. */
const HANGS_MS = 20_000;

let server: StudioServer;
let address: string;
const ids: Record<string, string> = {};

beforeAll(async () => {
  server = await startServer();
  const { port } = server.app.getHttpServer().address() as { port: number };
  address = `http://127.0.0.1:${port}`;
  const client = (await server.http.post('/api/clients').send({ name: 'Ada', healthNote: 'private' }).expect(201))
    .body as { id: string };
  const plan = (
    await server.http
      .post('/api/plans')
      .send({ plan: planFor([client.id]) })
      .expect(201)
  ).body as { id: string };
  const startedAt = new Date().toISOString();
  const session = (
    await server.http
      .post('/api/sessions')
      .send({ clientIds: [client.id], startedAt })
      .expect(201)
  ).body as { id: string };
  Object.assign(ids, { client: client.id, plan: plan.id, session: session.id });
});
afterAll(() => server.stop());

/** The contents of every table but the counter of writes and what follows from the rest. */
function contents(): string {
  const db = new Database(server.database, { readonly: true });
  try {
    const tables = db
      .prepare(
        `SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT IN ('meta', 'digests', 'outcomes', 'sqlite_sequence')`,
      )
      .all() as { name: string }[];
    return JSON.stringify(tables.map(({ name }) => [name, db.prepare(`SELECT * FROM ${name}`).all()]));
  } finally {
    db.close();
  }
}

const random = xoroshiro128plus(SEED);
const roll = (most: number): number => uniformInt(random, 0, most - 1);
const pick = <T>(all: readonly T[]): T => all[roll(all.length)] as T;

/** What no field of any document takes. */
const NONSENSE: readonly (() => unknown)[] = [
  () => null,
  () => -1,
  () => 1e308,
  () => 0.5,
  () => true,
  () => '',
  () => ' \u200b\u2060',
  () => 'a\u0000b\u0007',
  () => 'x'.repeat(100_000),
  () => '9999-99-99',
  () => '2026-02-30',
  () => '2026-02-30T10:00:00.000Z',
  () => '99999-01-01T00:00:00.000Z',
  () => [],
  () => [[]],
  () => ({}),
  () => ({ a: { b: { c: [] } } }),
  () => uuidv7(),
  () => '../../etc/passwd',
  () => "'; DROP TABLE clients; --",
  () => '=1+1',
  () => Array.from({ length: 600 }, () => 'x'),
];

/** Bodies that are wrong as text, whatever they are sent to. */
const BROKEN: readonly (() => string)[] = [
  () => '',
  () => '{',
  () => 'nonsense',
  () => '"text"',
  () => '[1, 2',
  () => '['.repeat(3_000) + ']'.repeat(3_000),
  () => '{"a":'.repeat(10_000) + '1' + '}'.repeat(10_000),
  () => '{"name":"A","name":"B"}',
  () => '{"__proto__":{"admin":true},"name":"A"}',
  () => '\ufeff{}',
  () => '{"name":"\\ud800"}x',
];

/** A lawful body for the routes that write, to be spoilt in one field. */
function lawful(path: string, method: string): Record<string, unknown> | null {
  const event = {
    id: uuidv7(),
    sessionId: ids.session,
    clientId: ids.client,
    counter: 1,
    at: new Date().toISOString(),
    type: 'note-written',
    data: { text: 'fine' },
  };
  switch (`${method} ${path}`) {
    case 'post /api/clients':
      return {
        name: 'Bo',
        limits: [{ demand: 'impact', allowed: 1, reason: 'knee' }],
        kit: [{ item: 'bell', count: 1, kg: 8 }],
      };
    case 'patch /api/clients/{id}':
      return { version: 1, goal: 'to lift', touchConsentOn: '2026-01-01' };
    case 'post /api/plans':
      return { plan: planFor([ids.client ?? '']) };
    case 'patch /api/plans/{id}':
      return { version: 1, plan: planFor([ids.client ?? '']) };
    case 'post /api/sessions':
      return { clientIds: [ids.client], startedAt: new Date().toISOString() };
    case 'post /api/sessions/{id}/events':
      return { events: [event] };
    case 'post /api/sessions/{id}/events/missing':
    case 'post /api/erased':
      return { ids: [uuidv7()] };
    case 'patch /api/studio':
      return { version: 1, name: 'Loft', trainer: 'M', kit: [] };
    case 'patch /api/movements/{id}':
      return { version: 1, breath: 'Slow.' };
    case 'post /api/movements/{id}/archive':
      return { version: 1, archived: true };
    case 'post /api/plans/{id}/send':
      return { clientId: ids.client, to: 'a@example.org' };
    case 'delete /api/clients/{id}':
      return { name: 'Ada' };
    default:
      return null;
  }
}

type Path = (string | number)[];

/** Every place in a document. */
const places = (value: unknown, at: Path = []): Path[] =>
  typeof value === 'object' && value !== null
    ? Object.entries(value).flatMap(([key, inner]) => {
        const path = [...at, Array.isArray(value) ? Number(key) : key];
        return [path, ...places(inner, path)];
      })
    : [];

function put(document: object, path: Path, value: unknown): void {
  const [last] = path.slice(-1);
  const holder = path
    .slice(0, -1)
    .reduce<Record<string, unknown>>(
      (at, key) => at[key] as Record<string, unknown>,
      document as Record<string, unknown>,
    );
  if (last !== undefined) holder[last] = value;
}

const KNOWN_IDS: Record<string, () => string> = {
  '/api/clients': () => ids.client ?? '',
  '/api/plans': () => ids.plan ?? '',
  '/api/sessions': () => ids.session ?? '',
  '/api/movements': () => 'wall-sit',
};

/** An address of a route: sometimes of something that is there, sometimes of something that cannot be. */
function addressOf(path: string, real: boolean): string {
  return path.replace(/\{(\w+)\}/g, () => {
    const known = Object.entries(KNOWN_IDS).find(([start]) => path.startsWith(start))?.[1]();
    if (real && known) return known;
    return encodeURIComponent(pick([uuidv7(), 'nobody', '%00', '..', 'a'.repeat(400), '-1', "' OR 1=1", '\u200b']));
  });
}

interface Case {
  told: string;
  method: string;
  url: string;
  headers: Record<string, string>;
  body: string | undefined;
  /** Whether the answer may be a success: a field that was spoilt in a way that is lawful after all. */
  mayPass: boolean;
}

function caseOf(routes: readonly { path: string; method: string; operation: DescribedOperation }[]): Case {
  const { path, method, operation } = pick(routes);
  const json = { 'Content-Type': 'application/json' };
  const kind = roll(6);
  const body = lawful(path, method);
  const told = `${method} ${path}`;
  if (kind === 0)
    return {
      told: `${told}, an unknown place`,
      method,
      url: addressOf(path, false),
      headers: json,
      body: body ? JSON.stringify(body) : undefined,
      mayPass: !path.includes('{'),
    };
  if (kind === 1) {
    const query = operation.parameters?.filter((one) => one.in === 'query') ?? [];
    const name = query.length > 0 ? pick(query).name : 'colour';
    const value = encodeURIComponent(String(pick([-1, 'many', '\u0000', 'x'.repeat(300), '{}', 'null', uuidv7()])));
    return {
      told: `${told}, ?${name}=${value.slice(0, 20)}`,
      method,
      url: `${addressOf(path, true)}?${name}=${value}`,
      headers: json,
      body: undefined,
      mayPass: method === 'get' || body === null,
    };
  }
  if (kind === 2) {
    const wrong = pick(['put', 'patch', 'delete', 'post', 'options'].filter((other) => other !== method));
    const taken = routes.some((one) => one.path === path && one.method === wrong);
    return {
      told: `${told}, as ${wrong}`,
      method: taken ? 'put' : wrong,
      url: addressOf(path, true),
      headers: json,
      body: '{}',
      mayPass: false,
    };
  }
  if (kind === 3) {
    const type = pick([
      'text/plain',
      'application/xml',
      'multipart/form-data; boundary=x',
      'application/json; charset=nonsense',
    ]);
    return {
      told: `${told}, sent as ${type}`,
      method,
      url: addressOf(path, true),
      headers: { 'Content-Type': type },
      body: method === 'get' ? undefined : JSON.stringify(body ?? {}),
      mayPass: method === 'get' || body === null,
    };
  }
  if (kind === 4 || !body) {
    const text = pick(BROKEN)();
    const bare = method === 'get' || (!body && !operation.requestBody);
    return {
      told: `${told}, ${text.slice(0, 20)} (${text.length})`,
      method,
      url: addressOf(path, true),
      headers: json,
      body: bare ? undefined : text,
      mayPass: bare,
    };
  }
  const spoilt = structuredClone(body);
  const at = pick(places(spoilt));
  if (roll(5) === 0) {
    put(spoilt, [...at.slice(0, -1), 'shoe'], 42);
    // A list has no names.
    if (typeof at.at(-1) === 'number') return caseOf(routes);
  } else put(spoilt, at, pick(NONSENSE)());
  return {
    told: `${told}, ${at.join('.')} = ${JSON.stringify(spoilt).slice(0, 80)}`,
    method,
    url: addressOf(path, true),
    headers: json,
    body: JSON.stringify(spoilt),
    mayPass: true,
  };
}

test('nonsense of any kind is a problem of its own, never a silence, and changes nothing', async () => {
  const { paths } = (await server.http.get('/api/docs-json').expect(200)).body as Described;
  const routes = Object.entries(paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, operation]) => ({ path, method, operation })),
  );
  expect(routes.length).toBeGreaterThan(40);
  let before = contents();
  for (let n = 0; n < CASES; n += 1) {
    const one = caseOf(routes);
    // What would really delete or fill the place is tried elsewhere.
    if (one.told.startsWith('post /api/studio/demo')) continue;
    const answer = await fetch(`${address}${one.url}`, {
      method: one.method.toUpperCase(),
      headers: one.headers,
      signal: AbortSignal.timeout(HANGS_MS),
      ...(one.body === undefined || one.method === 'get' ? {} : { body: one.body }),
    });
    const text = await answer.text();
    const where = `${n}: ${one.told}`;
    expect([where, answer.status < 500]).toEqual([where, true]);
    if (answer.status < 400) {
      expect([where, answer.status, one.mayPass]).toEqual([where, answer.status, true]);
      before = contents();
      continue;
    }
    expect([where, answer.headers.get('content-type')]).toEqual([
      where,
      expect.stringContaining('application/problem+json'),
    ]);
    const problem = JSON.parse(text) as {
      title: string;
      detail?: string;
      errors?: { path: string; message: string }[];
    };
    expect([where, text]).toEqual([
      where,
      expect.not.stringMatching(/private|undefined|\[object|Too small|Invalid input|at Object\./),
    ]);
    if (answer.status === 422) expect([where, problem.errors?.every(({ path }) => path !== '')]).toEqual([where, true]);
    expect([where, contents() === before]).toEqual([where, true]);
  }
}, 180_000);

test('files that are not what they say, and dates of consent that no calendar has', async () => {
  const send = async (path: string, body: string | Uint8Array<ArrayBuffer>) => {
    const answer = await fetch(`${address}/api${path}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/octet-stream' },
      body,
    });
    return [answer.status, ((await answer.json()) as { errors?: { path: string }[] }).errors?.[0]?.path];
  };
  const before = contents();
  const deep = `{"format":"waxwing-library","version":1,"movements":${'['.repeat(10_000)}${']'.repeat(10_000)}}`;
  expect(await send('/movements/wall-sit/pictures', '<svg onload="alert(1)"/>')).toEqual([422, 'file']);
  expect(await send('/movements/moon-squat/pictures', new Uint8Array([0x89]))).toEqual([404, undefined]);
  expect(await send('/imports?kind=pack', deep)).toEqual([422, 'body']);
  expect((await send('/imports?kind=pack', new Uint8Array([0xff, 0xfe, 0x00])))[0]).toBe(422);
  expect((await send('/imports?kind=csv', 'no,such,columns\n1,2,3'))[0]).toBe(422);
  expect(await send('/clients/file', deep)).toEqual([422, 'body']);
  expect(await send('/clients/file', '{"format":"waxwing-client","format":"x"}')).toEqual([422, 'format']);
  for (const day of ['2026-13-45', '2026-02-30', '0000-01-01', '9999-12-31', 'tomorrow']) {
    const answer = await server.http.patch(`/api/clients/${ids.client}`).send({ version: 1, touchConsentOn: day });
    expect([day, answer.status]).toEqual([day, 422]);
  }
  for (const name of ['\u200b', '\u0000', 'A\u0000', '\u2060\ufeff', ' \u00a0 ']) {
    const answer = await server.http.post('/api/clients').send({ name });
    expect([JSON.stringify(name), answer.status]).toEqual([JSON.stringify(name), 422]);
  }
  const stranger = await fetch(`${address}/`, { method: 'POST' });
  expect([stranger.status, stranger.headers.get('content-type')]).toEqual([
    404,
    expect.stringContaining('problem+json'),
  ]);
  expect(contents()).toBe(before);
});
