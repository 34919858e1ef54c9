/** `node owner.js`: on the studio's own machine, a new code for an owner who has lost passphrase and code. What cannot be done is told in one line. */
import { existsSync } from 'node:fs';

import Database from 'better-sqlite3';

import { dataFolderOf, StartError } from './config.js';
import { StudioFolder } from './database/studio-folder.js';
import { codeTyped, hashOf, newCode } from './door/secrets.js';

function run(env: NodeJS.ProcessEnv): void {
  const folder = new StudioFolder(dataFolderOf(env));
  if (!existsSync(folder.database)) throw new StartError(`There is no studio in ${folder.path}.`);
  folder.claim();
  const db = new Database(folder.database, { fileMustExist: true });
  try {
    const known = db.prepare(`SELECT 1 FROM sqlite_master WHERE name = 'accounts'`).get();
    const owners = known
      ? (db.prepare(`SELECT id, name FROM accounts WHERE role = 'owner' ORDER BY createdAt`).all() as {
          id: string;
          name: string;
        }[])
      : [];
    const [owner] = owners;
    if (!owner) throw new StartError('Nobody owns this studio yet: start Waxwing and say who does.');
    const code = newCode();
    db.prepare('UPDATE accounts SET recovery = ?, recoveryEndsAt = NULL, shutOutAt = NULL WHERE id = ?').run(
      hashOf(codeTyped(code)),
      owner.id,
    );
    console.log(`The code of ${owner.name} is now ${code}`);
    console.log('Start Waxwing, press “I have a code”, and choose a passphrase with it.');
  } finally {
    db.close();
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
