/** Whether a text can be followed by somebody alone: its sentences, its reading age, and the words of the trade in it. */
import { syllable } from 'syllable';

/** Words that trainers use among themselves, or that mean something else to everybody else. */
const JARGON =
  /\b(?:belt|(?<!shoulder )blades?|traps?|lats|delts?|quads?|valgus|scapula\w*|prone|supine|anterior|posterior|eccentric|concentric|isometric|neutral spine|lock ?out|engage|activate|core|proud|a hand'?s? (?:width|breadth|higher|lower|wider|above|below))\b/i;

/** The first word of a text that a client would not understand; undefined where there is none. */
export const jargonIn = (text: string): string | undefined => JARGON.exec(text)?.[0];

export const sentencesIn = (text: string): string[] => text.split(/[.!?](?:\s|$)/).filter((one) => one.trim() !== '');

/** Texts differ and their words do not: what a whole library is written in is some thousands of words. */
const syllablesKept = new Map<string, number>();

function syllablesIn(text: string): number {
  let sum = 0;
  for (const word of text.split(/\s+/)) {
    let count = syllablesKept.get(word);
    if (count === undefined) {
      count = syllable(word);
      syllablesKept.set(word, count);
    }
    sum += count;
  }
  return sum;
}

const LETTER = /[\p{L}\d]/u;
const SPACE = /\s/;
const isSpace = (char: string): boolean => char === ' ' || ((char < ' ' || char > '~') && SPACE.test(char));
const isLetter = (char: string): boolean => (char >= 'a' && char <= 'z') || LETTER.test(char);

/** What stands between spaces and has a letter or a figure in it. Character by character, since a library has a hundred thousand texts. */
export function countWords(text: string): number {
  let words = 0;
  let counted = false;
  for (const char of text) {
    if (isSpace(char)) counted = false;
    else if (!counted && isLetter(char)) {
      counted = true;
      words += 1;
    }
  }
  return words;
}

/** Years of school that a text asks for (Kincaid and others 1975): about five less than the age of who can read it. */
export function schoolYears(text: string): number {
  const words = Math.max(1, countWords(text));
  return (0.39 * words) / Math.max(1, sentencesIn(text).length) + (11.8 * syllablesIn(text)) / words - 15.59;
}
