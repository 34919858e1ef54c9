/**
 * The chain of the audit: every entry carries a mark over itself and the one before it, made with the key of the studio. One that is changed
 * or taken out by other means is found; and whoever has the database without its key cannot write the chain anew.
 */
import { createHash } from 'node:crypto';

import type Database from 'better-sqlite3';

import type { Sealer } from '../sealed/sealer.js';

/** An entry as it is marked. */
export interface Link {
  at: string;
  accountId: string | null;
  accountName: string;
  device: string;
  action: string;
  clientId: string | null;
  fields: string;
}

export const textOf = (
  before: string,
  { at, accountId, accountName, device, action, clientId, fields }: Link,
): string => JSON.stringify([before, at, accountId, accountName, device, action, clientId, fields]);

/** How earlier versions marked it: anybody can. */
const unkeyed = (text: string): string => createHash('sha256').update(text).digest('hex');

/** Where the chain begins when what was before it was let go. */
export interface Start {
  place: number;
  hash: string;
  mark: string;
}

export const startText = ({ place, hash }: Pick<Start, 'place' | 'hash'>): string => JSON.stringify([place, hash]);

/** Whether the chain begins where it was let go: from its very beginning on, or marked. */
export const isStart = (sealer: Sealer, start: Start): boolean =>
  start.place === 0 ? start.hash === '' : sealer.isMarked(startText(start), start.mark);

/**
 * Marks a chain with the key that marks now, where another did; one that is broken stays as it is, to be told.
 * @param older takes what earlier versions marked
 */
export function signChain(db: Database.Database, sealer: Sealer, older: boolean): void {
  const start = db.prepare('SELECT place, hash, mark FROM audit_start').get() as Start;
  const rows = db.prepare('SELECT * FROM audit ORDER BY place').all() as (Link & { place: number; hash: string })[];
  const isCurrent = (mark: string | undefined): boolean => mark === undefined || sealer.isMarkCurrent(mark);
  if (isCurrent(rows.at(-1)?.hash) && (start.place === 0 || isCurrent(start.mark))) return;
  if (!older && !isStart(sealer, start)) return;
  let before = start.hash;
  for (const row of rows) {
    const text = textOf(before, row);
    if (!sealer.isMarked(text, row.hash) && !(older && unkeyed(text) === row.hash)) return;
    before = row.hash;
  }
  // No entry is ever changed, says the database: but for this.
  const guards = db.prepare(GUARDS).all() as { name: string; sql: string }[];
  for (const { name } of guards) db.exec(`DROP TRIGGER ${name}`);
  const change = db.prepare('UPDATE audit SET hash = ? WHERE place = ?');
  before = start.hash;
  for (const row of rows) {
    before = sealer.mark(textOf(before, row));
    change.run(before, row.place);
  }
  db.prepare('UPDATE audit_start SET mark = ?').run(sealer.mark(startText(start)));
  for (const { sql } of guards) db.exec(sql);
}

const GUARDS = `SELECT name, sql FROM sqlite_master WHERE type = 'trigger' AND tbl_name = 'audit'`;
