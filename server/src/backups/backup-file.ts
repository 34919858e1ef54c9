/**
 * A backup: the whole studio as one file. It is a copy of the database, with the pictures and the messages that wait laid into it.
 * Made while a server runs, verified before it counts, and brought back only when none does.
 */
import { randomBytes, scryptSync } from 'node:crypto';
import {
  chmodSync,
  closeSync,
  copyFileSync,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { basename, dirname, join, normalize } from 'node:path';

import Database from 'better-sqlite3';

import { type KeyPlace, StartError } from '../config.js';
import { type Holds, holdsIn, holdsOf, keepHolds } from '../database/holds.js';
import { damageOf, stampOf, StudioFolder } from '../database/studio-folder.js';
import { keepKeys, keysIn } from '../sealed/keys.js';
import { KEY_BYTES, Sealer } from '../sealed/sealer.js';
import { dropContent, isAsMade, layContentIn } from './content.js';

/** How much there is of what. */
export type Counts = Record<string, number>;

const COUNTED = ['clients', 'sessions', 'events', 'plans', 'movements', 'pictures'];
/** How the folders begin in which a restore keeps what was there. */
export const ASIDE = 'replaced-';
/** Files that go with the database. */
const LAID_IN = ['pictures', 'outbox'];

const countsOf = (db: Database.Database): Counts =>
  Object.fromEntries(
    COUNTED.map((table) => [table, (db.prepare(`SELECT count(*) AS n FROM ${table}`).get() as { n: number }).n]),
  );

function inFile<T>(file: string, options: Database.Options, work: (db: Database.Database) => T): T {
  const db = new Database(file, { fileMustExist: true, ...options });
  try {
    return work(db);
  } finally {
    db.close();
  }
}

/**
 * Writes a backup of a data folder, safe while a server works on it.
 * @param lock with it the key goes along, so that the backup opens on another machine
 * @returns how much is in it
 * @throws StartError when there is no studio, or the copy is not whole; no file is left then
 */
export function makeBackup(folder: string, target: string, lock: Lock | null = null): Counts {
  const { database } = new StudioFolder(folder);
  if (!existsSync(database)) throw new StartError(`There is no studio in ${folder}.`);
  const part = `${target}.part`;
  mkdirSync(dirname(target), { recursive: true, mode: 0o700 });
  rmSync(part, { force: true });
  try {
    const look = () => inFile(database, {}, (db) => ({ counts: countsOf(db), stamp: placeIn(db) }));
    const before = look();
    inFile(database, {}, (db) => {
      db.pragma('busy_timeout = 10000');
      db.prepare('VACUUM INTO ?').run(part);
    });
    chmodSync(part, 0o600);
    const after = look();
    const counts = inFile(part, {}, (db) => {
      db.pragma('journal_mode = DELETE');
      layIn(db, folder);
      if (lock) layKeyIn(db, lock);
      layContentIn(db);
      return countsOf(db);
    });
    verify(part, counts, before, after);
    flush(part);
    renameSync(part, target);
    return counts;
  } catch (error) {
    rmSync(part, { force: true });
    throw error;
  }
}

const placeIn = (db: Database.Database): number =>
  (db.prepare('SELECT place FROM meta').get() as { place: number }).place;

/** Puts the files of the folder into the copy. A picture that goes meanwhile is missing in both. */
function layIn(db: Database.Database, folder: string): void {
  db.exec('CREATE TABLE backup_files (path TEXT PRIMARY KEY NOT NULL, bytes BLOB NOT NULL)');
  const insert = db.prepare('INSERT INTO backup_files (path, bytes) VALUES (?, ?)');
  for (const kind of LAID_IN)
    for (const name of existsSync(join(folder, kind)) ? readdirSync(join(folder, kind)) : [])
      if (!name.endsWith('.part')) insert.run(`${kind}/${name}`, readFileSync(join(folder, kind, name)));
}

/** A passphrase for a backup, and where the keys of studios are. */
export interface Lock {
  keys: KeyPlace;
  passphrase: string;
}

/** From a passphrase to a key, slowly: scrypt as OWASP gives it for 2^17. */
const keyFrom = (passphrase: string, salt: Buffer): Sealer =>
  new Sealer(
    [scryptSync(passphrase.normalize('NFC'), salt, KEY_BYTES, { N: 2 ** 17, r: 8, p: 1, maxmem: 2 ** 28 })],
    true,
  );

/** @throws StartError where there is no key */
function layKeyIn(db: Database.Database, { keys, passphrase }: Lock): void {
  const found = keysIn(keys, studioIn(db));
  if (!found) throw new StartError('There is no key of this studio here: start Waxwing once first.');
  const salt = randomBytes(16);
  const text = keyFrom(passphrase, salt).seal(found.map((key) => key.toString('base64')).join(), 'backup', 'key');
  db.exec('CREATE TABLE backup_key (salt BLOB NOT NULL, text TEXT NOT NULL)');
  db.prepare('INSERT INTO backup_key (salt, text) VALUES (?, ?)').run(salt, text);
}

const studioIn = (db: Database.Database): string =>
  (db.prepare('SELECT studio FROM meta').get() as { studio: string }).studio;

/**
 * Takes the key of a backup to where this machine keeps its keys, unless it is there.
 * @throws StartError where the passphrase is missing or another
 */
function takeKey(db: Database.Database, { keys, passphrase }: Lock): void {
  const studio = studioIn(db);
  const held = db.prepare(`SELECT 1 FROM sqlite_master WHERE name = 'backup_key'`).get();
  if (held && !keysIn(keys, studio)) {
    if (passphrase === '')
      throw new StartError(
        'This backup has its key in it, behind a passphrase: set WAXWING_PASSPHRASE, and try again.',
      );
    const { salt, text } = db.prepare('SELECT salt, text FROM backup_key').get() as { salt: Buffer; text: string };
    const plain = keyFrom(passphrase, salt).open(text, 'backup', 'key');
    if (plain === undefined) throw new StartError('This is not the passphrase of this backup. Nothing was changed.');
    keepKeys(
      keys,
      studio,
      plain.split(',').map((key) => Buffer.from(key, 'base64')),
    );
  }
  db.exec('DROP TABLE IF EXISTS backup_key');
}

/** Opens a copy and compares it with what it was made from. @throws StartError */
function verify(
  file: string,
  counts: Counts,
  before: { counts: Counts; stamp: number },
  after: { counts: Counts; stamp: number },
): void {
  const wrong = damageOf(file);
  if (wrong !== null) throw new StartError(`The backup is not whole (${wrong}). It was thrown away.`);
  const place = inFile(file, { readonly: true }, placeIn);
  const still = before.stamp === after.stamp;
  if (place < before.stamp || place > after.stamp || (still && !same(counts, before.counts)))
    throw new StartError('The backup does not hold what the studio holds. It was thrown away.');
}

const same = (a: Counts, b: Counts): boolean => COUNTED.every((table) => a[table] === b[table]);

function flush(file: string): void {
  const handle = openSync(file, 'r+');
  try {
    fsyncSync(handle);
  } finally {
    closeSync(handle);
  }
}

/** What is in a backup. @throws StartError for a file that is none, or that is damaged */
export function countsIn(file: string): Counts {
  const wrong = existsSync(file) ? damageOf(file) : 'it does not exist';
  if (wrong !== null) throw new StartError(`${file} is not a backup that can be used (${wrong}).`);
  return inFile(file, { readonly: true }, (db) => {
    if (!db.prepare(`SELECT 1 FROM sqlite_master WHERE name = 'backup_files'`).get())
      throw new StartError(`${file} is not a backup that can be used (it is a database of another kind).`);
    if (!isAsMade(db))
      throw new StartError(`${file} is not a backup that can be used (something in it was changed since it was made).`);
    return countsOf(db);
  });
}

export interface Restored {
  counts: Counts;
  /** Where what was there before lies now; null when nothing was. */
  aside: string | null;
}

/**
 * Brings a backup back into a data folder. What was there is kept aside in it.
 * @throws StartError while a server runs on the folder, and for a file that is no backup; nothing is changed then
 */
export function restoreBackup(file: string, path: string, now: Date, lock: Lock): Restored {
  mkdirSync(path, { recursive: true, mode: 0o700 });
  const folder = new StudioFolder(path);
  folder.claim();
  const fresh = join(path, 'restoring.part');
  try {
    const counts = countsIn(file);
    rmSync(fresh, { recursive: true, force: true });
    mkdirSync(fresh, { mode: 0o700 });
    const database = join(fresh, 'waxwing.sqlite');
    copyFileSync(file, database);
    chmodSync(database, 0o600);
    inFile(database, {}, (db) => {
      for (const kind of LAID_IN) mkdirSync(join(fresh, kind), { mode: 0o700 });
      const files = db.prepare('SELECT path, bytes FROM backup_files').all() as { path: string; bytes: Buffer }[];
      for (const { path: at, bytes } of files) {
        // Only ever a file directly in one of the folders.
        const to = normalize(at);
        if (!/^(pictures|outbox)\/[^/]+$/.test(to)) continue;
        writeFileSync(join(fresh, to), bytes, { mode: 0o600, flush: true });
      }
      db.exec('DROP TABLE backup_files');
      dropContent(db);
      takeKey(db, lock);
      // Who was shut out since must not be in again; what devices hold unsent stays with them.
      if (db.prepare(`SELECT 1 FROM sqlite_master WHERE name = 'door_sessions'`).get())
        db.exec(`UPDATE door_sessions SET ended = 'over' WHERE ended IS NULL`);
      db.exec('VACUUM');
    });
    flush(database);
    const stamp = stampOf(database);
    if (stamp) rememberRestore(path, stamp.studio, { at: now.toISOString(), file: basename(file) });
    const aside = putAside(path, now);
    for (const name of readdirSync(fresh)) renameSync(join(fresh, name), join(path, name));
    if (stamp) folder.mark(stamp);
    return { counts, aside };
  } finally {
    rmSync(fresh, { recursive: true, force: true });
    folder.release();
  }
}

/** The next start notes what was brought back, and applies what holds all the same: by the list beside the database, or by what it replaces. */
function rememberRestore(path: string, studio: string, restored: NonNullable<Holds['restored']>): void {
  const { database } = new StudioFolder(path);
  const readable = existsSync(database) && damageOf(database) === null;
  const here = readable ? inFile(database, { readonly: true }, holdsOf) : null;
  const known = holdsIn(path, studio) ?? (here?.studio === studio ? here : null);
  keepHolds(path, { ...(known ?? { studio, erased: [], accounts: [], door: 'unset' }), restored });
}

/** Moves what a studio consists of into a folder of its own; null when there is nothing. */
function putAside(path: string, now: Date): string | null {
  const names = ['waxwing.sqlite', 'waxwing.sqlite-wal', 'waxwing.sqlite-shm', 'studio.json', ...LAID_IN];
  const there = names.filter((name) => existsSync(join(path, name)));
  if (there.length === 0) return null;
  const aside = join(path, `${ASIDE}${now.toISOString().replace(/[:.]/g, '-')}`);
  mkdirSync(aside, { mode: 0o700 });
  for (const name of there) renameSync(join(path, name), join(aside, name));
  return aside;
}
