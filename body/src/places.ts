/** Where the baked skins are, and the hash of what they are made from. */
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

import type { BuildName } from './build.js';

const here = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

export const bakedFile = (build: BuildName): string => here(`../baked/${build}.bin`);

/** What the skin hangs on beside this workspace: the skeleton, and how it stands at rest. */
const FROM_CORE = ['skeleton', 'kinematics', 'rotation', 'rest', 'bones', 'skin', 'skin-file'];

/** Changes when a source changes from which a skin is made. */
export function sourcesHash(): string {
  const hash = createHash('sha256');
  const own = readdirSync(here('../src'))
    .filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts'))
    .sort()
    .map((name) => join(here('../src'), name));
  for (const file of [...own, ...FROM_CORE.map((name) => here(`../../core/src/body/${name}.ts`))])
    hash.update(readFileSync(file));
  return hash.digest('hex').slice(0, 16);
}
