/** The door: who comes in, what each may see, and what a stranger may not; over real HTTPS, as another device has it. */
import { randomBytes } from 'node:crypto';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { type AddressInfo, connect as plainConnect } from 'node:net';
import { connect } from 'node:tls';

import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { DocumentBuilder, SwaggerModule } from '@nestjs/swagger';
import type { Client } from '@waxwing/core/client';
import type { AuditEntry, Device as KnownDevice, Left, Pairing } from '@waxwing/core/door';
import Database from 'better-sqlite3';
import { v7 as uuidv7 } from 'uuid';

import { WriteGate } from './database/write-gate.js';
import { AuditService, letGo } from './door/audit.service.js';
import { type Link, textOf } from './door/audit-chain.js';
import { Sealer } from './sealed/sealer.js';
import { Device, PASSPHRASE } from './test/devices.js';
import { lane, planFor } from './test/plans.js';
import { ROUTES } from './test/routes.js';
import { startServer, type StudioServer, wrongFields } from './test/studio-server.js';

const DAY = '2026-11-27';
/** What nobody may read who is not to. */
const SECRETS = {
  healthNote: 'takes anticoagulants since May',
  note: 'is in the middle of a divorce',
  reason: 'meniscus torn in spring',
  about: 'retired boatbuilder with a bad knee',
  planNote: 'waits for what the scan says',
  lineWhy: 'since the fall on the slipway',
  changedWhy: 'because the old hip ached',
  addedWhy: 'after the fainting of last week',
  despite: 'although the surgeon said no',
  sessionNote: 'cried after the first set',
} as const;
/** A condition is a reason, too. */
const CONDITION = 'pregnancy-last-third';

let server: StudioServer;
/** Each signed in over the network. */
const devices = {} as Record<'owner' | 'ada' | 'ben' | 'helper' | 'nobody', Device>;
const accounts: Record<string, string> = {};
const ids = {} as Record<'client' | 'session' | 'plan' | 'message', string>;
let recovery: string;

beforeAll(async () => {
  server = await startServer({ network: true });
  const begun = await server.http
    .post('/api/door/begin')
    .send({ name: 'Maren', passphrase: PASSPHRASE, open: false })
    .expect(200);
  recovery = (begun.body as { code: string }).code;
  for (const name of ['owner', 'ada', 'ben', 'helper', 'nobody'] as const) devices[name] = new Device(server.network);
  await devices.owner.signIn('Maren');
  for (const [name, role] of [
    ['ada', 'trainer'],
    ['ben', 'trainer'],
    ['helper', 'assistant'],
  ] as const) {
    const { body } = await devices.owner.ask('POST', '/api/accounts', { name, role });
    const made = body as { account: { id: string }; code: string };
    accounts[name] = made.account.id;
    await devices[name].begin(name, made.code);
  }
  const client = await devices.ada.ask('POST', '/api/clients', {
    name: 'Joaquim',
    about: SECRETS.about,
    healthNote: SECRETS.healthNote,
    note: SECRETS.note,
    email: 'joaquim@harbour.example',
    limits: [
      { demand: 'deep-knee-bend', allowed: 1, reason: SECRETS.reason },
      { demand: 'ruled-out', allowed: 0, reason: SECRETS.reason, condition: CONDITION },
    ],
  });
  if (client.status !== 201) throw new Error(JSON.stringify(client.body));
  ids.client = (client.body as Client).id;
  await devices.ada.ask('POST', `/api/clients/${ids.client}/trainers`, { accountIds: [accounts.ada, accounts.helper] });
  const written = (words: string) => [{ code: 'written', words }];
  const [block] = planFor([ids.client]).blocks;
  const items = block?.items.map((item) => ({
    ...item,
    lanes: item.lanes.map((one) => ({ ...one, why: written(SECRETS.lineWhy) })),
  }));
  const plan = { ...planFor([ids.client]), note: SECRETS.planNote, blocks: [{ ...block, items }] };
  ids.plan = ((await devices.ada.ask('POST', '/api/plans', { plan })).body as { id: string }).id;
  ids.session = await sessionOn(new Date().toISOString(), { planId: ids.plan });
  const entryId = uuidv7();
  const added = { ...lane(ids.client, 'push-up'), why: written(SECRETS.addedWhy) };
  const numbers = { amount: 8, kg: null, loadLabel: null };
  await happened(
    ['movement-started', { movementId: 'goblet-squat', why: SECRETS.changedWhy }, entryId],
    ['set-done', { entryId, side: 'both', ...numbers, despite: SECRETS.despite }],
    ['pain-reported', { entryId, region: 'ankle', side: 'left', quality: 'sharp' }],
    ['note-written', { text: SECRETS.sessionNote }],
    ['item-added', { itemId: uuidv7(), afterId: null, lane: added }],
  );
  const sent = await devices.ada.ask('POST', `/api/plans/${ids.plan}/send`, { clientId: ids.client });
  ids.message = (sent.body as { name: string }).name;
});
afterAll(() => server.stop());

async function sessionOn(startedAt: string, more: object): Promise<string> {
  const fields = { clientIds: [ids.client], startedAt, ...more };
  const { body, status } = await devices.ada.ask('POST', '/api/sessions', fields);
  if (status !== 201) throw new Error(JSON.stringify(body));
  return (body as { id: string }).id;
}

async function happened(...events: [type: string, data: object, id?: string][]): Promise<void> {
  const envelope = { sessionId: ids.session, clientId: ids.client, at: new Date().toISOString() };
  const sent = events.map(([type, data, id = uuidv7()], i) => ({ ...envelope, id, counter: i + 1, type, data }));
  const { status, text } = await devices.ada.ask('POST', `/api/sessions/${ids.session}/events`, { events: sent });
  if (status !== 200) throw new Error(text);
}

