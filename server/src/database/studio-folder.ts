/**
 * The folder of a studio: one server at a time, closed to others, and never mistaken for an empty one.
 * Beside the database lies a small marker: which studio it is, and how many writes it had when it was last seen.
 */
import {
  chmodSync,
  closeSync,
  existsSync,
  openSync,
  readdirSync,
  readFileSync,
  readSync,
  rmSync,
  statfsSync,
  statSync,
  writeSync,
} from 'node:fs';
import { join } from 'node:path';

import Database from 'better-sqlite3';

import { StartError } from '../config.js';
import type { Sealer } from '../sealed/sealer.js';

interface Marker {
  studio: string;
  /** Writes that the database had at least. */
  place: number;
}

/** Larger databases are not read through at each start, which would take seconds: the backup of each day does that. */
const LOOKED_THROUGH = 64 * 1024 * 1024;

const FOLDERS = ['pictures', 'outbox', 'backups'];
/** Less than this and a warning is due. */
const LOW_BYTES = 200 * 1024 * 1024;
/** Room for a marker of any size, so that none leaves the end of a longer one behind it. */
const MARKER_BYTES = 128;

export interface Space {
  freeBytes: number;
  low: boolean;
}

export class StudioFolder {
  readonly database: string;
  private lock: Database.Database | undefined;
  private own: Sealer | undefined;
  private marker: Marker | undefined;
  private markerHandle: number | undefined;

  constructor(readonly path: string) {
    this.database = join(path, 'waxwing.sqlite');
  }

  /** What seals and opens health notes here; there is one once the folder is prepared. */
  get sealer(): Sealer {
    if (!this.own) throw new Error('the folder is not prepared');
    return this.own;
  }

  set sealer(sealer: Sealer) {
    this.own = sealer;
  }

  get backups(): string {
    return join(this.path, 'backups');
  }

  get pictures(): string {
    return join(this.path, 'pictures');
  }

  get outbox(): string {
    return join(this.path, 'outbox');
  }

  /**
   * Takes the folder for this process alone. The lock is the system's own, on a file: whatever ends the process releases it.
   * @throws StartError when another server has it
   */
  claim(): void {
    closeToOthers(this.path);
    try {
      this.lock = new Database(join(this.path, 'lock'), { timeout: 0 });
      this.lock.pragma('journal_mode = DELETE');
      this.lock.exec('BEGIN EXCLUSIVE');
    } catch (error) {
      this.lock?.close();
      this.lock = undefined;
      if (isFull(error)) throw this.full();
      throw new StartError(
        `Another Waxwing is running on ${this.path}. Stop it first, or choose another folder with WAXWING_DATA.`,
      );
    }
  }

  release(): void {
    if (this.markerHandle !== undefined) closeSync(this.markerHandle);
    this.markerHandle = undefined;
    this.lock?.close();
    this.lock = undefined;
  }

  /**
   * Looks at what is there before anything is opened for work.
   * @param accept go on with what is there, although the marker says that it is not all
   * @throws StartError when the folder held a studio and its database is missing, empty, damaged or older than it was
   */
  inspect(accept: boolean): void {
    const marker = this.readMarker();
    const size = existsSync(this.database) ? statSync(this.database).size : -1;
    if (size <= 0) {
      if (!marker && size < 0 && !existsSync(`${this.database}-wal`)) return;
      if (!accept)
        throw new StartError(
          `${this.path} held a studio, but its database ${size < 0 ? 'is missing' : 'is empty'} (${this.database}). ${HELP}`,
        );
      rmSync(`${this.database}-wal`, { force: true });
      rmSync(`${this.database}-shm`, { force: true });
      rmSync(this.database, { force: true });
      this.dropMarker();
      return;
    }
    const wrong = isDatabase(this.database) ? this.damage(size) : 'it is not a database';
    if (wrong === 'full') throw this.full();
    if (wrong !== null) throw new StartError(`The database ${this.database} is damaged (${wrong}). ${HELP}`);
    const found = stampOf(this.database);
    if (!marker || accept) return;
    if (!found || found.studio !== marker.studio)
      throw new StartError(`The database ${this.database} is not the one that was kept here. ${HELP}`);
    if (found.place < marker.place)
      throw new StartError(
        `The database ${this.database} is older than it was: ${marker.place - found.place} writes are missing` +
          `${existsSync(`${this.database}-wal`) ? '' : ' (the file waxwing.sqlite-wal beside it is gone)'}. ${HELP}`,
      );
  }

  /**
   * What is wrong with the database in a few words, as far as a start has time to look; null when nothing is.
   * A full disk may end the carrying over of the log half-way: then the database is shorter than its head says, and the log holds the rest.
   */
  private damage(size: number): string | null {
    const short = tooShort(this.database);
    if (short !== null && !existsSync(`${this.database}-wal`)) return short;
    return short !== null || size < LOOKED_THROUGH ? damageOf(this.database) : null;
  }

