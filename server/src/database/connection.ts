/** How connections are set up. Every commit is on disk before it is acknowledged, and what is deleted is overwritten. */
import type Database from 'better-sqlite3';

/** Milliseconds to wait for another process that holds the file for a moment, such as a backup. */
const BUSY_MS = 4_000;

export function prepared(db: Database.Database): Database.Database {
  db.pragma(`busy_timeout = ${BUSY_MS}`);
  db.pragma('foreign_keys = ON');
  db.pragma('synchronous = FULL');
  db.pragma('secure_delete = ON');
  return db;
}

/** Pages of the write-ahead log from which a commit carries them over itself. Long before, a thread of its own does it (`checkpoints.ts`). */
const CHECKPOINT_PAGES = 50_000;

export function preparedForWriting(db: Database.Database): Database.Database {
  prepared(db);
  db.pragma('journal_mode = WAL');
  db.pragma(`wal_autocheckpoint = ${CHECKPOINT_PAGES}`);
  return db;
}
