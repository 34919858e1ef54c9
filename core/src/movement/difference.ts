/** What changed between two versions of a document, in words that a trainer can read. */
import type { Change } from './version.js';
import { inWords } from './words.js';

type Json = null | boolean | number | string | Json[] | { [key: string]: Json };
type Keyed = { [key: string]: Json };

const isObject = (value: Json | undefined): value is Keyed =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const SINGULAR: Readonly<Record<string, string>> = {
  cues: 'cue',
  faults: 'fault',
  corrections: 'correction',
  links: 'link to',
};

/** What tells the entries of a list apart: its id, or for a link where it leads. */
const keyOf = (entry: Json): string | undefined => {
  if (!isObject(entry)) return undefined;
  const key = entry.id ?? entry.to;
  return typeof key === 'string' ? key : undefined;
};

const nameOf = (entry: Json): string => {
  if (!isObject(entry)) return String(entry);
  const name = entry.text ?? entry.name ?? entry.to ?? entry.id;
  return typeof name === 'string' ? name : JSON.stringify(name);
};

const fieldWords = (key: string): string => inWords(key.replace(/([A-Z])/g, ' $1').toLowerCase());

function say(value: Json | undefined): string {
  if (value === undefined || value === null) return 'nothing';
  if (Array.isArray(value)) return value.length === 0 ? 'none' : value.map(say).join(', ');
  if (isObject(value))
    return Object.entries(value)
      .map(([key, one]) => `${fieldWords(key)} ${say(one)}`)
      .join(', ');
  return String(value);
}

const same = (a: Json | undefined, b: Json | undefined): boolean => canonical(a) === canonical(b);

/** JSON with sorted keys: two documents are equal when these texts are. */
export function canonical(value: unknown): string {
  return JSON.stringify(value, (_, inner: unknown) =>
    inner !== null && typeof inner === 'object' && !Array.isArray(inner)
      ? Object.fromEntries(Object.entries(inner).sort(([a], [b]) => (a < b ? -1 : 1)))
      : inner,
  );
}

/** Every difference between two documents; none exactly when they hold the same. Lists of things with an id are compared by id. */
export function difference(before: object, after: object): Change[] {
  // Through JSON, so that what is left out and what is undefined are the same.
  return compare(JSON.parse(JSON.stringify(before)) as Json, JSON.parse(JSON.stringify(after)) as Json, '');
}

function compare(before: Json | undefined, after: Json | undefined, where: string): Change[] {
  if (same(before, after)) return [];
  if (isObject(before) && isObject(after)) {
    const keys = [...new Set([...Object.keys(before), ...Object.keys(after)])];
    return keys.flatMap((key) => compareField(key, before[key], after[key], where));
  }
  return [{ kind: 'changed', where, before: say(before), after: say(after) }];
}

function compareField(key: string, before: Json | undefined, after: Json | undefined, where: string): Change[] {
  const place = (name: string) => (where ? `${where}, ${name}` : name);
  if (
    Array.isArray(before) &&
    Array.isArray(after) &&
    [...before, ...after].every((entry) => keyOf(entry) !== undefined)
  )
    return compareLists(before, after, key, place);
  return compare(before, after, place(fieldWords(key)));
}

function compareLists(before: Json[], after: Json[], key: string, place: (name: string) => string): Change[] {
  const one = (entry: Json) => place(`${SINGULAR[key] ?? fieldWords(key)} “${nameOf(entry)}”`);
  const was = new Map(before.map((entry) => [keyOf(entry), entry]));
  const is = new Map(after.map((entry) => [keyOf(entry), entry]));
  const changes: Change[] = [];
  for (const [id, entry] of was) if (!is.has(id)) changes.push({ kind: 'removed', where: one(entry) });
  for (const [id, entry] of is) {
    const old = was.get(id);
    if (old === undefined) changes.push({ kind: 'added', where: one(entry) });
    else changes.push(...compare(old, entry, one(old)));
  }
  const order = (entries: Json[], others: Map<string | undefined, Json>) =>
    entries.map(keyOf).filter((id) => others.has(id));
  if (order(before, is).join() !== order(after, was).join())
    changes.push({ kind: 'moved', where: place(`order of ${fieldWords(key)}`) });
  return changes;
}
