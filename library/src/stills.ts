/** The telling posture of every figure as a still picture, made beforehand and kept beside the figures. */
import { readdirSync, readFileSync } from 'node:fs';
import { basename, join } from 'node:path';

export interface Stills {
  /** Ids of the movements that have one. */
  ids: readonly string[];
  /** An SVG file as text, read when it is first asked for; undefined for a movement without a figure. */
  of: (movementId: string) => string | undefined;
}

/** The stills of a folder. */
export function stillsIn(folder: string): Stills {
  const ids = readdirSync(folder)
    .filter((name) => name.endsWith('.svg'))
    .map((name) => basename(name, '.svg'))
    .sort();
  const known = new Set(ids);
  const read = new Map<string, string>();
  return {
    ids,
    of: (movementId) => {
      if (!known.has(movementId)) return undefined;
      const text = read.get(movementId) ?? readFileSync(join(folder, `${movementId}.svg`), 'utf8');
      read.set(movementId, text);
      return text;
    },
  };
}
