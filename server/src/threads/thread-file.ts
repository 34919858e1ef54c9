/** Where the program of a thread lies: beside the server when it is bundled, else where the bundle is built. */
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

export function threadFile(name: string): string {
  const beside = fileURLToPath(new URL(`./${name}.js`, import.meta.url));
  return existsSync(beside) ? beside : fileURLToPath(new URL(`../../bundle/${name}.js`, import.meta.url));
}
