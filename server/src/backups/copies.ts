/** Takes whoever was deleted out of a copy of the store: a backup, or what a restore put aside. */
import { rmSync } from 'node:fs';
import { basename } from 'node:path';

import Database from 'better-sqlite3';

import { eraseClient } from '../clients/erase.js';
import { prepared } from '../database/connection.js';
import { Statements } from '../database/statements.js';
import { openedFile } from '../plans/messages.js';
import type { Sealer } from '../sealed/sealer.js';
import { changed } from './content.js';

/**
 * A copy in which it cannot be done, because it has other tables or is damaged, goes as a whole: deleted for good is deleted everywhere.
 * One that somebody else is reading, or for which the disk has no room, stays until the next time.
 */
export function eraseInCopy(file: string, erased: readonly string[], sealer: Sealer): 'done' | 'waits' | 'removed' {
  try {
    const db = prepared(new Database(file));
    // Nobody waits here for who else has it open.
    db.pragma('busy_timeout = 0');
    try {
      const inside = new Set(db.prepare('SELECT id FROM clients').pluck().all());
      const ids = erased.filter((id) => inside.has(id));
      if (ids.length === 0) return 'done';
      db.transaction(() =>
        changed(db, () => {
          const hasFiles = db.prepare(`SELECT 1 FROM sqlite_master WHERE name = 'backup_files'`).get();
          for (const id of ids) {
            if (hasFiles) eraseMessages(db, id, sealer);
            eraseClient(new Statements(db, sealer), id);
          }
        }),
      ).immediate();
      // In a log of its own, what was taken out may still be there.
      db.pragma('wal_checkpoint(TRUNCATE)');
      return 'done';
    } finally {
      db.close();
    }
  } catch (error) {
    if (!isOfTheCopy(error)) return 'waits';
    for (const end of ['', '-wal', '-shm', '-journal']) rmSync(`${file}${end}`, { force: true });
    return 'removed';
  }
}

/** Whether it fails for what the copy is. One that is being read, or a disk without room, is nothing of the copy's: that may pass. */
function isOfTheCopy(error: unknown): boolean {
  const { code = '' } = error as { code?: string };
  return code === '' || /^SQLITE_(ERROR|CORRUPT|NOTADB|CONSTRAINT|MISMATCH)/.test(code);
}

/** Messages that were laid into a backup. */
function eraseMessages(db: Database.Database, clientId: string, sealer: Sealer): void {
  const messages = db.prepare(`SELECT path, bytes FROM backup_files WHERE path LIKE 'outbox/%.json'`).all() as {
    path: string;
    bytes: Buffer;
  }[];
  for (const { path, bytes } of messages)
    if (openedFile(sealer, basename(path), bytes)?.includes(clientId))
      db.prepare('DELETE FROM backup_files WHERE path IN (?, ?)').run(path, path.replace(/json$/, 'eml'));
}
