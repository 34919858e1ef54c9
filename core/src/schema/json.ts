/** JSON text from outside, looked at before it is parsed: how deep it goes, how many keys an object has, and whether one comes twice. */
import type { Problem } from './problem.js';

/** No document here is deeper; far deeper ones only serve to exhaust whoever reads them. */
export const DEEPEST_JSON = 40;

/** No object here has more keys; far more only serve to keep whoever judges them at work. */
export const MOST_KEYS = 1_000;

/** What may be open while text is looked through: an object with the keys that it has so far, or a list. */
type Open = Set<string> | null;

/**
 * What is wrong with JSON text before its contents are judged; null when nothing is. Text that is no JSON at all is left to the parser.
 * One pass, no recursion: time and memory grow with the text alone.
 */
export function wrongInJson(text: string): Problem | null {
  const open: Open[] = [];
  for (let i = 0; i < text.length; i += 1) {
    const c = text.charCodeAt(i);
    if (c === OBJECT || c === LIST) {
      open.push(c === OBJECT ? new Set() : null);
      if (open.length > DEEPEST_JSON)
        return { path: 'body', message: `must not be nested deeper than ${DEEPEST_JSON}` };
    } else if (c === OBJECT_END || c === LIST_END) open.pop();
    else if (c === QUOTE) {
      const end = endOfString(text, i);
      const keys = open.at(-1);
      if (keys && isKey(text, end)) {
        const key = keyOf(text.slice(i, end + 1));
        if (key === '__proto__') return { path: key, message: 'is not a known field' };
        if (keys.has(key)) return { path: key, message: 'is given twice' };
        keys.add(key);
        if (keys.size > MOST_KEYS)
          return { path: 'body', message: `must not have more than ${MOST_KEYS} fields in one place` };
      }
      i = end;
    }
  }
  return null;
}

const [OBJECT, OBJECT_END, LIST, LIST_END, QUOTE, BACKSLASH] = [...'{}[]"\\'].map((c) => c.charCodeAt(0)) as [
  number,
  number,
  number,
  number,
  number,
  number,
];

/** Where a string that begins at `start` ends; the end of the text when it never does. */
function endOfString(text: string, start: number): number {
  for (let i = start + 1; i < text.length; i += 1) {
    const c = text.charCodeAt(i);
    if (c === BACKSLASH) i += 1;
    else if (c === QUOTE) return i;
  }
  return text.length;
}

/** A string in an object is a key when a colon follows. */
function isKey(text: string, end: number): boolean {
  for (let i = end + 1; i < text.length; i += 1) {
    const c = text[i];
    if (c === ':') return true;
    if (c !== ' ' && c !== '\n' && c !== '\r' && c !== '\t') return false;
  }
  return false;
}

function keyOf(quoted: string): string {
  try {
    return JSON.parse(quoted) as string;
  } catch {
    return quoted;
  }
}
