/** At the start: finds or makes the key of a studio, and seals what an earlier version or another key left. */
import Database from 'better-sqlite3';

import { type KeyPlace, StartError } from '../config.js';
import { signChain } from '../door/audit-chain.js';
import { LOST_NAME, plainFrom, SEALED, sealedFor, sealedIn, withoutTold } from './columns.js';
import { keepKeys, keyFileOf, keysIn, newKey } from './keys.js';
import { bringLimitsUpToDate } from './limits-today.js';
import { MAY_BE_TOLD, resealed } from './sealed-event.js';
import { Sealer } from './sealer.js';

/** The form that this version seals in: each text bound to its row. Before it, texts were bound to their column alone. */
const FORM = 2;

/** What lies there, and nothing is lost where it is left plain. */
const isEmpty = (value: string): boolean => value === '' || value === 'null' || value === '[]';

/**
 * @param acceptLoss go on without what a lost key had sealed
 * @throws StartError when something is sealed with a key that is not here
 */
export function sealStudio(database: string, place: KeyPlace, acceptLoss: boolean): Sealer {
  const db = new Database(database, { fileMustExist: true });
  try {
    const { studio, sealForm } = db.prepare('SELECT studio, sealForm FROM meta').get() as {
      studio: string;
      sealForm: number;
    };
    const found = keysIn(place, studio);
    const keys = found ?? [newKey()];
    const lost = new StartError(
      `What is noted of people's health is sealed, and its key is not in ${keyFileOf(place, studio)}. Put it back, set WAXWING_KEY, or bring back a backup with its passphrase. With --accept-loss Waxwing starts without those notes.`,
    );
    if (!found && somethingSealed(db) && !acceptLoss) throw lost;
    // The key first: what is sealed with one that is lost is lost.
    if (!found) keepKeys(place, studio, keys);
    const older = sealForm < FORM;
    const opener = new Sealer(keys, older);
    if (reseal(db, opener, acceptLoss ? null : lost) > 0) db.exec('VACUUM');
    // From here on nothing opens that is not bound to its row.
    const sealer = new Sealer(keys);
    bringLimitsUpToDate(db, sealer);
    db.transaction(() => {
      signChain(db, sealer, older);
      db.prepare('UPDATE meta SET sealForm = ?').run(FORM);
    })();
    return sealer;
  } finally {
    db.close();
  }
}

const somethingSealed = (db: Database.Database): boolean =>
  db.prepare(`SELECT 1 FROM events WHERE instr(document, '"sealed:') > 0 LIMIT 1`).get() !== undefined ||
  Object.entries(SEALED).some(([table, { columns }]) =>
    Object.keys(columns).some((column) =>
      db.prepare(`SELECT 1 FROM ${table} WHERE ${column} LIKE '%sealed:%' LIMIT 1`).get(),
    ),
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
    for (const [table, { row: keys, columns: hows }] of Object.entries(SEALED)) {
      const columns = Object.keys(hows);
      const rows = db.prepare(`SELECT ${[...keys, ...columns].join(', ')} FROM ${table}`).all() as Record<
        string,
        string | number | null
      >[];
      for (const row of rows)
        for (const column of columns) {
          const value = row[column];
          if (value === null || value === undefined || isEmpty(String(value))) continue;
          const text = String(value);
          const sealed = sealedIn(text, table, column);
          if (sealed !== undefined && sealer.isCurrent(sealed)) continue;
          if (lost && sealed !== undefined && !sealer.knows(sealed)) throw lost;
          const plain = plainFrom(sealer, text, table, column, row);
          // What was changed by other means is met when it is read.
          if (plain === undefined && lost) continue;
          const next =
            plain === undefined ? whatIsLeft(text, table, column) : sealedFor(sealer, plain, table, column, row);
          // What is damaged lies as it is.
          if (next === text) continue;
          db.prepare(`UPDATE ${table} SET ${column} = ? WHERE ${keys.map((key) => `${key} = ?`).join(' AND ')}`).run(
            next,
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
  painsOver: '[]',
  benchmarks: '[]',
  bodyKg: null,
  name: LOST_NAME,
  // Made anew from the events.
  document: 'null',
};

const whatIsLeft = (text: string, table: string, column: string): string | null =>
  ['plans.document', 'sessions.programme'].includes(`${table}.${column}`)
    ? withoutTold(text, table, column)
    : column in LOST
      ? (LOST[column] ?? null)
      : '';
