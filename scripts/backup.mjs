/** `npm run backup [file]` and `npm run restore -- FILE`: the whole studio as one file, and back. */
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';

import { ensureBuilt, ensureInstalled, ROOT } from './prepare.mjs';

ensureInstalled();
ensureBuilt();
const { status } = spawnSync(process.execPath, [join(ROOT, 'server/bundle/backup.js'), ...process.argv.slice(2)], {
  stdio: 'inherit',
});
process.exitCode = status ?? 1;
