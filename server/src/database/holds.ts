/**
 * What holds whatever backup is brought back: who was deleted, who was shut out, and which passphrases are in force. It lies beside the
 * database, in a file that no restore replaces, and each start applies it to the database that it finds.
 */
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

import type Database from 'better-sqlite3';

/** An account as it was after so many changes: the later of two is in force. */
export interface HeldAccount {
  id: string;
  changes: number;
  role: string;
  passphrase: string | null;
  recovery: string | null;
  recoveryEndsAt: string | null;
  shutOutAt: string | null;
}

export interface Holds {
  studio: string;
  erased: { id: string; at: string }[];
  accounts: HeldAccount[];
  /** How the door stands. */
  door: string;
  /** A restore that the next start has yet to note. */
  restored: { at: string; file: string } | null;
}

const fileIn = (path: string): string => join(path, 'holds.json');

/** What holds in a folder; null where nothing was written down, or not for this studio. */
export function holdsIn(path: string, studio: string): Holds | null {
  try {
    const holds = JSON.parse(readFileSync(fileIn(path), 'utf8')) as Holds;
    return holds.studio === studio ? holds : null;
  } catch {
    return null;
  }
}

/** What holds by a database; null for one of an earlier version. */
export function holdsOf(db: Database.Database): Holds | null {
  const known = db.prepare(`SELECT 1 FROM pragma_table_info('accounts') WHERE name = 'changes'`).get();
  if (!known) return null;
  const { studio } = db.prepare('SELECT studio FROM meta').get() as { studio: string };
  return {
    studio,
    erased: db.prepare('SELECT id, at FROM erased ORDER BY id').all() as Holds['erased'],
    accounts: db
      .prepare('SELECT id, changes, role, passphrase, recovery, recoveryEndsAt, shutOutAt FROM accounts ORDER BY id')
      .all() as HeldAccount[],
    door: db.prepare('SELECT state FROM door').pluck().get() as string,
    restored: null,
  };
}

/** Puts down what holds. @throws when the disk is full */
export function keepHolds(path: string, holds: Holds): void {
  const text = JSON.stringify(holds);
  const file = fileIn(path);
  if (existsSync(file) && readFileSync(file, 'utf8') === text) return;
  writeFileSync(`${file}.part`, text, { mode: 0o600, flush: true });
  renameSync(`${file}.part`, file);
}
