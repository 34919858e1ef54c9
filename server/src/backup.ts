/** `node backup.js backup [file]` and `node backup.js restore file`. What cannot be done is told in one line. */
import { join, resolve } from 'node:path';

import { type Counts, makeBackup, restoreBackup } from './backups/backup-file.js';
import { dataFolderOf, keyPlaceOf, StartError } from './config.js';
import { isFull } from './database/studio-folder.js';
import { wrongInPassphrase } from './door/secrets.js';

const told = ({ clients, sessions, events, plans, movements, pictures }: Counts): string =>
  `${clients} clients, ${sessions} sessions with ${events} taps, ${plans} plans, ${movements} movements, ${pictures} pictures`;

async function run([what, file]: readonly string[], env: NodeJS.ProcessEnv): Promise<void> {
  const folder = dataFolderOf(env);
  const lock = { keys: keyPlaceOf(env), passphrase: env.WAXWING_PASSPHRASE ?? '' };
  if (what === 'backup') {
    const name = `waxwing-${new Date().toISOString().slice(0, 16).replace(':', '')}.backup`;
    const wrong = lock.passphrase && (await wrongInPassphrase(lock.passphrase, []));
    if (wrong) throw new StartError(`WAXWING_PASSPHRASE ${wrong}. Nothing was written.`);
    const target = file ? resolve(file) : join(folder, 'backups', name);
    const counts = makeBackup(folder, target, lock.passphrase ? lock : null);
    console.log(`Written and verified: ${target} (${told(counts)}).`);
    if (file && !lock.passphrase)
      console.log(
        'Its health notes open with the key of this machine alone; set WAXWING_PASSPHRASE to take the key along.',
      );
  } else if (what === 'restore' && file) {
    const { counts, aside } = restoreBackup(resolve(file), folder, new Date(), lock);
    console.log(`${folder} holds ${told(counts)}.`);
    if (aside) console.log(`What was there before lies in ${aside}.`);
  } else throw new StartError('Say which file to bring back: npm run restore -- FILE');
}

process.umask(0o077);
try {
  await run(process.argv.slice(2), process.env);
} catch (error) {
  if (error instanceof StartError) console.error(error.message);
  else if (isFull(error)) console.error('The disk is full: nothing was written. Make room, then try again.');
  else console.error(error instanceof Error ? error.message : String(error));
  process.exit(1);
}
