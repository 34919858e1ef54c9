/** At the start: finds or makes the key of a studio, and seals what an earlier version or another key left. */
import Database from 'better-sqlite3';

import { type KeyPlace, StartError } from '../config.js';
import { sealedFor, textIn } from './columns.js';
import { keepKeys, keyFileOf, keysIn, newKey } from './keys.js';
import { bringLimitsUpToDate } from './limits-today.js';
import { MAY_BE_TOLD, resealed } from './sealed-event.js';
import { isSealed, SEALED, Sealer } from './sealer.js';

/** What lies there, and nothing is lost where it is left plain. */
const isEmpty = (value: string): boolean => value === '' || value === 'null' || value === '[]';

/**
 * @param acceptLoss go on without what a lost key had sealed
 * @throws StartError when something is sealed with a key that is not here
 */
export function sealStudio(database: string, place: KeyPlace, acceptLoss: boolean): Sealer {
  const db = new Database(database, { fileMustExist: true });
  try {
    const { studio } = db.prepare('SELECT studio FROM meta').get() as { studio: string };
    const found = keysIn(place, studio);
    const keys = found ?? [newKey()];
    const lost = new StartError(
      `What is noted of people's health is sealed, and its key is not in ${keyFileOf(place, studio)}. Put it back, set WAXWING_KEY, or bring back a backup with its passphrase. With --accept-loss Waxwing starts without those notes.`,
    );
    if (!found && somethingSealed(db) && !acceptLoss) throw lost;
    // The key first: what is sealed with one that is lost is lost.
    if (!found) keepKeys(place, studio, keys);
    const sealer = new Sealer(keys);
    if (reseal(db, sealer, acceptLoss ? null : lost) > 0) db.exec('VACUUM');
    bringLimitsUpToDate(db, sealer);
    return sealer;
  } finally {
    db.close();
  }
}

const somethingSealed = (db: Database.Database): boolean =>
  db.prepare(`SELECT 1 FROM events WHERE instr(document, '"sealed:') > 0 LIMIT 1`).get() !== undefined ||
  Object.entries(SEALED).some(([table, columns]) =>
    columns.some((column) => db.prepare(`SELECT 1 FROM ${table} WHERE ${column} LIKE '%sealed:%' LIMIT 1`).get()),
  );

/**
 * @param lost thrown where a key is missing; null to go on without what it sealed
 * @returns how many were sealed anew
 */
function reseal(db: Database.Database, sealer: Sealer, lost: StartError | null): number {
  let done = 0;
  const one = db.transaction(() => {
    const change = db.prepare('UPDATE events SET document = ? WHERE place = ?');
    const told = db.prepare<[], { place: number; document: string }>(
      `SELECT place, document FROM events WHERE ${MAY_BE_TOLD}`,
    );
    for (const { place, document } of told.all()) {
      const text = resealed(document, sealer, lost);
      if (text === null) continue;
      change.run(text, place);
      done += 1;
    }
    for (const [table, columns] of Object.entries(SEALED)) {
      const keys = db.prepare('SELECT name FROM pragma_table_info(?) WHERE pk > 0').pluck().all(table) as string[];
      if (keys.length === 0) continue;
      const rows = db.prepare(`SELECT ${[...keys, ...columns].join(', ')} FROM ${table}`).all() as Record<
        string,
        string | null
      >[];
      for (const row of rows)
        for (const column of columns) {
          const value = row[column];
          if (value === null || value === undefined || isEmpty(value)) continue;
          const text = textIn(value);
          if (isSealed(text) && sealer.isCurrent(text)) continue;
          const where = `${table}.${column}`;
          const plain = isSealed(text) ? sealer.open(text, where) : value;
          if (lost && isSealed(text) && !sealer.knows(text)) throw lost;
          // What was changed by other means is met when it is read.
          if (plain === undefined && lost) continue;
          db.prepare(`UPDATE ${table} SET ${column} = ? WHERE ${keys.map((key) => `${key} = ?`).join(' AND ')}`).run(
            plain === undefined ? (LOST[column] ?? '') : sealedFor(sealer, plain, table, column),
            ...keys.map((key) => row[key]),
          );
          done += 1;
        }
    }
  });
  one();
  return done;
}

/** What stands for a note whose key is lost. A limit of which nothing is known closes nothing: the note says that one was there. */
const LOST: Readonly<Record<string, string | null>> = {
  healthNote: 'What was noted here is lost with its key. Ask again, limits as well.',
  readiness: null,
  today: null,
  limits: '[]',
  cleared: '[]',
  // Made anew from the events.
  document: 'null',
};
