/**
 * Finding by what a trainer would type: movements by name and alias, then by the faults they have, then by any word of their cues, muscles
 * and kit. Exact words and beginnings are tried first; only when they find nothing are typing mistakes forgiven, which keeps a keystroke quick.
 * Faults are found by their kinds first: however it is said, and whatever the movement calls it.
 */
import MiniSearch, { type QueryCombination, type SearchOptions } from 'minisearch';

import { buildKindFinder, type FaultKind } from './fault-kinds.js';
import { itemsOf } from './kit.js';
import { buildMentions, wordsIn } from './mentions.js';
import { SAME_WORDS } from './same-words.js';
import type { Movement } from './schema.js';
import type { SearchText } from './summary-schema.js';
import { inWords } from './words.js';

/** One kind of fault, or one fault by its name, and every movement that has it. */
export interface FoundFault {
  /** Null for a fault that is found by its own name. */
  kindId: string | null;
  name: string;
  looksLike: string;
  movements: { id: string; faultId: string }[];
}

export interface Finding {
  /** Ids of the best matches, best first, at most so many; and how many match in all. */
  movements: (words: string, most?: number) => { ids: string[]; total: number };
  /** Faults, best match first. */
  faults: (words: string, most?: number) => FoundFault[];
  /** The kind of fault that the words surely mean, whether or not a movement has it. */
  meant: (words: string) => FaultKind | undefined;
}

export const searchTextOf = (movement: Movement): SearchText => ({
  id: movement.id,
  name: movement.name,
  aliases: movement.aliases,
  cues: movement.cues.map((cue) => cue.text),
  faults: movement.faults.map(({ id, name, looksLike, kind }) => ({ id, name, looksLike, kind })),
  body: [movement.pattern, ...movement.families, ...movement.muscles.prime, ...movement.muscles.assist]
    .map(inWords)
    .join(' '),
  kit: itemsOf(movement.kit).map(inWords).join(' '),
  linked: movement.links.map(({ to }) => to),
});

const SYNONYMS = new Map(SAME_WORDS.flatMap((words) => words.map((word) => [word, words] as const)));

/** Little words that would otherwise have to be found as well. */
const SMALL = new Set(
  'a an and are as at by do for from goes has have in into is it its of on one or that the their to when where with'.split(
    ' ',
  ),
);

// Little words are left out of the indexes, and where they must be out of queries: `groupsOf` does that.
const EXACT: SearchOptions = { boost: { name: 2 }, processTerm: (term) => term };
// Two wrong letters, or two that changed places, in a word of five or more; one in a word of four.
const FORGIVING: SearchOptions = {
  ...EXACT,
  fuzzy: (term) => (term.length > 4 ? 2 : term.length > 3 ? 1 : false),
};

const processTerm = (term: string): string | null => {
  const lower = term.toLowerCase();
  return SMALL.has(lower) ? null : lower;
};

const SHORT = 2;

/** A word of a query with those that mean the same. */
interface Group {
  words: readonly string[];
  /** It stands for longer words that begin so as well: one that is still being typed, or that has no known others. */
  open: boolean;
}

/** @param same what else means the same as a word */
function groupsOf(query: string, same: ReadonlyMap<string, readonly string[]> = SYNONYMS): Group[] {
  const all = wordsIn(query);
  const known = all.filter((word) => !SMALL.has(word));
  // A little word alone is the beginning of a longer one: `for` on the way to `forearm`.
  const words = known.length > 0 ? known : all.slice(-1);
  return words.map((word, i) => ({
    words: same.get(word) ?? [word],
    open: i === words.length - 1 || !same.has(word),
  }));
}

/** A single letter stands for too many words to rank by when there are others; it still has to be mentioned. */
const telling = (groups: readonly Group[]): readonly Group[] => {
  const longer = groups.filter(({ words }) => words.some((word) => word.length > 1));
  return longer.length > 0 ? longer : groups;
};

const isShort = (groups: readonly Group[]): boolean =>
  groups.every(({ words }) => words.every((word) => word.length <= SHORT));

