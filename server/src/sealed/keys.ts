/** The key of a studio: in a file of its own outside of the data folder, for its user alone, or given by `WAXWING_KEY`. */
import { randomBytes } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

import { type KeyPlace, StartError } from '../config.js';
import { KEY_BYTES } from './sealer.js';

export const newKey = (): Buffer => randomBytes(KEY_BYTES);

export const keyFileOf = ({ folder }: KeyPlace, studio: string): string => join(folder, `${studio}.key`);

/** The keys of a studio, the one that seals first; null where there are none. @throws StartError for a file that holds none */
export function keysIn(place: KeyPlace, studio: string): [Buffer, ...Buffer[]] | null {
  if (place.given) return [place.given];
  const file = keyFileOf(place, studio);
  if (!existsSync(file)) return null;
  const keys = readFileSync(file, 'utf8')
    .split('\n')
    .filter((line) => line.trim() !== '')
    .map((line) => Buffer.from(line, 'base64'));
  const [first, ...others] = keys;
  if (!first || keys.some(({ length }) => length !== KEY_BYTES))
    throw new StartError(`The key file ${file} is damaged. Put back a copy of it; nothing was changed.`);
  return [first, ...others];
}

/** Puts keys down, the one that seals first. */
export function keepKeys(place: KeyPlace, studio: string, keys: readonly Buffer[]): void {
  mkdirSync(place.folder, { recursive: true, mode: 0o700 });
  const file = keyFileOf(place, studio);
  const text = keys.map((key) => `${key.toString('base64')}\n`).join('');
  writeFileSync(`${file}.part`, text, { mode: 0o600, flush: true });
  renameSync(`${file}.part`, file);
  chmodSync(file, 0o600);
}
