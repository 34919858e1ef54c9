/** What is noted of people's health lies sealed: on the disk, in backups, and in what a thief copies. */
import { randomBytes } from 'node:crypto';
import { copyFileSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import type { Client } from '@waxwing/core/client';
import Database from 'better-sqlite3';
import * as fc from 'fast-check';
import { v7 as uuidv7 } from 'uuid';

import { makeBackup, restoreBackup } from './backups/backup-file.js';
import { StartError } from './config.js';
import { sealStudio } from './sealed/seal-studio.js';
import { Sealer } from './sealed/sealer.js';
import { startServer, type StudioServer } from './test/studio-server.js';

const NOTED = {
  healthNote: 'takes anticoagulants since May',
  note: 'is in the middle of a divorce',
  limits: [{ demand: 'deep-knee-bend', allowed: 1, reason: 'meniscus torn in spring' }],
  readiness: { on: '2026-11-01', yes: ['heart'], clearedOn: null, clearedBy: 'Doctor Marl of the quay' },
};
const WORDS = ['anticoagulants', 'divorce', 'meniscus', 'Doctor Marl', '"heart"'];

test('what is sealed opens with its key, in its place, and unchanged', () => {
  const text = fc.string({ unit: 'binary', maxLength: 200 });
  fc.assert(
    fc.property(text, fc.nat(), (plain, at) => {
      const [old, next, other] = [randomBytes(32), randomBytes(32), randomBytes(32)];
      const sealed = new Sealer([old]).seal(plain, 'clients.note');
      expect(new Sealer([next, old]).open(sealed, 'clients.note')).toBe(plain);
      expect(new Sealer([other]).open(sealed, 'clients.note')).toBeUndefined();
      expect(new Sealer([old]).open(sealed, 'clients.healthNote')).toBeUndefined();
      const bytes = Buffer.from(sealed.split(':')[2] ?? '', 'base64');
      const i = at % bytes.length;
      bytes[i] = (bytes[i] ?? 0) ^ 1;
      const changed = [...sealed.split(':').slice(0, 2), bytes.toString('base64')].join(':');
      expect(new Sealer([old]).open(changed, 'clients.note')).toBeUndefined();
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
    expect(sealer.open(sealed, 'clients.healthNote')).toBe(NOTED.healthNote);
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
