/** Whether a text can be followed by somebody alone: its sentences, its reading age, and the words of the trade in it. */
import { syllable } from 'syllable';

/** Words that trainers use among themselves, or that mean something else to everybody else. */
const JARGON =
  /\b(?:belt|(?<!shoulder )blades?|traps?|lats|delts?|quads?|valgus|scapula\w*|prone|supine|anterior|posterior|eccentric|concentric|isometric|neutral spine|lock ?out|engage|activate|core|proud|a hand'?s? (?:width|breadth|higher|lower|wider|above|below))\b/i;

/** The first word of a text that a client would not understand; undefined where there is none. */
export const jargonIn = (text: string): string | undefined => JARGON.exec(text)?.[0];

export const sentencesIn = (text: string): string[] => text.split(/[.!?](?:\s|$)/).filter((one) => one.trim() !== '');

export const countWords = (text: string): number => text.split(/\s+/).filter((word) => /\p{L}|\d/u.test(word)).length;

/** Years of school that a text asks for (Kincaid and others 1975): about five less than the age of who can read it. */
export function schoolYears(text: string): number {
  const words = Math.max(1, countWords(text));
  return (0.39 * words) / Math.max(1, sentencesIn(text).length) + (11.8 * syllable(text)) / words - 15.59;
}