/** A route's address with the ids of what was made above. */
function addressOf(path: string): string {
  const about = path.startsWith('/api/plans') ? 'plan' : path.startsWith('/api/sessions') ? 'session' : 'client';
  const id = /^\/api\/(plans|sessions|clients\/\{id\})/.test(path) ? ids[about] : uuidv7();
  return path
    .replace('{clientId}', ids.client)
    .replace('{movementId}', 'push-up')
    .replace('/movements/{id}', '/movements/push-up')
    .replace('{day}', DAY)
    .replace('{name}', ids.message)
    .replace('{id}', id);
}

const routes = (): [string, string, string][] => {
  const { paths } = SwaggerModule.createDocument(server.app, new DocumentBuilder().build());
  return Object.entries(paths).flatMap(([path, methods]) =>
    Object.keys(methods).map((method): [string, string, string] => [
      `${method.toUpperCase()} ${path}`,
      method.toUpperCase(),
      addressOf(path),
    ]),
  );
};

/** A body that no route takes: what is let in is refused by its check, and changes nothing. */
const NONSENSE = { nothing: 'of the kind' };
const ask = (device: Device, method: string, address: string) =>
  device.ask(method, address, method === 'GET' ? undefined : NONSENSE);

describe('every route and every role', () => {
  test('the table has every route, and no other', () => {
    expect(
      routes()
        .map(([route]) => route)
        .toSorted(),
    ).toEqual(Object.keys(ROUTES).toSorted());
  });

  test('a trainer who does not see a client finds nothing of theirs by any id', async () => {
    const wrong: string[] = [];
    for (const [route, method, address] of routes()) {
      if (!ROUTES[route]?.about) continue;
      const { status } = await ask(devices.ben, method, address);
      if (status !== 404) wrong.push(`${route}: ${status}`);
    }
    expect(wrong).toEqual([]);
    const others: [string, string, object][] = [
      ['POST', '/api/sessions', { clientIds: [ids.client], startedAt: new Date().toISOString() }],
      ['POST', '/api/sessions', { id: ids.session, clientIds: [uuidv7()], startedAt: new Date().toISOString() }],
      ['POST', '/api/plans', { plan: planFor([ids.client]) }],
      ['POST', '/api/plans', { id: ids.plan, plan: planFor([]) }],
    ];
    for (const [method, path, body] of others) expect((await devices.ben.ask(method, path, body)).status).toBe(404);
    for (const list of ['clients', 'sessions', 'plans', 'outbox'])
      expect((await devices.ben.get(`/api/${list}`)).body).toMatchObject({ items: [] });
    for (const list of ['sessions', 'plans'])
      expect((await devices.ben.get(`/api/${list}?clientId=${ids.client}`)).status).toBe(404);
    expect(((await devices.ada.get('/api/clients')).body as { items: unknown[] }).items).toHaveLength(1);
  });

  test('no answer to an assistant, and none to nobody, holds what is private', async () => {
    const told: string[] = [];
    for (const [route, method, address] of routes()) {
      if (route === 'POST /api/door/sign-out' || route === 'DELETE /api/door/devices') continue;
      for (const who of ['helper', 'nobody'] as const) {
        const { text = '' } = await ask(devices[who], method, address);
        for (const [what, words] of Object.entries(SECRETS))
          if (text.includes(words)) told.push(`${route}: ${who} ${what}`);
      }
    }
    expect(told).toEqual([]);
    // What is limited they must know: only the reason is left out.
    const onDay = (await devices.helper.get(`/api/clients/${ids.client}/on/${DAY}`)).body as { limits: unknown[] };
    const [knees, ruled] = onDay.limits as { movements?: string[] }[];
    expect(knees).toEqual({ demand: 'deep-knee-bend', allowed: 1, reason: 'a recorded limit' });
    expect(ruled?.movements).toContain('stretch-knee-to-chest');
    expect(JSON.stringify(onDay)).not.toContain(CONDITION);
    // After pain they know what to leave out, and not where it hurts; that something was noted, and not what.
    const read = async (who: keyof typeof devices) =>
      (await devices[who].get(`/api/sessions/${ids.session}`)).body as { events: { type: string; data: object }[] };
    const [shown, whole] = [(await read('helper')).events, (await read('ada')).events];
    expect(shown).toHaveLength(whole.length);
    const held = shown.find(({ type }) => type === 'held-back');
    expect(held?.data).toMatchObject({
      quality: 'sharp',
      limits: expect.arrayContaining([{ demand: 'impact', allowed: 0 }]),
    });
    expect(JSON.stringify(shown)).not.toMatch(/ankle|left"/);
    expect(whole.find(({ type }) => type === 'pain-reported')?.data).toMatchObject({ region: 'ankle', side: 'left' });
    const moves = ((await devices.helper.get(`/api/clients/${ids.client}/record`)).body as { hurt: object[] }).hurt;
    expect(moves).toMatchObject([{ movementId: 'goblet-squat' }]);
    // Nobody makes such an event up.
    const made = { ...held, id: uuidv7(), counter: 20 };
    const { status } = await devices.helper.ask('POST', `/api/sessions/${ids.session}/events`, { events: [made] });
    expect(status).toBe(422);
  });

  test('whatever tells somebody why, where it hurts or what was noted is in the audit, with whose it is', async () => {
    const audit = server.app.get(AuditService);
    const unseen: string[] = [];
    const telling: string[] = [];
    const count = async () =>
      ((await devices.owner.get(`/api/audit?limit=200&clientId=${ids.client}`)).body as { items: AuditEntry[] }).items
        .length;
    for (const [route, method, address] of routes()) {
      if (method !== 'GET' || ROUTES[route]?.about === undefined) continue;
      const where = route.includes('sheet') ? `${address}?clientId=${ids.client}` : address;
      // What is read again and again in one sitting is one entry.
      audit['lately'].clear();
      const before = await count();
      const { text = '', status } = await devices.ada.get(where);
      if (status !== 200 || ![...Object.values(SECRETS), '"ankle"'].some((words) => text.includes(words))) continue;
      telling.push(route);
      if ((await count()) === before) unseen.push(route);
    }
    expect(unseen).toEqual([]);
    expect(telling.length).toBeGreaterThan(5);
  });

  test('nobody, an assistant, a trainer and the owner get in where they are to, and nowhere else', async () => {
    const wrong: string[] = [];
    for (const [route, method, address] of routes()) {
      const rule = ROUTES[route];
      // What ends the session that asks is tried by itself.
      if (!rule || route === 'POST /api/door/sign-out' || route === 'DELETE /api/door/devices') continue;
      const statuses = {
        nobody: (await ask(devices.nobody, method, address)).status,
        helper: (await ask(devices.helper, method, address)).status,
        ada: (await ask(devices.ada, method, address)).status,
        owner: (await ask(devices.owner, method, address)).status,
      };
      const turnedAway = (status: number) => status === 401 || status === 403;
      const expected = {
        nobody: rule.for !== 'anybody',
        helper: rule.for === 'trainers' || rule.for === 'owner',
        ada: rule.for === 'owner',
        owner: false,
      };
      // Wrong names, codes and PINs are turned away too, and beginning is for the machine itself.
      if (rule.for === 'anybody' && method === 'POST') continue;
      // Nobody else than the machine itself says who signs in there.
      if (route === 'PATCH /api/door') expected.owner = turnedAway(statuses.owner);
      for (const who of ['nobody', 'helper', 'ada', 'owner'] as const)
        if (turnedAway(statuses[who]) !== expected[who]) wrong.push(`${route}: ${who} ${statuses[who]}`);
    }
    expect(wrong).toEqual([]);
  }, 120_000);
});

test('a version and a tap are of the person who made them', async () => {
  const { version } = (await devices.ada.get('/api/movements/push-up')).body as { version: number };
  await devices.ada.ask('PATCH', '/api/movements/push-up', { version, aliases: ['floor press-up'] });
  const versions = (await devices.ben.get('/api/movements/push-up/versions')).body as { author: string }[];
  expect(versions[0]?.author).toBe('ada');
  const stale = await devices.ben.ask('PATCH', '/api/movements/push-up', { version, aliases: ['another'] });
  expect([stale.status, wrongFields(stale)]).toEqual([409, ['version']]);
  const tap = {
    id: uuidv7(),
    sessionId: ids.session,
    clientId: ids.client,
    counter: 1,
    at: new Date().toISOString(),
    type: 'note-written',
    data: { text: 'began well' },
  };
  await devices.helper.ask('POST', `/api/sessions/${ids.session}/events`, { events: [tap] });
  const db = new Database(server.database, { readonly: true });
  expect(db.prepare('SELECT accountId FROM events WHERE id = ?').pluck().get(tap.id)).toBe(accounts.helper);
  db.close();
});

describe('coming in', () => {
  test('a wrong name and a wrong passphrase are told alike, and after some tries one waits', async () => {
    const stranger = new Device(server.network);
    const told = new Set<string>();
    for (const [name, passphrase] of [
      ['ben', 'not the passphrase'],
      ['nobody of that name', PASSPHRASE],
    ] as const)
      told.add(JSON.stringify((await stranger.ask('POST', '/api/door/sign-in', { name, passphrase })).body));
    expect(told.size).toBe(1);
    const statuses: number[] = [];
    for (let i = 0; i < 6; i += 1) statuses.push(await stranger.signIn('ben', `guess number ${i}`));
    expect(statuses).toEqual([401, 401, 401, 401, 429, 429]);
    // Many at once are no more than one after the other.
    const many = await Promise.all(
      Array.from({ length: 20 }, (_, i) => new Device(server.network).signIn('helper', `x${i}`)),
    );
    expect(many.filter((status) => status === 401)).toHaveLength(5);
    // Right by now, but too early; who is at the machine itself does not wait for it.
    expect(await stranger.signIn('ben')).toBe(429);
    expect(await stranger.signIn('ada')).toBe(204);
    for (const name of ['ben', 'Maren'])
      await server.http.post('/api/door/sign-in').send({ name, passphrase: PASSPHRASE }).expect(204);
  });

  test('many addresses together neither get far nor lock the owner out', async () => {
    const studio = await startServer();
    await studio.http.post('/api/door/begin').send({ name: 'Maren', passphrase: PASSPHRASE, open: false }).expect(200);
    studio.config.proxy = new URL('https://studio.example');
    await studio.restart();
    const tried = async (address: string, passphrase = 'not the passphrase') =>
      (
        await studio.http
          .post('/api/door/sign-in')
          .set({ Host: 'studio.example', 'X-Forwarded-For': address })
          .send({ name: 'Maren', passphrase })
      ).status;
    const statuses: number[] = [];
    for (let i = 1; i <= 20; i += 1) for (let n = 0; n < 4; n += 1) statuses.push(await tried(`10.0.0.${i}`));
    // Thirty free ones; then one more in the eighth address's hands, and one for each of the twelve that had none.
    expect(statuses.filter((status) => status === 401)).toHaveLength(30 + 1 + 12);
    expect(await tried('10.0.1.1', PASSPHRASE)).toBe(204);
    // One network of IPv6 is one address, however many it has.
    const six = await Promise.all(['1', '2', '3'].map((end) => tried(`2001:db8:1:2::${end}`)));
    expect(six.filter((status) => status === 401)).toHaveLength(1);
    await studio.stop();
  });

  test('what came through a proxy that nobody told of is not the machine itself, whether or not it says so', async () => {
    for (const header of ['X-Real-IP', 'Via', 'X-Forwarded-Port'])
      expect((await server.http.get('/api/door').set(header, '1')).status).toBe(403);
    const { port } = server.app.getHttpServer().address() as AddressInfo;
    const socket = plainConnect({ port, host: '127.0.0.1' });
    socket.write(`GET /api/door HTTP/1.0\r\nHost: 127.0.0.1:${port}\r\n\r\n`);
    const [answer] = (await once(socket, 'data')) as [Buffer];
    expect(answer.toString()).toMatch(/^HTTP\/1\.1 403/);
    socket.destroy();
  });

  test('passphrases that anybody would guess are refused by field', async () => {
    for (const passphrase of ['short', 'password1234', 'helperhelper', 'qwertyuiop12']) {
      const answer = await devices.ada.ask('POST', '/api/door/passphrase', { now: PASSPHRASE, passphrase });
      expect([answer.status, wrongFields(answer)]).toEqual([422, ['passphrase']]);
    }
  });

  test('a cookie that was set before somebody signed in is not theirs afterwards', async () => {
    const victim = new Device(server.network);
    victim.hold(`__Host-waxwing-${new URL(server.network).port}=chosen-by-somebody-else`);
    await victim.signIn('ada');
    expect(victim.held).not.toContain('chosen-by-somebody-else');
    const before = victim.held;
    await victim.signIn('ada');
    const old = new Device(server.network);
    old.hold(before);
    expect((await old.get('/api/clients')).status).toBe(401);
    expect(victim.held).toMatch(/^__Host-waxwing-\d+=[\w-]{43}$/);
  });

  test('the cookie is for this origin, for HTTPS and for no script', async () => {
    const answer = await devices.nobody.ask('POST', '/api/door/sign-in', { name: 'ada', passphrase: PASSPHRASE });
    const [cookie = ''] = answer.headers['set-cookie'] as unknown as string[];
    for (const part of [
      `__Host-waxwing-${new URL(server.network).port}=`,
      'Path=/',
      'HttpOnly',
      'Secure',
      'SameSite=Strict',
    ])
      expect(cookie).toContain(part);
    expect(cookie).not.toContain('Domain');
    await devices.nobody.door();
    await devices.nobody.ask('POST', '/api/door/sign-out');
    expect((await devices.nobody.get('/api/clients')).status).toBe(401);
    devices.nobody = new Device(server.network);
  });

  test('a cookie that is used from another browser ends for both', async () => {
    const own = new Device(server.network);
    await own.signIn('ada');
    const thief = own.copiedTo('Mozilla/5.0 (Windows NT 10.0; rv:130.0) Gecko/20100101 Firefox/130.0');
    expect((await thief.get('/api/clients')).status).toBe(401);
    expect((await own.get('/api/clients')).status).toBe(401);
  });

  test('what changes something needs the page’s token', async () => {
    const device = new Device(server.network);
    await device.signIn('ada');
    const forged = { 'X-Waxwing-Token': 'guessed' };
    expect((await device.ask('POST', '/api/clients', { name: 'Forged' }, forged)).status).toBe(403);
    expect((await device.ask('GET', '/api/clients', undefined, forged)).status).toBe(200);
  });

  test('who forgot the passphrase chooses another with the code, once', async () => {
    const device = new Device(server.network);
    const body = {
      name: 'maren',
      code: recovery.toUpperCase().replaceAll('-', ' '),
      passphrase: 'seven gulls over slate',
    };
    expect((await device.ask('POST', '/api/door/recover', body)).status).toBe(200);
    expect((await device.ask('POST', '/api/door/recover', body)).status).toBe(401);
    // Whoever was signed in with the old one is out.
    expect((await devices.owner.get('/api/clients')).status).toBe(401);
    expect(await devices.owner.signIn('Maren', 'seven gulls over slate')).toBe(204);
  });

  test('somebody who is shut out is out at once, on every device, and cannot come back', async () => {
    const { body } = await devices.owner.ask('POST', '/api/accounts', { name: 'Cleo', role: 'trainer' });
    const { account, code } = body as { account: { id: string }; code: string };
    const cleo = new Device(server.network);
    await cleo.begin('Cleo', code);
    expect((await cleo.get('/api/clients')).status).toBe(200);
    await devices.owner.ask('PATCH', `/api/accounts/${account.id}`, { shutOut: true });
    expect((await cleo.get('/api/clients')).status).toBe(401);
    expect(await cleo.door()).toMatchObject({ visitor: null, shutOut: true });
    expect(await cleo.signIn('Cleo')).toBe(401);
    // A new code opens nothing for them either, and that it was made is known.
    const again = await devices.owner.ask('POST', `/api/accounts/${account.id}/code`);
    const next = { name: 'Cleo', code: (again.body as { code: string }).code, passphrase: PASSPHRASE };
    expect((await cleo.ask('POST', '/api/door/recover', next)).status).toBe(401);
    const { items } = (await devices.owner.get('/api/audit?limit=1')).body as { items: AuditEntry[] };
    expect(items[0]).toMatchObject({ accountName: 'Maren', action: 'account-changed', fields: ['new code'] });
    // Somebody always owns it.
    const me = (await devices.owner.door()).visitor?.id;
    expect((await devices.owner.ask('PATCH', `/api/accounts/${me}`, { role: 'trainer' })).status).toBe(409);
  });

  test('sessions end by being unused, by their age, and stay ended when the clock is set back', async () => {
    const device = new Device(server.network);
    await device.signIn('ada');
    const db = new Database(server.database);
    const latest = `(SELECT hash FROM door_sessions ORDER BY createdAt DESC LIMIT 1)`;
    const hourAgo = (hours: number) => new Date(Date.now() - hours * 3_600_000).toISOString();
    db.prepare(`UPDATE door_sessions SET lastUsedAt = ? WHERE hash = ${latest}`).run(hourAgo(13));
    expect((await device.get('/api/clients')).status).toBe(401);
    db.prepare(`UPDATE door_sessions SET lastUsedAt = ? WHERE hash = ${latest}`).run(hourAgo(0));
    expect((await device.get('/api/clients')).status).toBe(401);
    await device.signIn('ada');
    db.prepare(`UPDATE door_sessions SET createdAt = ? WHERE hash = ${latest}`).run(hourAgo(-24));
    expect((await device.get('/api/clients')).status).toBe(401);
    db.close();
  });
});

describe('a tablet', () => {
  const paired = async (pin = '2468') => {
    const { body } = await devices.ada.ask('POST', '/api/door/pairings');
    const key = (body as Pairing).address.split('#')[1] ?? '';
    const tablet = new Device(server.network);
    const answer = await tablet.ask('POST', '/api/door/pair', { key, name: 'Floor tablet', pin });
    await tablet.door();
    return { tablet, key, status: answer.status };
  };

  test('comes in by a key that is good once, runs a session, and reads nothing private', async () => {
    const { tablet, key, status } = await paired();
    expect(status).toBe(204);
    const again = new Device(server.network);
    expect((await again.ask('POST', '/api/door/pair', { key, name: 'Other', pin: '1111' })).status).toBe(401);
    expect((await tablet.get(`/api/clients/${ids.client}`)).status).toBe(403);
    // Nor does it end other devices, or choose its owner another passphrase.
    expect((await tablet.ask('DELETE', '/api/door/devices')).status).toBe(403);
    const words = { now: PASSPHRASE, passphrase: 'another three good words' };
    expect((await tablet.ask('POST', '/api/door/passphrase', words)).status).toBe(403);
    const tap = {
      id: uuidv7(),
      sessionId: ids.session,
      clientId: ids.client,
      counter: 1,
      at: new Date().toISOString(),
      type: 'note-written',
      data: { text: 'steady' },
    };
    expect((await tablet.ask('POST', `/api/sessions/${ids.session}/events`, { events: [tap] })).status).toBe(200);
    expect((await devices.ada.get(`/api/sessions/${ids.session}`)).text).toContain(tap.id);
    // It knows of no other device, and reads the sessions of today.
    const known = ((await tablet.get('/api/door/devices')).body as { items: KnownDevice[] }).items;
    expect(known).toMatchObject([{ current: true }]);
    const old = await sessionOn(new Date(Date.now() - 3 * 86_400_000).toISOString(), { again: true });
    const end = { ...tap, id: uuidv7(), sessionId: old, type: 'session-finished', data: {} };
    await devices.ada.ask('POST', `/api/sessions/${old}/events`, { events: [end] });
    expect((await tablet.get(`/api/sessions/${old}`)).status).toBe(404);
    const listed = ((await tablet.get('/api/sessions')).body as { items: { id: string }[] }).items;
    expect(listed.map(({ id }) => id)).toEqual([ids.session]);
    expect((await devices.helper.get(`/api/sessions/${old}`)).status).toBe(200);
    // A tap that it still has of that one is taken all the same.
    const late = { ...tap, id: uuidv7(), sessionId: old, counter: 2 };
    expect((await tablet.ask('POST', `/api/sessions/${old}/events`, { events: [late] })).status).toBe(200);
  });

  test('takes no PIN that anybody would try first, and its key stays good meanwhile', async () => {
    const { body } = await devices.ada.ask('POST', '/api/door/pairings');
    const key = (body as Pairing).address.split('#')[1] ?? '';
    const tablet = new Device(server.network);
    for (const pin of ['0000', '1234', '9876', '2323']) {
      const answer = await tablet.ask('POST', '/api/door/pair', { key, name: 'Floor tablet', pin });
      expect([answer.status, wrongFields(answer)]).toEqual([422, ['pin']]);
    }
    expect((await tablet.ask('POST', '/api/door/pair', { key, name: 'Floor tablet', pin: '2468' })).status).toBe(204);
  });

  test('a key is over after five minutes', async () => {
    const { body } = await devices.ada.ask('POST', '/api/door/pairings');
    const db = new Database(server.database);
    db.prepare('UPDATE pairings SET endsAt = ?').run(new Date(Date.now() - 1000).toISOString());
    db.close();
    const key = (body as Pairing).address.split('#')[1];
    const late = new Device(server.network);
    expect((await late.ask('POST', '/api/door/pair', { key, name: 'Late', pin: '1111' })).status).toBe(401);
  });

  test('asks for its PIN when it was put down, and is out after the fifth wrong one', async () => {
    const { tablet } = await paired('1357');
    await tablet.ask('POST', '/api/door/lock');
    expect((await tablet.get('/api/clients')).status).toBe(401);
    expect(await tablet.door()).toMatchObject({ locked: true, visitor: null, token: null });
    const shut = await tablet.ask('POST', `/api/sessions/${ids.session}/events`, { events: [] });
    expect([shut.status, (shut.body as { detail: string }).detail]).toEqual([
      401,
      'Type the PIN of this tablet first.',
    ]);
    expect((await tablet.ask('POST', '/api/door/unlock', { pin: '1357' })).status).toBe(204);
    await tablet.door();
    expect((await tablet.get('/api/clients')).status).toBe(200);
    await tablet.ask('POST', '/api/door/lock');
    for (let i = 0; i < 5; i += 1)
      expect((await tablet.ask('POST', '/api/door/unlock', { pin: '9999' })).status).toBe(401);
    expect((await tablet.ask('POST', '/api/door/unlock', { pin: '1357' })).status).toBe(401);
    expect(await tablet.door()).toMatchObject({ tablet: false, visitor: null });
  });

  test('that is lost is shut out in one press, and told so', async () => {
    const { tablet } = await paired();
    const { items } = (await devices.ada.get('/api/door/devices')).body as { items: KnownDevice[] };
    const lost = items.find(({ tablet: is }) => is);
    // Another trainer cannot end it.
    expect((await devices.helper.ask('DELETE', `/api/door/devices/${lost?.id}`)).status).toBe(404);
    for (const { id, tablet: is } of items)
      if (is) expect((await devices.ada.ask('DELETE', `/api/door/devices/${id}`)).status).toBe(204);
    expect((await tablet.get('/api/sessions')).status).toBe(401);
    expect(await tablet.door()).toMatchObject({ shutOut: true, visitor: null });
  });

  test('that was shut out leaves what it had not sent, and nothing of it counts before the owner says so', async () => {
    const { tablet } = await paired();
    const own = await tablet.get('/api/door/devices');
    const [device] = (own.body as { items: KnownDevice[] }).items;
    const tap = (data: object, more: object = {}) => ({
      ...{ id: uuidv7(), sessionId: ids.session, clientId: ids.client, counter: 1, at: new Date().toISOString() },
      ...{ type: 'note-written', data, ...more },
    });
    const leave = (events: object[]) => tablet.ask('POST', '/api/door/left', { events });
    const [good, other] = [tap({ text: 'limps-on-the-left' }), tap({ text: 'second' })];
    const [bad, elsewhere] = [tap({ text: 7 }), tap({ text: 'third' }, { sessionId: uuidv7() })];
    // While it is in, it sends as everybody does.
    expect((await leave([good])).status).toBe(401);
    await devices.ada.ask('DELETE', `/api/door/devices/${device?.id}`);
    const nothing = await leave([tap({ text: '' }, { id: '../x' })]);
    expect([nothing.status, wrongFields(nothing)]).toEqual([422, ['events[0].id']]);
    for (let again = 0; again < 2; again += 1) expect((await leave([good, bad, other, elsewhere])).status).toBe(204);
    // It may do nothing else, nobody else may do this, and what it left is for the owner alone.
    expect((await tablet.ask('POST', `/api/sessions/${ids.session}/events`, { events: [good] })).status).toBe(401);
    expect((await new Device(server.network).ask('POST', '/api/door/left', { events: [good] })).status).toBe(401);
    const more = Array.from({ length: 400 }, () => tap({ text: 'x'.repeat(900) }));
    expect((await leave(more)).status).toBe(413);
    expect((await devices.ada.get('/api/left')).status).toBe(403);
    const seen = () => devices.ada.get(`/api/sessions/${ids.session}`).then(({ text }) => text);
    expect(await seen()).not.toContain('limps-on-the-left');
    expect(readFileSync(server.database).includes('limps-on-the-left')).toBe(false);
    const list = async () => ((await devices.owner.get('/api/left')).body as { items: Left[] }).items;
    expect(await list()).toMatchObject([{ id: device?.id, device: 'Floor tablet', accountName: 'ada', taps: 4 }]);
    const take = await devices.owner.ask('POST', `/api/left/${device?.id}/take`);
    expect(take.body).toMatchObject({ taken: 2, refused: 2, why: expect.stringMatching(/./) as unknown });
    expect(await seen()).toContain('limps-on-the-left');
    expect(await list()).toMatchObject([{ taps: 2 }]);
    expect((await devices.owner.ask('DELETE', `/api/left/${device?.id}`)).status).toBe(204);
    expect(await list()).toEqual([]);
    expect((await devices.owner.ask('POST', `/api/left/${device?.id}/take`)).status).toBe(404);
    const { items } = (await devices.owner.get('/api/audit?limit=2')).body as { items: AuditEntry[] };
    expect(items.map(({ action, fields }) => [action, fields])).toEqual([
      ['taps-thrown-away', ['Floor tablet', '2']],
      ['taps-taken-in', ['Floor tablet', '2']],
    ]);
  });
});

describe('the audit', () => {
  const entries = async (query = '') =>
    ((await devices.owner.get(`/api/audit?limit=200${query}`)).body as { items: AuditEntry[] }).items;

  test('who read, changed and exported what of whom, by names of fields and never by what is in them', async () => {
    const about = async () =>
      (await entries(`&clientId=${ids.client}`)).map(({ accountName, action, fields }) => ({
        accountName,
        action,
        fields,
      }));
    await devices.ada.get(`/api/clients/${ids.client}`);
    const { version } = (await devices.ada.get(`/api/clients/${ids.client}`)).body as Client;
    await devices.ada.ask('PATCH', `/api/clients/${ids.client}`, { version, goal: 'a deeper squat' });
    await devices.ada.get(`/api/clients/${ids.client}/file`);
    const told = await about();
    expect(told).toContainEqual({
      accountName: 'ada',
      action: 'client-read',
      fields: ['healthNote', 'note', 'limits'],
    });
    expect(told).toContainEqual({ accountName: 'ada', action: 'client-changed', fields: ['goal'] });
    expect(told[0]).toEqual({ accountName: 'ada', action: 'client-exported', fields: ['all'] });
    const csv = (await devices.owner.get('/api/audit.csv')).text;
    for (const words of Object.values(SECRETS)) expect(csv).not.toContain(words);
    expect(csv.split('\r\n')[0]).toBe('place,at,accountName,device,action,clientName,clientId,fields');
  });

  test('an entry that is changed or taken out by other means is found', async () => {
    const whole = async () => (await devices.owner.get('/api/audit/whole')).body as { brokenAt: number | null };
    expect(await whole()).toEqual({ brokenAt: null });
    const db = new Database(server.database);
    expect(() => db.prepare(`UPDATE audit SET accountName = 'nobody'`).run()).toThrow('never changed');
    expect(() => db.prepare('DELETE FROM audit WHERE place = 3').run()).toThrow('never taken out');
    db.exec('DROP TRIGGER audit_is_never_changed');
    const before = db.prepare('SELECT device FROM audit WHERE place = 3').pluck().get();
    db.prepare(`UPDATE audit SET device = 'another' WHERE place = 3`).run();
    expect(await whole()).toEqual({ brokenAt: 3 });
    db.prepare('UPDATE audit SET device = ? WHERE place = 3').run(before);
    expect(await whole()).toEqual({ brokenAt: null });
    // Nor can the rest be made to fit, or the beginning be taken away, by who has the file and not its key.
    const hashes = db.prepare('SELECT place, hash FROM audit ORDER BY place').all() as {
      place: number;
      hash: string;
    }[];
    const anew = new Sealer([randomBytes(32)]);
    const put = db.prepare('UPDATE audit SET hash = ? WHERE place = ?');
    let last = '';
    for (const row of db.prepare('SELECT * FROM audit ORDER BY place').all() as (Link & { place: number })[])
      put.run((last = anew.mark(textOf(last, row))), row.place);
    expect(await whole()).toEqual({ brokenAt: 1 });
    for (const { place, hash } of hashes) put.run(hash, place);
    expect(await whole()).toEqual({ brokenAt: null });
    db.prepare('UPDATE audit_start SET place = 2, hash = (SELECT hash FROM audit WHERE place = 2)').run();
    expect(await whole()).toEqual({ brokenAt: 3 });
    db.prepare(`UPDATE audit_start SET place = 0, hash = ''`).run();
    expect(await whole()).toEqual({ brokenAt: null });
    db.close();
  });

  test('what is older than the studio keeps is let go, and the rest is still whole', async () => {
    const db = new Database(server.database);
    const { place } = db.prepare('SELECT max(place) - 5 AS place FROM audit').get() as { place: number };
    const { at } = db.prepare('SELECT at FROM audit WHERE place = ?').get(place + 1) as { at: string };
    db.close();
    // As a day does it that passes: no entry is old enough here.
    server.app.get(WriteGate).write((writer) => letGo(writer, at));
    expect((await entries()).map((entry) => entry.place).toSorted((a, b) => a - b)[0]).toBeGreaterThan(1);
    expect((await devices.owner.get('/api/audit/whole')).body).toEqual({ brokenAt: null });
    const keeps = { auditDays: 365, erasedDays: 400, sessionDays: null };
    expect((await devices.owner.ask('PATCH', '/api/door/keeps', keeps)).body).toEqual(keeps);
    expect((await devices.owner.get('/api/door/keeps')).body).toEqual(keeps);
    const short = await devices.owner.ask('PATCH', '/api/door/keeps', { ...keeps, auditDays: 1 });
    expect(new Set(wrongFields(short))).toEqual(new Set(['auditDays']));
  });

  test('sessions older than the studio keeps are let go with all that they taught, and no device brings them back', async () => {
    const { owner } = devices;
    const client = (await owner.ask('POST', '/api/clients', { name: 'Old Times' })).body as Client;
    const begin = async () => {
      const body = { id: uuidv7(), clientIds: [client.id], startedAt: new Date().toISOString() };
      return ((await owner.ask('POST', '/api/sessions', body)).body as { id: string }).id;
    };
    const [old, young] = [await begin(), await begin()];
    const tap = (sessionId: string, type: string, data: object) => ({
      id: uuidv7(),
      sessionId,
      clientId: client.id,
      counter: 1,
      at: new Date().toISOString(),
      type,
      data,
    });
    for (const id of [old, young])
      await owner.ask('POST', `/api/sessions/${id}/events`, { events: [tap(id, 'note-written', { text: 'Seen' })] });
    const db = new Database(server.database);
    db.prepare('UPDATE sessions SET startedAt = ? WHERE id = ?').run('2020-01-01T10:00:00.000Z', old);
    const of = (table: string, id: string) =>
      db.prepare(`SELECT count(*) FROM ${table} WHERE sessionId = ?`).pluck().get(id) as number;
    const keeps = { auditDays: 365, erasedDays: 400, sessionDays: 730 };
    expect(wrongFields(await owner.ask('PATCH', '/api/door/keeps', { ...keeps, sessionDays: 30 }))).toEqual([
      'sessionDays',
    ]);
    expect(of('events', old)).toBe(1);
    expect((await owner.ask('PATCH', '/api/door/keeps', keeps)).body).toEqual(keeps);
    expect([of('events', old), of('session_clients', old), of('digests', old)]).toEqual([0, 0, 0]);
    expect(of('events', young)).toBe(1);
    db.close();
    expect((await owner.get(`/api/sessions/${old}`)).status).toBe(404);
    expect((await owner.ask('POST', '/api/erased', { ids: [old, young] })).body).toEqual({ erased: [old] });
    const again = { id: old, clientIds: [client.id], startedAt: new Date().toISOString(), again: true };
    expect((await owner.ask('POST', '/api/sessions', again)).status).toBe(410);
    expect((await entries()).map(({ action, fields }) => [action, ...fields])).toContainEqual(['sessions-let-go', '1']);
  });

  test('words that look like another line of a log or a formula stay words', async () => {
    const name = '=HYPERLINK("http://x")';
    await devices.nobody.ask('POST', '/api/door/sign-in', { name: 'ada\r\nroot signed in', passphrase: 'x' });
    await devices.owner.ask('POST', '/api/accounts', { name, role: 'assistant' });
    const csv = (await devices.owner.get('/api/audit.csv')).text;
    expect(csv).not.toContain('root signed in');
    for (const line of csv.split('\r\n').slice(1, -1)) expect(line).toMatch(/^\d+,/);
  });
});

describe('the walls', () => {
  test('nobody in particular has little read of what they send, and nothing of it is judged', async () => {
    const many = Object.fromEntries(Array.from({ length: 20_000 }, (_, i) => [`key${i}`, 1]));
    for (const door of ['sign-in', 'recover', 'pair', 'unlock'])
      expect((await devices.nobody.ask('POST', `/api/door/${door}`, many)).status).toBe(413);
    for (const path of ['/api/clients', '/api/imports?kind=pack', '/api/sessions'])
      expect((await devices.nobody.ask('POST', path, many)).status).toBe(401);
    const some = Object.fromEntries(Object.entries(many).slice(0, 200));
    expect((await devices.nobody.ask('POST', '/api/door/sign-in', some)).status).toBe(422);
    // Somebody who is in is told the first of many.
    const answer = await devices.helper.ask('POST', '/api/sessions', many);
    expect(answer.status).toBe(422);
    expect(answer.text.length).toBeLessThan(10_000);
  });

  test('an address is one address: in other letters it is none', async () => {
    for (const path of ['/API/docs-json', '/api/Clients', `/api/Clients/${ids.client}/file`, '/api/DOOR/devices'])
      for (const who of ['nobody', 'owner'] as const)
        expect([path, who, (await devices[who].get(path)).status]).toEqual([path, who, 404]);
    expect((await devices.nobody.get('/api/docs-json')).status).toBe(401);
  });

  test('names that are not of this machine, other origins, and proxies that Waxwing was not told of are refused', async () => {
    const { owner } = devices;
    for (const headers of [
      { Host: 'evil.example' },
      { Host: 'localhost.evil.example' },
      { Host: '127.0.0.1@evil.example' },
      { 'X-Forwarded-For': '127.0.0.1' },
      { 'X-Forwarded-Host': 'localhost' },
      { Forwarded: 'for=127.0.0.1' },
      { 'Sec-Fetch-Site': 'cross-site' },
    ])
      expect(
        (await owner.ask('GET', '/api/clients', undefined, headers as unknown as Record<string, string>)).status,
      ).toBe(403);
    for (const origin of ['https://evil.example', 'null', server.network.replace('https', 'http')])
      expect((await owner.ask('POST', '/api/clients', { name: 'X' }, { Origin: origin })).status).toBe(403);
    expect((await owner.ask('POST', '/api/erased', { ids: [] }, { Origin: server.network })).status).toBe(200);
  });

  test('the machine itself answers only to its own name, and not to the network’s', async () => {
    for (const host of ['studio.local', '192.168.1.7:4310'])
      await server.http.get('/api/door').set('Host', host).expect(403);
    await server.http.get('/api/clients').expect(401);
  });

  test('every page says what it may do, and the description of the API is for those who are in', async () => {
    const { headers } = await devices.owner.get('/api/health');
    expect(headers).toMatchObject({
      'x-frame-options': 'DENY',
      'x-content-type-options': 'nosniff',
      'cross-origin-resource-policy': 'same-origin',
      'cross-origin-opener-policy': 'same-origin',
      'referrer-policy': 'no-referrer',
      'cache-control': 'no-store',
    });
    expect(headers).not.toHaveProperty('x-powered-by');
    expect(headers['content-security-policy']).toContain("frame-ancestors 'none'");
    expect((await devices.nobody.get('/api/docs-json')).status).toBe(401);
    expect((await devices.ada.get('/api/docs-json')).status).toBe(200);
  });

  test('requests that come too often from one address are refused, and others are served', async () => {
    const busy = await startServer({ network: true, mostRequests: 100 });
    const other = new Device(busy.network);
    const statuses = await Promise.all(
      Array.from({ length: 120 }, () => other.get('/api/health').then(({ status }) => status)),
    );
    expect(statuses.filter((status) => status === 429)).toHaveLength(20);
    await busy.http.get('/api/health').expect(200);
    await busy.stop();
  });

  test('whoever sends drop by drop is cut off', async () => {
    const { port } = new URL(server.network);
    const slow = async (start: string): Promise<number> => {
      const socket = connect({ port: Number(port), host: '127.0.0.1', rejectUnauthorized: false });
      await once(socket, 'secureConnect');
      const began = performance.now();
      socket.write(start);
      const drops = setInterval(() => socket.write('a'), 500);
      // Cut off in the middle of a drop is an error of the socket, and what is wanted.
      socket.on('error', () => undefined);
      socket.resume();
      await new Promise((closed) => socket.once('close', closed));
      clearInterval(drops);
      return performance.now() - began;
    };
    const took = await Promise.all([
      slow(`POST /api/door/sign-in HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\nX-Long: `),
      slow(
        `POST /api/door/sign-in HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\nContent-Type: application/json\r\nContent-Length: 500\r\n\r\n{`,
      ),
    ]);
    for (const millis of took) expect(millis).toBeLessThan(13_000);
    const silent = connect({ port: Number(port), host: '127.0.0.1', rejectUnauthorized: false });
    const began = performance.now();
    silent.resume();
    await once(silent, 'close');
    expect(performance.now() - began).toBeLessThan(13_000);
  }, 40_000);

  test('plain HTTP at the port of HTTPS, and HTTPS of another age, get nothing', async () => {
    await expect(fetch(server.network.replace('https', 'http'))).rejects.toThrow();
    const { port } = new URL(server.network);
    const old = connect({
      port: Number(port),
      host: '127.0.0.1',
      rejectUnauthorized: false,
      maxVersion: 'TLSv1.1',
      minVersion: 'TLSv1',
    });
    const [error] = (await once(old, 'error')) as [{ code: string }];
    expect(error.code).toMatch(/^ERR_SSL/);
    for (const ciphers of ['ECDHE-ECDSA-AES256-SHA384', 'ECDHE-ECDSA-AES128-CCM8', 'AES256-SHA']) {
      const weak = connect({
        port: Number(port),
        host: '127.0.0.1',
        rejectUnauthorized: false,
        maxVersion: 'TLSv1.2',
        ciphers,
      });
      const [refused] = (await once(weak, 'error')) as [{ code: string }];
      expect([ciphers, refused.code]).toEqual([ciphers, expect.stringMatching(/^ERR_SSL/)]);
    }
  });
});
