/** `npm run demo`: the demo studio, fresh each time, in a folder of its own. */
import { rmSync } from 'node:fs';
import { join } from 'node:path';

import { ensureBuilt, ensureInstalled, ROOT } from './prepare.mjs';
import { serve } from './serve.mjs';

ensureInstalled();
ensureBuilt();
const folder = join(ROOT, 'demo-data');
rmSync(folder, { recursive: true, force: true });
serve(['--demo'], { WAXWING_DATA: folder });
