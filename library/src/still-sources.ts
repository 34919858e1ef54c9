/** What stills are made from: whether they are of today is told by a hash of it. */
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

import { readFiles } from './load.js';
import { FIGURES, SKINS } from './places.js';

const BODY = fileURLToPath(new URL('../../core/src/body/', import.meta.url));

/** Looks at what is drawn, and draws nothing. */
const DRAWS_NOTHING = 'proven-demands.ts';

/** The file that says what the stills of a folder were made from. */
export const madeFrom = (folder: string): string => join(folder, 'made-from.txt');

/** Changes when a figure, the skin or what draws them changes. */
export function stillsHash(): string {
  const hash = createHash('sha256');
  for (const { name, text } of readFiles(FIGURES)) hash.update(name).update(text);
  const drawing = readdirSync(BODY)
    .filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts') && name !== DRAWS_NOTHING)
    .sort()
    .map((name) => join(BODY, name));
  for (const file of [...Object.values(SKINS), ...drawing]) hash.update(readFileSync(file));
  return hash.digest('hex').slice(0, 16);
}
