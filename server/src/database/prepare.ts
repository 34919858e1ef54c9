/** Before the application is put together: the folder is claimed and looked at, and an older database is copied and brought up to date. */
import { existsSync, mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';

import Database from 'better-sqlite3';
import { DataSource } from 'typeorm';

import { type KeyPlace, StartError } from '../config.js';
import { sealStudio } from '../sealed/seal-studio.js';
import { dataSourceOptions, MIGRATIONS } from './data-source.js';
import { closeToOthers, damageOf, isFull, stampOf, StudioFolder } from './studio-folder.js';

const NAMES = MIGRATIONS.map((Migration) => new Migration().name);

/**
 * Claims the folder and makes its database ready.
 * @param acceptLoss go on with a database that is not what it was
 * @throws StartError in one line for whatever stops the start; nothing is changed then, and the folder is free again
 */
export async function prepareFolder(path: string, acceptLoss: boolean, keys: KeyPlace): Promise<StudioFolder> {
  const folder = new StudioFolder(path);
  folder.claim();
  try {
    folder.inspect(acceptLoss);
    const older = existsSync(folder.database) && copyBefore(folder);
    const source = await new DataSource(dataSourceOptions(folder.database, 'migrate')).initialize();
    // What earlier versions deleted still lay in free pages.
    if (older) await source.query('VACUUM');
    await source.destroy();
    folder.sealer = sealStudio(folder.database, keys, acceptLoss);
    const stamp = stampOf(folder.database);
    if (!stamp) throw new StartError(`The database ${folder.database} could not be brought up to date.`);
    folder.mark(stamp);
    for (const name of [folder.pictures, folder.outbox, folder.backups])
      mkdirSync(name, { recursive: true, mode: 0o700 });
    closeToOthers(path);
    return folder;
  } catch (error) {
    folder.release();
    if (isFull(error)) throw folder.full();
    throw error;
  }
}

/** A verified copy before each change of the schema; false when none is due. @throws StartError for a database of a newer Waxwing, or when the copy is not whole */
function copyBefore(folder: StudioFolder): boolean {
  const done = migrationsIn(folder.database);
  const unknown = done.filter((name) => !NAMES.includes(name));
  if (unknown.length > 0)
    throw new StartError(
      `The database ${folder.database} was written by a newer Waxwing. Start that one; this one leaves it as it is.`,
    );
  if (done.length === 0 || done.length === NAMES.length) return false;
  mkdirSync(folder.backups, { recursive: true, mode: 0o700 });
  const copy = join(folder.backups, `before-${NAMES.at(-1)}.sqlite`);
  if (existsSync(copy) && damageOf(copy) === null) return true;
  rmSync(copy, { force: true });
  const db = new Database(folder.database);
  try {
    db.prepare('VACUUM INTO ?').run(copy);
  } finally {
    db.close();
  }
  const wrong = damageOf(copy);
  if (wrong !== null) throw new StartError(`The copy before the update is not whole (${wrong}). Nothing was changed.`);
  return true;
}

function migrationsIn(database: string): string[] {
  const db = new Database(database, { fileMustExist: true });
  try {
    const has = db.prepare(`SELECT 1 FROM sqlite_master WHERE name = 'migrations'`).get();
    return has
      ? (db.prepare('SELECT name FROM migrations ORDER BY id').all() as { name: string }[]).map(({ name }) => name)
      : [];
  } finally {
    db.close();
  }
}
