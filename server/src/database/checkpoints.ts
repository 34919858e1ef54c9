/**
 * Carries the write-ahead log over into the database, in a thread of its own: after a large import that takes longer than a tap may wait.
 * It never blocks a writer; what it does not get done it does the next time.
 */
import { statSync } from 'node:fs';
import { workerData } from 'node:worker_threads';

import Database from 'better-sqlite3';

const LOOK_MS = 1_000;
/** A log that is smaller is left as it is. */
const LARGE_BYTES = 4 * 1024 * 1024;

const database = workerData as string;

function carryOver(): void {
  try {
    if (statSync(`${database}-wal`).size < LARGE_BYTES) return;
    const db = new Database(database, { fileMustExist: true });
    try {
      db.pragma('secure_delete = ON');
      db.pragma('wal_checkpoint(PASSIVE)');
    } finally {
      db.close();
    }
  } catch {
    // The disk is full, or there is no log; it is tried again.
  }
}

setInterval(carryOver, LOOK_MS);