  /** Which studio this is, from now on. */
  mark(marker: Marker): void {
    this.marker = marker;
    this.writeMarker();
  }

  /** The database has had so many writes. Put down at once: after a kill it tells of every write that was acknowledged. */
  note(place: number): void {
    if (!this.marker) return;
    this.marker = { ...this.marker, place };
    this.writeMarker();
  }

  space(): Space {
    const { bavail, bsize } = statfsSync(this.path);
    const freeBytes = bavail * bsize;
    return { freeBytes, low: freeBytes < LOW_BYTES };
  }

  full(): StartError {
    return new StartError(`The disk of ${this.path} is full. Make room on it, then start again. Nothing was changed.`);
  }

  private get markerFile(): string {
    return join(this.path, 'studio.json');
  }

  private readMarker(): Marker | null {
    try {
      const { studio, place } = JSON.parse(readFileSync(this.markerFile, 'utf8')) as Partial<Marker>;
      return typeof studio === 'string' && typeof place === 'number' ? { studio, place } : null;
    } catch {
      return null;
    }
  }

  private dropMarker(): void {
    rmSync(this.markerFile, { force: true });
  }

  /**
   * Written over itself, which takes microseconds and no room on a full disk. It is not flushed: where the power goes it may be behind, and is
   * never wrong.
   */
  private writeMarker(): void {
    if (!this.marker) return;
    try {
      this.markerHandle ??= openSync(this.markerFile, existsSync(this.markerFile) ? 'r+' : 'w+', 0o600);
      writeSync(this.markerHandle, JSON.stringify(this.marker).padEnd(MARKER_BYTES), 0);
    } catch {
      // The disk is full; the next one may fit.
    }
  }
}

const HELP =
  'Bring back a backup with "npm run restore", put the missing file back, or go on with what is there by starting once with --accept-loss.';

/** Nobody else on this machine reads a studio. Whatever earlier versions left open is closed. */
export function closeToOthers(path: string): void {
  chmodSync(path, 0o700);
  for (const entry of readdirSync(path, { withFileTypes: true })) {
    const at = join(path, entry.name);
    if (entry.isFile()) chmodSync(at, 0o600);
    else if (entry.isDirectory() && FOLDERS.includes(entry.name)) closeToOthers(at);
  }
}

const HEADER = 'SQLite format 3\0';

/** The first bytes of a file. */
function headOf(file: string): Buffer {
  const bytes = Buffer.alloc(100);
  const handle = openSync(file, 'r');
  try {
    readSync(handle, bytes, 0, bytes.length, 0);
  } finally {
    closeSync(handle);
  }
  return bytes;
}

/** Whether a file begins as databases do. */
export const isDatabase = (file: string): boolean => headOf(file).toString('latin1', 0, HEADER.length) === HEADER;

/**
 * Whether a database is shorter than its own head says, in words; null when it is not.
 * @see https://www.sqlite.org/fileformat.html: the page size at 16, the number of pages at 28, which holds when the counters at 24 and 92 agree.
 */
function tooShort(file: string): string | null {
  const head = headOf(file);
  const page = head.readUInt16BE(16) === 1 ? 65_536 : head.readUInt16BE(16);
  const pages = head.readUInt32BE(28);
  if (head.readUInt32BE(24) !== head.readUInt32BE(92)) return null;
  const { size } = statSync(file);
  return size < page * pages ? `it ends after ${size} of ${page * pages} bytes` : null;
}

/**
 * What is wrong with a database and the log beside it in a few words, `full` for a disk without room to look; null when nothing is.
 * Only reads: closing a connection that may write would carry the log over, and fill what is missing with nothing.
 */
export function damageOf(file: string): string | null {
  try {
    const db = new Database(file, { fileMustExist: true, readonly: true });
    try {
      const verdict: unknown = db.pragma('quick_check(1)', { simple: true });
      return verdict === 'ok' ? null : (String(verdict).split('\n')[0] ?? '');
    } finally {
      db.close();
    }
  } catch (error) {
    if (isFull(error)) return 'full';
    return error instanceof Error ? (error.message.split('\n')[0] ?? '') : String(error);
  }
}

/** Which studio a database is and how many writes it has had; null for one of an earlier version. */
export function stampOf(file: string): Marker | null {
  const db = new Database(file, { fileMustExist: true });
  try {
    const has = db.prepare(`SELECT 1 FROM sqlite_master WHERE name = 'meta'`).get();
    return has ? (db.prepare('SELECT studio, place FROM meta').get() as Marker) : null;
  } finally {
    db.close();
  }
}

/** Whether an error says that the disk has no more room. */
export function isFull(error: unknown): boolean {
  const code = error instanceof Error && 'code' in error ? error.code : undefined;
  return (
    code === 'SQLITE_FULL' || code === 'ENOSPC' || code === 'SQLITE_IOERR_WRITE' || code === 'SQLITE_IOERR_SHMSIZE'
  );
}