const queryOf = (groups: readonly Group[]): QueryCombination => ({
  combineWith: 'AND',
  queries: groups.map(({ words, open }) => ({ combineWith: 'OR', prefix: open, queries: [...words] })),
});

/** Ids in order of how well they match. */
const ranked = (index: MiniSearch, groups: readonly Group[], options: SearchOptions): string[] =>
  index.search(queryOf(groups), options).map((hit) => String(hit.id));

const firstOf = (ids: string[], most: number) => ({ ids: ids.slice(0, most), total: ids.length });

const NO_OTHERS: ReadonlyMap<string, readonly string[]> = new Map();

/** From here on a kind is what was meant. */
const MEANT = 0.6;
/** Share of the best kind's score that another needs to be named beside it. */
const BESIDE = 0.85;

/** A fault named one place later counts as much as so many ways less. */
const WAYS_A_PLACE = 4;

/** Links that lead to or from each movement. */
function waysThrough(texts: readonly SearchText[]): Map<string, number> {
  const ways = new Map<string, number>();
  for (const { id, linked } of texts)
    for (const one of [...linked, ...linked.map(() => id)]) ways.set(one, (ways.get(one) ?? 0) + 1);
  return ways;
}

/** In one movement, that share of the best is enough. */
const NEAREST = 0.7;

/**
 * Builds the indexes. Once a library change.
 * @param movementNames of the whole library, where only a part of it is searched
 */
