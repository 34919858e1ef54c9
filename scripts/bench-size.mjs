/** How much of the page comes before anything shows. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';

/**
 * @param {import('./measure.mjs').Row} row
 * @param {string} root of the project
 */
export function sizeOfThePage(row, root) {
  /** @type {Record<string, { file: string, isEntry?: boolean, imports?: string[] }>} */
  const manifest = JSON.parse(readFileSync(join(root, 'web/dist/.vite/manifest.json'), 'utf8'));
  /** @type {Set<string>} */
  const initial = new Set();
  const visit = (/** @type {string} */ key) => {
    if (initial.has(key)) return;
    initial.add(key);
    for (const other of manifest[key]?.imports ?? []) visit(other);
  };
  for (const [key, chunk] of Object.entries(manifest)) if (chunk.isEntry) visit(key);
  const bytes = [...initial].reduce(
    (sum, key) => sum + gzipSync(readFileSync(join(root, 'web/dist', manifest[key]?.file ?? ''))).length,
    0,
  );
  row('initial JavaScript, gzip', bytes / 1024, 'kB', 200);
}
