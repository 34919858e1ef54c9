/** `node new-key.js`: another key for what lies sealed; all of it is sealed anew at once. Older keys stay for older backups. */
import { existsSync } from 'node:fs';

import Database from 'better-sqlite3';

import { dataFolderOf, keyPlaceOf, StartError } from './config.js';
import { StudioFolder } from './database/studio-folder.js';
import { keepKeys, keyFileOf, keysIn, newKey } from './sealed/keys.js';
import { sealStudio } from './sealed/seal-studio.js';

function run(env: NodeJS.ProcessEnv): void {
  const folder = new StudioFolder(dataFolderOf(env));
  const place = keyPlaceOf(env);
  if (place.given) throw new StartError('The key is given by WAXWING_KEY: change it where it is set.');
  if (!existsSync(folder.database)) throw new StartError(`There is no studio in ${folder.path}.`);
  folder.claim();
  try {
    const db = new Database(folder.database, { readonly: true });
    const { studio } = db.prepare('SELECT studio FROM meta').get() as { studio: string };
    db.close();
    const keys = keysIn(place, studio);
    if (!keys) throw new StartError(`There is no key ${keyFileOf(place, studio)}: start Waxwing once first.`);
    keepKeys(place, studio, [newKey(), ...keys]);
    sealStudio(folder.database, place, false);
    console.log(`Health notes are sealed with a new key, the first in ${keyFileOf(place, studio)}.`);
    console.log('The others there open older backups: take them out when those are gone.');
  } finally {
    folder.release();
  }
}

process.umask(0o077);
try {
  run(process.env);
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error));
  process.exit(1);
}
