/** Who read which words of the library, and when: a movement whose words changed since then is to be read again, whole and aloud. */
import { createHash } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';

import { canonical, type Movement } from '@waxwing/core/movement';
import { load } from 'js-yaml';

/** By movement: the day of the last reading (YYYY-MM-DD), and a hash of the words that were read. */
export type Readings = Record<string, { on: string; words: string }>;

export const loadReadings = (file: string): Readings => (load(readFileSync(file, 'utf8')) as Readings | null) ?? {};

/** All that is read or said of a movement; numbers and links may change without a new reading. */
export function wordsHash({ name, aliases, how, breath, feel, cues, faults, cautions }: Movement): string {
  const words = [
    [name, aliases, how, breath, feel ?? null, cautions],
    cues.map(({ phase, focus, text }) => [phase, focus, text]),
    faults.map((fault) => [
      fault.name,
      fault.looksLike,
      fault.severity,
      fault.corrections.map(({ kind, say, do: act, cueId, swapTo }) =>
        [kind, say, act, cueId, swapTo].map((x) => x ?? ''),
      ),
    ]),
  ];
  return createHash('sha256').update(canonical(words)).digest('hex').slice(0, 12);
}

/** Movements whose words were never read, or changed since they were, in order of their ids. */
export const toBeRead = (movements: readonly Movement[], readings: Readings): string[] =>
  movements
    .filter((movement) => readings[movement.id]?.words !== wordsHash(movement))
    .map(({ id }) => id)
    .sort();

/** Notes that these movements were read as they are on a day; readings of movements that are no more are left out. */
export function noteReadings(file: string, movements: readonly Movement[], ids: readonly string[], on: string): void {
  const before = loadReadings(file);
  const read = new Set(ids);
  const after = movements
    .toSorted((a, b) => a.id.localeCompare(b.id))
    .flatMap((movement): [string, Readings[string]][] => {
      if (read.has(movement.id)) return [[movement.id, { on, words: wordsHash(movement) }]];
      const known = before[movement.id];
      return known ? [[movement.id, known]] : [];
    });
  const lines = after.map(([id, reading]) => `${id}: { on: '${reading.on}', words: '${reading.words}' }`);
  writeFileSync(file, `${HEAD}${lines.join('\n')}\n`);
}

const HEAD = `# When each movement was last read word by word, and a hash of what was read: \`npm run read -w library -- <day> <id> …\` notes it.\n`;