export function buildFinding(
  texts: readonly SearchText[],
  kinds: readonly FaultKind[] = [],
  movementNames: readonly string[] = texts.map(({ name }) => name),
): Finding {
  // Names keep their little words: `one-and-a-half` is typed through them.
  const names = new MiniSearch({ fields: ['name', 'aliases'] });
  names.addAll(texts.map(({ id, name, aliases }) => ({ id, name, aliases: aliases.join('; ') })));
  const idByName = new Map(texts.map(({ id, name }) => [wordsIn(name).join(' '), id]));
  const mentions = buildMentions(
    texts.map(({ name, aliases, cues, faults, body, kit }) =>
      [name, ...aliases, ...cues, ...faults.flatMap((fault) => [fault.name, fault.looksLike]), body, kit].join(' '),
    ),
  );
  const kindFinder = buildKindFinder(kinds, movementNames);
  const alone = texts.length === 1;
  const groups = new Map<string, FoundFault>();
  const ofKind = new Map<string, FoundFault>();
  const place = new Map<string, number>();
  for (const { id, faults } of texts)
    for (const [i, fault] of faults.entries()) {
      place.set(`${id}/${fault.id}`, i);
      const member = { id, faultId: fault.id };
      const key = fault.name.toLowerCase();
      const group = groups.get(key) ?? { kindId: null, name: fault.name, looksLike: fault.looksLike, movements: [] };
      group.movements.push(member);
      groups.set(key, group);
      const kind = kindFinder.of(fault);
      if (!kind) continue;
      const all = ofKind.get(kind.id) ?? {
        kindId: kind.id,
        name: kind.name,
        looksLike: kind.words.slice(0, 3).join(', '),
        movements: [],
      };
      all.movements.push(member);
      ofKind.set(kind.id, all);
    }
  const placeOf = ({ id, faultId }: FoundFault['movements'][number]) => place.get(`${id}/${faultId}`) ?? 0;
  // First what most people do, and what it is known for: through the usual movements most ways go, and a movement names first what it shows most.
  const ways = waysThrough(texts);
  const usual = (one: FoundFault['movements'][number]) => (ways.get(one.id) ?? 0) - WAYS_A_PLACE * placeOf(one);
  for (const { movements } of ofKind.values()) movements.sort((a, b) => usual(b) - usual(a));
  const faults = new MiniSearch({ fields: ['name', 'looksLike'], processTerm });
  faults.addAll([...groups].map(([key, group]) => ({ id: key, name: group.name, looksLike: group.looksLike })));
  // Movements and faults are asked for with the same words, one after the other.
  let last: { words: string; meant: FaultKind[] } = { words: '', meant: [] };
  const kindsMeant = (words: string): FaultKind[] => {
    if (words !== last.words)
      last = {
        words,
        meant: kindFinder
          .find(words)
          .filter(({ kind, score }, _, all) => {
            const share = score / (all[0]?.score ?? 1);
            // Of one movement's few faults the nearest is meant, though it is said in other words.
            return (score >= MEANT && share >= BESIDE) || (alone && ofKind.has(kind.id) && share >= NEAREST);
          })
          .map(({ kind }) => kind),
      };
    return last.meant;
  };
  const having = (meant: readonly FaultKind[]): FoundFault[] => meant.flatMap(({ id }) => ofKind.get(id) ?? []);
  const faultsOf = (query: readonly Group[], options: SearchOptions): FoundFault[] =>
    ranked(faults, query, options).flatMap((key) => groups.get(key) ?? []);

  return {
    movements: (words, most = Infinity) => {
      const kind = having(kindsMeant(words));
      // Where a kind is meant it knows the other words for it already.
      const query = groupsOf(words, kind.length > 0 ? NO_OTHERS : SYNONYMS);
      if (query.length === 0) return { ids: [], total: 0 };
      if (isShort(query)) return firstOf(ranked(names, query, EXACT), most);
      const mentioned = mentions.find(query);
      if (mentioned.length === 0) {
        const near = (found: readonly FoundFault[]) => found.flatMap((fault) => fault.movements.map(({ id }) => id));
        const slips = kind.length > 0 ? [] : ranked(names, query, FORGIVING);
        return firstOf([...new Set([...near(kind), ...slips, ...near(faultsOf(query, FORGIVING))])], most);
      }
      // Every other answer mentions all the words: names come first, then faults, and the rest fills up what is asked for.
      const ids = new Set<string>();
      const exact = idByName.get(wordsIn(words).join(' '));
      if (exact !== undefined) ids.add(exact);
      const mentioning = new Set(mentioned.map((place) => texts[place]?.id));
      const take = (id: string) => mentioning.has(id) && ids.add(id);
      ranked(names, telling(query), EXACT).forEach(take);
      // Words that are in no name are of a fault: however a movement calls it, it belongs to the answer.
      if (ids.size === 0) for (const fault of kind) for (const { id } of fault.movements) ids.add(id);
      if (ids.size < most)
        for (const fault of faultsOf(telling(query), EXACT)) for (const { id } of fault.movements) take(id);
      for (let i = 0; i < mentioned.length && ids.size < most; i += 1) ids.add(texts[mentioned[i] ?? 0]?.id ?? '');
      return { ids: [...ids].slice(0, most), total: Math.max(mentioned.length, ids.size) };
    },
    faults: (words, most = 6) => {
      const meant = kindsMeant(words);
      const kind = having(meant);
      const query = groupsOf(words, kind.length > 0 ? NO_OTHERS : SYNONYMS);
      if (query.length === 0) return [];
      if (isShort(query)) return [];
      const said = words.trim().toLowerCase();
      const exact = groups.get(said);
      const named = faultsOf(telling(query), EXACT);
      // Slips are forgiven by the kinds already: letters alone would find what was not meant.
      const found = meant.length + named.length > 0 ? [...kind, ...named] : faultsOf(query, FORGIVING);
      // A fault by its own name comes first, unless that is the name of its kind.
      const first = exact && kind[0]?.name.toLowerCase() !== said ? [exact] : [];
      // What a kind already shows is not shown once more. Every group shares its members, so that they are told apart as they are.
      const shown = new Set<FoundFault['movements'][number]>();
      const answer: FoundFault[] = [];
      for (const one of new Set([...first, ...found])) {
        if (answer.length === most) break;
        if (one.movements.every((member) => shown.has(member))) continue;
        for (const member of one.movements) shown.add(member);
        answer.push(one);
      }
      return answer;
    },
    meant: (words) => kindsMeant(words)[0],
  };
}
