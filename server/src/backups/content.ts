/** Whether a backup holds what it held when it was made. A database that has lost a bit may still be a whole one, with another word in it. */
import { createHash } from 'node:crypto';

import type Database from 'better-sqlite3';

const CHECK = 'backup_check';

/** A fingerprint of every row of every table. */
function contentOf(db: Database.Database): string {
  const hash = createHash('sha256');
  const tables = db
    .prepare(`SELECT name FROM sqlite_master WHERE type = 'table' AND name <> ? ORDER BY name`)
    .pluck()
    .all(CHECK) as string[];
  for (const table of tables) {
    hash.update(`\n${table}\n`);
    // Row by row as they lie: by an index, one that has gone wrong would go unseen.
    for (const row of db.prepare(`SELECT * FROM "${table}" NOT INDEXED`).raw().iterate() as Iterable<unknown[]>)
      hash.update(JSON.stringify(row.map((value) => (Buffer.isBuffer(value) ? value.toString('base64') : value))));
  }
  return hash.digest('hex');
}

/** Lays a fingerprint of its content into a backup that was made, or lawfully changed. */
export function layContentIn(db: Database.Database): void {
  db.exec(`CREATE TABLE IF NOT EXISTS ${CHECK} (content TEXT NOT NULL); DELETE FROM ${CHECK}`);
  db.prepare(`INSERT INTO ${CHECK} (content) VALUES (?)`).run(contentOf(db));
}

const hasContent = (db: Database.Database): boolean =>
  db.prepare('SELECT 1 FROM sqlite_master WHERE name = ?').get(CHECK) !== undefined;

/** Whether a backup is as it was made; one of an earlier version cannot be told. */
export function isAsMade(db: Database.Database): boolean {
  try {
    if (!hasContent(db)) return true;
    // Its indexes agree with its rows, and its rows with what they were.
    if (db.pragma('integrity_check(1)', { simple: true }) !== 'ok') return false;
    return db.prepare(`SELECT content FROM ${CHECK}`).pluck().get() === contentOf(db);
  } catch {
    // A row of it cannot even be read.
    return false;
  }
}

/** The same after a change that is meant: one that was not as it was made does not become so by it. */
export function changed(db: Database.Database, change: () => void): void {
  const whole = hasContent(db) && isAsMade(db);
  change();
  if (whole) layContentIn(db);
}

/** What was brought back is no backup any more. */
export const dropContent = (db: Database.Database): void => void db.exec(`DROP TABLE IF EXISTS ${CHECK}`);
