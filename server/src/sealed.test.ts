/** What is noted of people's health lies sealed: on the disk, in backups, and in what a thief copies. */
import { createCipheriv, randomBytes } from 'node:crypto';
import { copyFileSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import type { Client } from '@waxwing/core/client';
import type { Plan } from '@waxwing/core/planning';
import Database from 'better-sqlite3';
import * as fc from 'fast-check';
import { v7 as uuidv7 } from 'uuid';

import { makeBackup, restoreBackup } from './backups/backup-file.js';
import { StartError } from './config.js';
import { sealStudio } from './sealed/seal-studio.js';
import { keyName, Sealer } from './sealed/sealer.js';
import { bytes } from './test/bytes.js';
import { planFor } from './test/plans.js';
import { startServer, type StudioServer } from './test/studio-server.js';

const NOTED = {
  about: 'retired boatbuilder with a bad knee',
  goal: 'wants to carry the grandson again',
  email: 'joaquim@slate-quay.example',
  bodyKg: 83.4375,
  healthNote: 'takes anticoagulants since May',
  note: 'is in the middle of a divorce',
  limits: [{ demand: 'deep-knee-bend', allowed: 1, reason: 'meniscus torn in spring' }],
  readiness: { on: '2026-11-01', yes: ['heart'], clearedOn: null, clearedBy: 'Doctor Marl of the quay' },
};
const WORDS = [
  ...['anticoagulants', 'divorce', 'meniscus', 'Doctor Marl', '"heart"'],
  ...['boatbuilder', 'grandson', 'slate-quay', '83.4375'],
];

/** As versions before the binding to rows did it. */
function sealedByColumn(key: Buffer, text: string, where: string): string {
  const start = randomBytes(12);
  const cipher = createCipheriv('aes-256-gcm', key, start).setAAD(Buffer.from(where));
  const sealed = Buffer.concat([start, cipher.update(text, 'utf8'), cipher.final(), cipher.getAuthTag()]);
  return `sealed:${keyName(key)}:${sealed.toString('base64')}`;
}

test('what is sealed opens with its key, in its place, and unchanged', () => {
  const text = fc.string({ unit: 'binary', maxLength: 200 });
  fc.assert(
    fc.property(text, fc.nat(), (plain, at) => {
      const [old, next, other] = [randomBytes(32), randomBytes(32), randomBytes(32)];
      const sealed = new Sealer([old]).seal(plain, 'clients.note', 'a');
      expect(new Sealer([next, old]).open(sealed, 'clients.note', 'a')).toBe(plain);
      expect(new Sealer([other]).open(sealed, 'clients.note', 'a')).toBeUndefined();
      expect(new Sealer([old]).open(sealed, 'clients.healthNote', 'a')).toBeUndefined();
      expect(new Sealer([old]).open(sealed, 'clients.note', 'b')).toBeUndefined();
      const bytes = Buffer.from(sealed.split(':')[2] ?? '', 'base64');
      const i = at % bytes.length;
      bytes[i] = (bytes[i] ?? 0) ^ 1;
      const changed = [...sealed.split(':').slice(0, 2), bytes.toString('base64')].join(':');
      expect(new Sealer([old]).open(changed, 'clients.note', 'a')).toBeUndefined();
    }),
    { numRuns: 100 },
  );
});

describe('a studio', () => {
  let server: StudioServer;
  let client: Client;
  beforeEach(async () => {
    server = await startServer();
    client = await server.client('Joaquim', NOTED);
  });
  afterEach(() => server.stop(), 30_000);

  const filesWith = (words: string): string[] =>
    readdirSync(server.config.dataFolder, { recursive: true, withFileTypes: true })
      .filter((entry) => entry.isFile())
      .map(({ parentPath, name }) => join(parentPath, name))
      .filter((file) => readFileSync(file).includes(words));

  const outboxWith = (words: string): string[] => filesWith(words).filter((file) => file.includes('outbox'));

  test('shows none of it in any of its files, and all of it to who may read it, after a restart as well', async () => {
    for (const words of WORDS) expect(filesWith(words)).toEqual([]);
    await server.restart();
    expect((await server.http.get(`/api/clients/${client.id}`).expect(200)).body).toMatchObject(NOTED);
    const edited = { version: client.version, healthNote: 'had a pacemaker fitted' };
    await server.http.patch(`/api/clients/${client.id}`).send(edited).expect(200);
    expect(filesWith('pacemaker')).toEqual([]);
    expect((await server.http.get(`/api/clients/${client.id}/file`).expect(200)).text).toContain('pacemaker');
    const [key] = readdirSync(server.config.keys.folder);
    expect(statSync(join(server.config.keys.folder, key ?? '')).mode & 0o777).toBe(0o600);
  });

  test('shows no pain, no note and no reason of a session either, which teach what they did before and with another key', async () => {
    const session = (
      await server.http
        .post('/api/sessions')
        .send({ clientIds: [client.id], startedAt: new Date().toISOString() })
        .expect(201)
    ).body as {
      id: string;
      startedAt: string;
    };
    let counter = 0;
    const event = (type: string, data: object) => ({
      id: uuidv7(),
      sessionId: session.id,
      clientId: client.id,
      counter: (counter += 1),
      at: session.startedAt,
      type,
      data,
    });
    const started = event('movement-started', { movementId: 'goblet-squat', why: null });
    const set = { entryId: started.id, side: 'both', amount: 8, kg: null, loadLabel: null };
    const events = [
      started,
      event('pain-reported', { entryId: started.id, region: 'elbow', quality: 'sharp', side: 'left' }),
      event('note-written', { text: 'slept four hours, the twins have colic' }),
      event('set-done', { ...set, despite: 'tendon feels warm today' }),
    ];
    const at = `/api/sessions/${session.id}/events`;
    await server.http.post(at).send({ events }).expect(200);
    // The same again is known, sealed or not.
    expect((await server.http.post(at).send({ events }).expect(200)).body).toMatchObject({ stored: 0, known: 4 });
    const told = ['"region":"elbow"', '"sharp"', 'colic', 'tendon feels'];
    const learned = async () => {
      for (const words of told) expect(filesWith(words)).toEqual([]);
      const kept = (await server.http.get(at).expect(200)).body as { events: object[] };
      expect(kept.events).toMatchObject(events);
      const { hurt } = (await server.http.get(`/api/clients/${client.id}/record`).expect(200)).body as {
        hurt: unknown;
      };
      expect(hurt).toEqual([expect.objectContaining({ movementId: 'goblet-squat' })]);
    };
    await learned();
    const db = new Database(server.database);
    expect(db.prepare('SELECT count(*) FROM digests').pluck().get()).toBe(1);
    expect(db.prepare(`SELECT count(*) FROM digests WHERE document LIKE '%goblet%'`).pluck().get()).toBe(0);
    // As an earlier version kept them.
    for (const one of events)
      db.prepare('UPDATE events SET document = ? WHERE id = ?').run(JSON.stringify(one), one.id);
    db.pragma('wal_checkpoint(TRUNCATE)');
    db.close();
    expect(filesWith('colic')).not.toEqual([]);
    const [name = ''] = readdirSync(server.config.keys.folder);
    const key = join(server.config.keys.folder, name);
    await server.restart();
    await learned();
    const next = randomBytes(32).toString('base64');
    writeFileSync(key, `${next}\n${readFileSync(key, 'utf8')}`);
    await server.restart();
    writeFileSync(key, `${next}\n`);
    await server.restart();
    await learned();
  });

  test('that an earlier version left plain is sealed at the next start, and nothing of it is left in the file', async () => {
    const db = new Database(server.database);
    db.prepare('UPDATE clients SET healthNote = ?, limits = ?').run(NOTED.healthNote, JSON.stringify(NOTED.limits));
    db.pragma('wal_checkpoint(TRUNCATE)');
    db.close();
    expect(filesWith('anticoagulants')).not.toEqual([]);
    await server.restart();
    for (const words of WORDS) expect(filesWith(words)).toEqual([]);
    expect((await server.http.get(`/api/clients/${client.id}`).expect(200)).body).toMatchObject(NOTED);
  });

  test('shows nothing of what its plans say in words, in its programmes neither, and finds and changes them as ever', async () => {
    const words = ['Knees of Joaquim', 'until the scan is back', 'since the slipway', 'though the hip ached'];
    const [name = '', note = '', why = '', changed = ''] = words;
    const other = await server.client('Tove');
    const plan = planFor([client.id, other.id], ['goblet-squat'], { name, note });
    for (const { items } of plan.blocks)
      for (const { lanes } of items) for (const one of lanes) one.why = [{ code: 'written', words: why }];
    const kept = await server.keep(plan);
    const session = (
      await server.http
        .post('/api/sessions')
        .send({ clientIds: [client.id, other.id], planId: kept.id, startedAt: new Date().toISOString() })
        .expect(201)
    ).body as { id: string; startedAt: string };
    const at = { sessionId: session.id, clientId: client.id, counter: 1, at: session.startedAt };
    const event = { id: uuidv7(), ...at, type: 'movement-started', data: { movementId: 'box-squat', why: changed } };
    await server.http
      .post(`/api/sessions/${session.id}/events`)
      .send({ events: [event] })
      .expect(200);
    for (const one of words) expect(filesWith(one)).toEqual([]);
    await server.restart();
    expect((await server.http.get(`/api/plans/${kept.id}`).expect(200)).body).toMatchObject(plan);
    const listed = (await server.http.get(`/api/plans?clientId=${client.id}`).expect(200)).body as { items: object[] };
    expect(listed.items).toEqual([expect.objectContaining({ name })]);
    const run = (await server.http.get(`/api/sessions/${session.id}`).expect(200)).body as {
      programme: object;
      events: object[];
    };
    expect(run).toMatchObject({ programme: { plan }, events: [event] });
    // Somebody goes, and what was said of the other stays.
    await server.http.delete(`/api/clients/${other.id}`).send({ name: 'Tove' }).expect(204);
    const left = (await server.http.get(`/api/plans/${kept.id}`).expect(200)).body as Plan;
    expect(left).toMatchObject({ name, note, clientIds: [client.id] });
    expect(left.blocks[0]?.items[0]?.lanes.map((one) => one.why)).toEqual([[{ code: 'written', words: why }]]);
    for (const one of words) expect(filesWith(one)).toEqual([]);
  });

  test('keeps what is somebody else’s of a plan whose words do not open, when one of them is deleted', async () => {
    const other = await server.client('Tove');
    const plan = await server.keep(planFor([client.id, other.id], ['goblet-squat'], { name: 'Thursday' }));
    const db = new Database(server.database);
    const told = db.prepare<[], string>(`SELECT document ->> 'told' FROM plans`).pluck().get() ?? '';
    db.prepare(`UPDATE plans SET document = json_set(document, '$.told', ?)`).run(`${told.slice(0, -8)}AAAAAAA=`);
    db.close();
    expect((await server.http.get(`/api/plans/${plan.id}`)).status).toBe(500);
    await server.http.delete(`/api/clients/${other.id}`).send({ name: 'Tove' }).expect(204);
    const left = (await server.http.get(`/api/plans/${plan.id}`).expect(200)).body as Plan;
    expect(left.clientIds).toEqual([client.id]);
    expect(left.blocks[0]?.items[0]?.lanes.map(({ movementId }) => movementId)).toEqual(['goblet-squat']);
  });

  test('shows nothing of a message that waits, of an earlier version neither, and gives it out plain', async () => {
    const plan = await server.keep(planFor([client.id], ['push-up'], { name: 'Knees of Joaquim' }));
    const sent = await server.http.post(`/api/plans/${plan.id}/send`).send({ clientId: client.id }).expect(201);
    const { name } = sent.body as { name: string };
    const taken = async () =>
      ((await server.http.get(`/api/outbox/${name}`).buffer(true).parse(bytes).expect(200)).body as Buffer).toString();
    const message = await taken();
    expect(message).toContain('Subject: Knees of Joaquim');
    for (const words of ['Knees of Joaquim', 'slate-quay', client.id]) expect(outboxWith(words)).toEqual([]);
    const path = join(server.config.dataFolder, 'outbox', name);
    writeFileSync(path, message);
    await server.restart();
    expect(outboxWith('Knees of Joaquim')).toEqual([]);
    expect(await taken()).toBe(message);
    await server.http.delete(`/api/clients/${client.id}`).send({ name: 'Joaquim' }).expect(204);
    expect(readdirSync(join(server.config.dataFolder, 'outbox'))).toEqual([]);
  });

  test('takes nothing that was sealed of somebody else, or in another place', async () => {
    const other = await server.client('Tove', { healthNote: 'nothing to note', goal: 'a handstand' });
    const db = new Database(server.database);
    const [mine, hers] = ['goal', 'healthNote'].map((column) => {
      const of = db.prepare<[string], string>(`SELECT ${column} FROM clients WHERE id = ?`).pluck();
      return [of.get(client.id), of.get(other.id)] as const;
    });
    const put = (column: string, value: string | undefined, id: string) =>
      db.prepare(`UPDATE clients SET ${column} = ? WHERE id = ?`).run(value, id);
    put('healthNote', hers?.[1], client.id);
    expect((await server.http.get(`/api/clients/${client.id}`)).status).toBe(500);
    put('healthNote', hers?.[0], client.id);
    put('goal', hers?.[0], client.id);
    expect((await server.http.get(`/api/clients/${client.id}`)).status).toBe(500);
    put('goal', mine?.[0], client.id);
    db.close();
    expect((await server.http.get(`/api/clients/${client.id}`).expect(200)).body).toMatchObject(NOTED);
  });

  test('that an earlier version sealed by column alone is bound to its rows at the next start, and no other text is taken after', async () => {
    const [name = ''] = readdirSync(server.config.keys.folder);
    const key = Buffer.from(readFileSync(join(server.config.keys.folder, name), 'utf8'), 'base64');
    const earlier = sealedByColumn(key, 'had a pacemaker fitted', 'clients.healthNote');
    const put = (form: number) => {
      const db = new Database(server.database);
      db.prepare('UPDATE clients SET healthNote = ?').run(earlier);
      db.prepare('UPDATE meta SET sealForm = ?').run(form);
      db.pragma('wal_checkpoint(TRUNCATE)');
      db.close();
    };
    put(1);
    await server.restart();
    const read = () => server.http.get(`/api/clients/${client.id}`);
    expect((await read().expect(200)).body).toMatchObject({ healthNote: 'had a pacemaker fitted' });
    put(2);
    await server.restart();
    expect((await read()).status).toBe(500);
  });

  test('does not start without its key, changes nothing then, and says what to do', async () => {
    const [name = ''] = readdirSync(server.config.keys.folder);
    const key = join(server.config.keys.folder, name);
    copyFileSync(key, `${key}.copy`);
    rmSync(key);
    await expect(server.restart()).rejects.toThrow(StartError);
    writeFileSync(key, 'half a key');
    await expect(server.open()).rejects.toThrow('is damaged');
    writeFileSync(key, `${randomBytes(32).toString('base64')}\n`);
    await expect(server.open()).rejects.toThrow('its key is not in');
    copyFileSync(`${key}.copy`, key);
    await server.open();
    expect((await server.http.get(`/api/clients/${client.id}`).expect(200)).body).toMatchObject(NOTED);
  });

  test('changes its key without losing a word', async () => {
    const [name = ''] = readdirSync(server.config.keys.folder);
    const key = join(server.config.keys.folder, name);
    const before = readFileSync(key, 'utf8');
    const next = randomBytes(32).toString('base64');
    // As `npm run new-key` does it: the new one first, and the old one until the next start has sealed all anew.
    writeFileSync(key, `${next}\n${before}`);
    await server.restart();
    writeFileSync(key, `${next}\n`);
    await server.restart();
    expect((await server.http.get(`/api/clients/${client.id}`).expect(200)).body).toMatchObject(NOTED);
  });

  test('comes back on another machine with the passphrase of its backup, and without it shows nothing', async () => {
    const { dataFolder, keys } = server.config;
    const backup = join(dataFolder, 'away.backup');
    makeBackup(dataFolder, backup, { keys, passphrase: 'seven gulls over slate' });
    for (const words of WORDS) expect(readFileSync(backup).includes(words)).toBe(false);
    const elsewhere = mkdtempSync(join(tmpdir(), 'waxwing-elsewhere-'));
    const there = { folder: join(elsewhere, 'keys'), given: null };
    const studio = join(elsewhere, 'studio');
    const restored = (passphrase: string) => restoreBackup(backup, studio, new Date(), { keys: there, passphrase });
    expect(() => restored('')).toThrow('behind a passphrase');
    expect(() => restored('seven gulls over slates')).toThrow('not the passphrase');
    expect(readdirSync(studio).filter((name) => name.startsWith('waxwing'))).toEqual([]);
    expect(restored('seven gulls over slate').counts.clients).toBe(1);
    const sealer = sealStudio(join(studio, 'waxwing.sqlite'), there, false);
    const db = new Database(join(studio, 'waxwing.sqlite'), { readonly: true });
    const sealed = db.prepare('SELECT healthNote FROM clients').pluck().get() as string;
    db.close();
    expect(sealer.open(sealed, 'clients.healthNote', client.id)).toBe(NOTED.healthNote);
    rmSync(elsewhere, { recursive: true });
  });

  test('of which a note was changed by other means says that it is damaged, and everybody else is served', async () => {
    const other = await server.client('Tove', { healthNote: 'nothing to note' });
    const db = new Database(server.database);
    db.prepare(
      `UPDATE clients SET healthNote = substr(healthNote, 1, 40) || 'AAAA' || substr(healthNote, 45) WHERE id = ?`,
    ).run(client.id);
    db.close();
    expect((await server.http.get(`/api/clients/${client.id}`)).status).toBe(500);
    await server.http.get(`/api/clients/${other.id}`).expect(200);
  });
});
