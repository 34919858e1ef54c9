/** The telling postures of every figure as still pictures, made beforehand and kept beside the figures. */
import { readdirSync, readFileSync } from 'node:fs';
import { basename, join } from 'node:path';

export interface Stills {
  /** Ids of the movements that have one, and whether they have one of the start too. */
  ids: readonly string[];
  started: readonly string[];
  /** An SVG file as text, read when it is first asked for; undefined where there is none. */
  of: (movementId: string, which?: 'end' | 'start') => string | undefined;
}

const START = '.start';

/** The name of the picture of a rep's start; movements have no dot in their ids. */
export const startName = (movementId: string): string => `${movementId}${START}`;

/** The stills of a folder. */
export function stillsIn(folder: string): Stills {
  const names = readdirSync(folder)
    .filter((name) => name.endsWith('.svg'))
    .map((name) => basename(name, '.svg'))
    .sort();
  const known = new Set(names);
  const read = new Map<string, string>();
  return {
    ids: names.filter((name) => !name.endsWith(START)),
    started: names
      .filter((name) => name.endsWith(START))
      .map((name) => basename(name, START))
      .sort(),
    of: (movementId, which = 'end') => {
      const name = which === 'start' ? startName(movementId) : movementId;
      if (!known.has(name)) return undefined;
      const text = read.get(name) ?? readFileSync(join(folder, `${name}.svg`), 'utf8');
      read.set(name, text);
      return text;
    },
  };
}
