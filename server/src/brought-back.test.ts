/** What a backup may bring back and what it may not, and that it is what was made. */
import { copyFileSync, existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

import { afterEach, beforeEach, expect, test } from '@jest/globals';
import type { AuditEntry } from '@waxwing/core/door';
import Database from 'better-sqlite3';
import * as fc from 'fast-check';

import { countsIn, makeBackup, restoreBackup } from './backups/backup-file.js';
import { BackupsService } from './backups/backups.service.js';
import { eraseClient } from './clients/erase.js';
import { WriteGate } from './database/write-gate.js';
import { Device, PASSPHRASE } from './test/devices.js';
import { startServer, type StudioServer } from './test/studio-server.js';

const NEXT = 'slate quay under nine gulls';

let server: StudioServer;
beforeEach(async () => {
  server = await startServer({ network: true });
});
afterEach(() => server.stop(), 30_000);

const file = (name: string): string => join(server.config.dataFolder, name);
const namesIn = (copy: string): string[] => {
  const db = new Database(copy, { readonly: true });
  const names = db.prepare('SELECT name FROM clients ORDER BY name').pluck().all() as string[];
  db.close();
  return names;
};
/** A backup, made as the program makes it. */
const backed = (name: string): string => {
  makeBackup(server.config.dataFolder, file(name));
  return file(name);
};
const restart = async (between: () => void): Promise<void> => {
  await server.app.close();
  between();
  await server.open();
};

test('deleted, shut out and a new passphrase hold whatever is brought back, and the audit says so', async () => {
  await server.http.post('/api/door/begin').send({ name: 'Maren', passphrase: PASSPHRASE, open: false });
  const owner = new Device(server.network);
  await owner.signIn('Maren');
  const made = await owner.ask('POST', '/api/accounts', { name: 'helper', role: 'assistant' });
  const { account, code } = made.body as { account: { id: string }; code: string };
  await new Device(server.network).begin('helper', code);
  const clients = await Promise.all(['Ada', 'Bo'].map((name) => owner.ask('POST', '/api/clients', { name })));
  const [ada = '', bo = ''] = clients.map(({ body }) => (body as { id: string }).id);
  const setDoor = (state: string) =>
    server.app.get(WriteGate).write((writer) => writer.run('UPDATE door SET state = ?', state));
  setDoor('open');
  const backup = backed('older.backup');
  setDoor('closed');

  expect((await owner.ask('DELETE', `/api/clients/${ada}`, { name: 'Ada' })).status).toBe(204);
  expect((await owner.ask('PATCH', `/api/accounts/${account.id}`, { shutOut: true })).status).toBe(200);
  expect((await owner.ask('POST', '/api/door/passphrase', { now: PASSPHRASE, passphrase: NEXT })).status).toBe(200);
  await restart(() =>
    restoreBackup(backup, server.config.dataFolder, new Date(), { keys: server.config.keys, passphrase: '' }),
  );

  // The machine itself is let in no more than it was.
  expect((await server.http.get('/api/clients')).status).toBe(401);
  const again = new Device(server.network);
  expect(await again.signIn('helper')).toBe(401);
  expect(await again.signIn('Maren', PASSPHRASE)).toBe(401);
  expect(await again.signIn('Maren', NEXT)).toBe(204);
  expect((await again.get(`/api/clients/${ada}`)).status).toBe(404);
  expect((await again.get(`/api/clients/${bo}`)).status).toBe(200);
  const { items } = (await again.get('/api/audit')).body as { items: AuditEntry[] };
  expect(items.filter(({ action }) => action === 'restored').map(({ fields }) => fields)).toEqual([
    ['older.backup', 'deleted again: 1', 'shut out again: 1', 'accounts as they were last: 1'],
  ]);
  expect((await again.get('/api/audit/whole')).body).toEqual({ brokenAt: null });
  // Applied once: the next start has nothing to say.
  await server.restart();
  const later = new Device(server.network);
  await later.signIn('Maren', NEXT);
  const all = ((await later.get('/api/audit')).body as { items: AuditEntry[] }).items;
  expect(all.filter(({ action }) => action === 'restored')).toHaveLength(1);
}, 60_000);

test('whoever was deleted is in no copy, whatever it is called, whoever was reading it, and if the server was cut off in between', async () => {
  const [ada, bo] = [await server.client('Ada'), await server.client('Bo')];
  const mine = backed('backups/by-hand');
  const read = backed('backups/waxwing-2030-01-01.backup');
  writeFileSync(file('backups/letter.txt'), 'Ada');
  const reader = new Database(read, { readonly: true });
  const looking = reader.prepare('SELECT * FROM clients').iterate();
  looking.next();
  const began = performance.now();
  await server.http.delete(`/api/clients/${ada.id}`).send({ name: 'Ada' }).expect(204);
  expect(performance.now() - began).toBeLessThan(3_000);
  expect(namesIn(mine)).toEqual(['Bo']);
  // It stays whole meanwhile, and is done when it can be.
  expect(namesIn(read)).toEqual(['Ada', 'Bo']);
  looking.return?.();
  reader.close();
  const backups = () => server.app.get(BackupsService);
  await backups().eraseDeleted();
  expect(namesIn(read)).toEqual(['Bo']);
  for (const copy of [mine, read]) expect(countsIn(copy).clients).toBe(1);
  expect(readFileSync(file('backups/letter.txt'), 'utf8')).toBe('Ada');
  // As a kill between the deletion and its copies leaves it.
  server.app.get(WriteGate).write((writer) => eraseClient(writer, bo.id));
  await server.restart();
  await backups().eraseDeleted();
  for (const copy of [mine, read]) expect(namesIn(copy)).toEqual([]);
  // One in which nobody can be deleted goes as a whole, and is told of.
  const odd = new Database(file('backups/odd'));
  odd.exec(`CREATE TABLE clients (id TEXT); INSERT INTO clients VALUES ('${bo.id}')`);
  odd.close();
  await backups().eraseDeleted();
  expect(existsSync(file('backups/odd'))).toBe(false);
  const { items } = (await server.http.get('/api/audit')).body as { items: AuditEntry[] };
  expect(items[0]).toMatchObject({ action: 'copy-removed', fields: ['odd'] });
});

test('others are served while somebody is taken out of a copy of years', async () => {
  const ada = await server.client('Ada');
  const copy = backed('backups/years');
  const db = new Database(copy);
  db.exec(`CREATE TABLE years AS WITH RECURSIVE n (n) AS (SELECT 1 UNION ALL SELECT n + 1 FROM n LIMIT 300000)
           SELECT n, hex(n) AS text FROM n`);
  db.close();
  let [answered, over] = [0, false];
  const deleted = server.http
    .delete(`/api/clients/${ada.id}`)
    .send({ name: 'Ada' })
    .expect(204)
    .then(() => (over = true));
  for (; !over; answered += 1) await server.http.get('/api/health').expect(200);
  await deleted;
  expect(namesIn(copy)).toEqual([]);
  // In the thread of the requests one would be, or two.
  expect(answered).toBeGreaterThan(10);
}, 30_000);

test('a backup in which anything was changed is not brought back, though it is a whole database', async () => {
  await server.client('Bo Quay');
  const backup = backed('kept.backup');
  const bytes = readFileSync(backup);
  const at = bytes.indexOf('Bo Quay');
  expect(at).toBeGreaterThan(0);
  bytes[at] = 'L'.charCodeAt(0);
  writeFileSync(file('changed.backup'), bytes);
  expect(() => countsIn(file('changed.backup'))).toThrow('was changed since it was made');
  const before = readdirSync(server.config.dataFolder);
  const lock = { keys: server.config.keys, passphrase: '' };
  await restart(() => {
    expect(() => restoreBackup(file('changed.backup'), server.config.dataFolder, new Date(), lock)).toThrow(
      'was changed',
    );
  });
  expect(readdirSync(server.config.dataFolder).sort()).toEqual(before.sort());
  // Wherever a bit falls over: it is refused, or everything in it is as it was.
  const rows = contentIn(backup);
  fc.assert(
    fc.property(fc.nat(), fc.integer({ min: 0, max: 7 }), (place, bit) => {
      copyFileSync(backup, file('flipped.backup'));
      const flipped = readFileSync(backup);
      const i = place % flipped.length;
      flipped[i] = (flipped[i] ?? 0) ^ (1 << bit);
      writeFileSync(file('flipped.backup'), flipped);
      try {
        countsIn(file('flipped.backup'));
      } catch {
        return;
      }
      expect(contentIn(file('flipped.backup'))).toBe(rows);
    }),
    { numRuns: 40 },
  );
}, 60_000);

/** What a backup holds of people, as text. */
function contentIn(copy: string): string {
  const db = new Database(copy, { readonly: true });
  const tables = ['clients', 'sessions', 'events', 'plans', 'movements', 'studio', 'accounts', 'audit'];
  const text = JSON.stringify(tables.map((table) => db.prepare(`SELECT * FROM ${table}`).all()));
  db.close();
  return text;
}
