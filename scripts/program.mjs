/** `npm run owner`: a new code for an owner who can sign in no more; `npm run new-key`: another key for health notes. Waxwing must be stopped. */
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';

import { ensureBuilt, ensureInstalled, ROOT } from './prepare.mjs';

ensureInstalled();
ensureBuilt();
const { status } = spawnSync(process.execPath, [join(ROOT, 'server/bundle', `${process.argv[2]}.js`)], {
  stdio: 'inherit',
});
process.exitCode = status ?? 1;
