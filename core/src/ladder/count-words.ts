/** Whether seconds that are counted aloud are those of the tempo. */
import { parseTempo } from '../movement/tempo.js';

const NUMBERS: Readonly<Record<string, number>> = {
  one: 1,
  a: 1,
  two: 2,
  three: 3,
  four: 4,
  five: 5,
  six: 6,
  eight: 8,
  ten: 10,
};
const COUNTED = new RegExp(
  `\\b(${Object.keys(NUMBERS).join('|')}|\\d+) (?:slow |long |full |quiet |even )*(?:counts?|seconds?)\\b`,
  'gi',
);

/** The first number of seconds in a text that no part of a tempo lasts; undefined where all of them fit. A text without any fits. */
export function countUnlike(text: string, tempo: string): number | undefined {
  for (const [, said = ''] of text.matchAll(COUNTED)) {
    const seconds = NUMBERS[said.toLowerCase()] ?? Number(said);
    if (!parseTempo(tempo).includes(seconds)) return seconds;
  }
  return undefined;
}
