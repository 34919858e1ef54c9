/**
 * Fault kinds: what trainers see, whatever the movement, with the words in which they say it. A kind is known by its phrases: words are
 * compared by their stems, those that mean the same count as the same, and slips of the finger are forgiven word by word.
 */
import { distance } from 'fastest-levenshtein';
import { stemmer } from 'stemmer';

import { type Checked, checkedBy, slug, text } from '../schema/atoms.js';
import { z } from '../schema/zod.js';
import { wordsIn } from './mentions.js';
import { SAME_WORDS } from './same-words.js';
import { cause, viewsSchema } from './schema.js';
import { CORRECTION_KINDS, POSITIONS, QUANTITIES, REP_PARTS, SEVERITIES } from './vocabulary.js';

/** How a fault shows on a clip: a quantity that is more (or less) than in a clean rep of the movement by so much. */
export const measureSchema = z.strictObject({
  of: z.enum(QUANTITIES),
  /** Degrees or centimetres at which a trainer would call it; below nought where less of the quantity is the fault. */
  over: z.number().refine((over) => over !== 0, 'must not be 0'),
  /** So near to it nobody can tell. */
  give: z.number().positive(),
  in: z.enum(REP_PARTS),
  /** Which way is wrong differs by movement: it is the way in which the movement's own figure of the fault goes. */
  drawn: z.literal(true).optional(),
  /** In other positions it shows otherwise, and nothing is said of it. */
  positions: z.array(z.enum(POSITIONS)).min(1),
  /** False where nothing is said of who is bent over: their elbows, as they come back, are taken for shoulders. */
  bent: z.literal(false).optional(),
});
export type Measure = z.infer<typeof measureSchema>;

export const faultKindSchema = z.strictObject({
  id: slug,
  name: text(60),
  /** What it means for the client, and when it matters. */
  means: text(240),
  /** Usual; a movement may differ. */
  severity: z.enum(SEVERITIES),
  views: viewsSchema,
  /** Usual ones, most frequent first. */
  causes: z.array(cause).min(2, 'needs at least two causes'),
  /** Kinds of correction that tend to work, best first. */
  helps: z.array(z.enum(CORRECTION_KINDS)).min(2, 'needs at least two kinds of correction'),
  words: z.array(text(60)).min(3, 'needs at least three ways to say it'),
  /** Left out where no camera can tell. */
  measure: measureSchema.optional(),
});

export type FaultKind = z.infer<typeof faultKindSchema>;

const faultKindsSchema = z.array(faultKindSchema).superRefine((kinds, context) => {
  const said = new Map<string, string>();
  kinds.forEach(({ id, name, words }, i) => {
    if (kinds.findIndex((one) => one.id === id) < i)
      context.addIssue({ code: 'custom', path: [i, 'id'], message: `"${id}" is used twice` });
    for (const phrase of [name, ...words]) {
      const key = phrase.toLowerCase();
      const other = said.get(key);
      if (other !== undefined && other !== id)
        context.addIssue({ code: 'custom', path: [i, 'words'], message: `"${phrase}" belongs to "${other}" as well` });
      said.set(key, id);
    }
  });
});

/** Checks the vocabulary: ids are used once, and a phrase belongs to one kind. */
export const checkFaultKinds = (input: unknown): Checked<FaultKind[]> => checkedBy(faultKindsSchema, input);

const sayingsSchema = z.array(z.strictObject({ said: text(120), means: slug }));

/** What a trainer says of a fault, and the kind that is meant. */
export type Saying = z.infer<typeof sayingsSchema>[number];

/** Checks a list of sayings, which a finder is held to. */
export const checkSayings = (input: unknown): Checked<Saying[]> => checkedBy(sayingsSchema, input);

/** What a finder knows by its phrases. */
type Spoken = Pick<FaultKind, 'id' | 'name' | 'words'>;

export interface KindMatch<K extends Spoken = FaultKind> {
  kind: K;
  /** 0 to 1: how much of what was said, and of one of its phrases, is the same. */
  score: number;
}

export interface KindFinder<K extends Spoken = FaultKind> {
  /** Kinds that the words may mean, best first. */
  find: (words: string, most?: number) => KindMatch<K>[];
  /** The kind of a fault of a movement: as it says, or as its words make plain; undefined where that is not safe. */
  of: (fault: Named) => K | undefined;
}

interface Named {
  name: string;
  looksLike: string;
  kind?: string | undefined;
}

/** Words without weight of their own. Where to (in, out, up, down …) is half of what a fault is, and stays. */
const LITTLE = new Set(
  'a an and are as at be by can client do does for from get goes go has have her his i is it its of one or she he s t that the their them they this too very when where while with you your'.split(
    ' ',
  ),
);

const IRREGULAR: Readonly<Record<string, string>> = {
  feet: 'foot',
  fell: 'fall',
  came: 'come',
  bent: 'bend',
  isn: 'not',
  doesn: 'not',
  won: 'not',
};

const stemOf = (word: string): string => stemmer(IRREGULAR[word] ?? word);

const SAME_STEMS = new Map(
  SAME_WORDS.flatMap((words) => {
    const stems = new Set(words.map(stemOf));
    return [...stems].map((stem) => [stem, stems] as const);
  }),
);

const WORTH = {
  same: 1,
  /** Another word for it. */
  synonym: 0.9,
  /** The beginning of a longer word, as the last one that is being typed. */
  begun: 0.85,
  /** One letter wrong. */
  slip: 0.8,
  /** Two letters wrong, or two that changed places. */
  slips: 0.6,
  /** An unknown word, beside a known one. */
  unknown: 0.35,
  /** Share of the answer that hangs on how much of what was said is in the phrase; the rest on how much of the phrase was said. */
  said: 0.65,
} as const;

/** Below this nothing that matters is the same. */
const LEAST = 0.3;
/** From here on a name alone tells the kind of a fault; a less plain one from `LIKELY` on, where what it looks like says so too. */
const PLAIN = 0.9;
const LIKELY = 0.55;
const SAYS_SO = 0.33;

interface Phrase<K> {
  kind: K;
  stems: { stem: string; weight: number }[];
  /** Of all its stems. */
  whole: number;
}

/** How alike a said word and a known stem are, 0 to 1. */
function alike(word: string, stem: string, known: string, last: boolean): number {
  if (stem === known) return WORTH.same;
  if (SAME_STEMS.get(known)?.has(stem)) return WORTH.synonym;
  if (last && word.length > 1 && known.startsWith(word)) return WORTH.begun;
  return 0;
}

/** Two letters that stand side by side changed places: the commonest slip of all. */
function isSwapped(word: string, known: string): boolean {
  if (word.length !== known.length) return false;
  const at = [...word].findIndex((letter, i) => letter !== known[i]);
  return (
    at >= 0 && word[at] === known[at + 1] && word[at + 1] === known[at] && word.slice(at + 2) === known.slice(at + 2)
  );
}

/** The same for a word that is none of the known ones. */
function nearly(word: string, stem: string, known: string): number {
  if (word.length < 4 || Math.abs(stem.length - known.length) > 2) return 0;
  if (isSwapped(stem, known)) return WORTH.slip;
  const wrong = distance(stem, known);
  if (wrong === 1) return WORTH.slip;
  return wrong === 2 && word.length > 4 && word[0] === known[0] ? WORTH.slips : 0;
}

interface Heard {
  likeness: ReadonlyMap<string, number>;
  weight: number;
}

/** Words remembered; all are forgotten when there are more. */
const MOST_REMEMBERED = 5_000;

/** The same few thousand words come again and again. */
function remembered(hear: (word: string, last: boolean) => Heard): (word: string, last: boolean) => Heard {
  const known = new Map<string, Heard>();
  return (word, last) => {
    const key = last ? `${word}…` : word;
    const heard = known.get(key) ?? hear(word, last);
    if (known.size > MOST_REMEMBERED) known.clear();
    known.set(key, heard);
    return heard;
  };
}

/**
 * Builds the finder. Once a vocabulary.
 * @param names of movements: where one of their words says nothing of a fault, it only says where the fault was seen
 */
export function buildKindFinder<K extends Spoken>(kinds: readonly K[], names: readonly string[] = []): KindFinder<K> {
  const tellingIn = (words: string) => wordsIn(words).filter((word) => !LITTLE.has(word));
  const said = kinds.flatMap((kind) =>
    [kind.name, ...kind.words].map((words) => ({ kind, words, stems: tellingIn(words).map(stemOf) })),
  );
  const saidBy = new Map(said.map(({ kind, words }) => [words.toLowerCase(), kind]));
  const inKinds = new Map<string, Set<K>>();
  for (const { kind, stems } of said)
    for (const stem of stems) inKinds.set(stem, (inKinds.get(stem) ?? new Set()).add(kind));
  const known = [...inKinds.keys()];
  const places = new Set(
    names
      .flatMap(wordsIn)
      .map(stemOf)
      .filter((stem) => !inKinds.has(stem)),
  );
  // A word that few kinds have tells more.
  const weight = new Map(known.map((stem) => [stem, Math.log(1 + kinds.length / (inKinds.get(stem)?.size ?? 1))]));
  const usual = [...weight.values()].reduce((sum, one) => sum + one, 0) / Math.max(1, weight.size);
  const inPhrases = new Map<string, Phrase<K>[]>();
  for (const { kind, stems } of said) {
    const weighed = stems.map((stem) => ({ stem, weight: weight.get(stem) ?? usual }));
    const phrase = { kind, stems: weighed, whole: weighed.reduce((sum, one) => sum + one.weight, 0) };
    for (const stem of new Set(stems)) inPhrases.set(stem, [...(inPhrases.get(stem) ?? []), phrase]);
  }

  /** What a word is like, and how much it tells. */
  const hear = remembered((word: string, last: boolean): Heard => {
    const stem = stemOf(word);
    const likeness = new Map<string, number>();
    const compare = (like: (one: string) => number) => {
      for (const one of known) {
        const value = like(one);
        if (value > 0) likeness.set(one, value);
      }
    };
    compare((one) => alike(word, stem, one, last));
    if (likeness.size === 0) compare((one) => nearly(word, stem, one));
    const most = Math.max(0, ...[...likeness].map(([one, value]) => value * (weight.get(one) ?? usual)));
    return { likeness, weight: likeness.size > 0 ? most : usual * WORTH.unknown };
  });

  const find = (words: string, most = 6): KindMatch<K>[] => {
    const all = tellingIn(words);
    const telling = all.filter((word) => !places.has(stemOf(word)));
    const said = (telling.length > 0 ? telling : all).map((word, i, { length }) => hear(word, i === length - 1));
    const sum = said.reduce((sum, one) => sum + one.weight, 0);
    if (sum === 0) return [];
    const best = new Map<K, number>();
    // Only phrases that have a word like one that was said.
    const near = new Set(
      said.flatMap(({ likeness }) => [...likeness.keys()].flatMap((stem) => inPhrases.get(stem) ?? [])),
    );
    for (const { kind, stems, whole } of near) {
      let covered = 0;
      for (const one of said) {
        let most = 0;
        for (const { stem } of stems) most = Math.max(most, one.likeness.get(stem) ?? 0);
        covered += one.weight * most;
      }
      let heard = 0;
      for (const { stem, weight } of stems) {
        let most = 0;
        for (const one of said) most = Math.max(most, one.likeness.get(stem) ?? 0);
        heard += weight * most;
      }
      const score = (covered / sum) ** WORTH.said * (heard / whole) ** (1 - WORTH.said);
      if (score > (best.get(kind) ?? 0)) best.set(kind, score);
    }
    // Stems alone would not tell one hip that drops from both.
    const exact = saidBy.get(words.trim().toLowerCase());
    return [...best]
      .map(([kind, score]) => [kind, kind === exact ? Infinity : score] as const)
      .filter(([, score]) => score >= LEAST)
      .sort(([a, x], [b, y]) => y - x || kinds.indexOf(a) - kinds.indexOf(b))
      .slice(0, most)
      .map(([kind, score]) => ({ kind, score: Math.min(1, score) }));
  };

  const byId = new Map(kinds.map((kind) => [kind.id, kind]));
  const told = new Map<string, K | undefined>();
  const plain = ({ name, looksLike }: Named): K | undefined => {
    const named = find(name, 3);
    if ((named[0]?.score ?? 0) >= PLAIN) return named[0]?.kind;
    if ((named[0]?.score ?? 0) < LIKELY) return undefined;
    const seen = new Map(find(looksLike, kinds.length).map(({ kind, score }) => [kind, score]));
    const both = named
      .filter(({ kind, score }) => score >= LIKELY && (seen.get(kind) ?? 0) >= SAYS_SO)
      .map(({ kind, score }) => ({ kind, score: score + (seen.get(kind) ?? 0) }));
    return both.toSorted((a, b) => b.score - a.score)[0]?.kind;
  };
  return {
    find,
    of: (fault) => {
      if (fault.kind !== undefined) return byId.get(fault.kind);
      const key = `${fault.name}\n${fault.looksLike}`;
      if (!told.has(key)) told.set(key, plain(fault));
      return told.get(key);
    },
  };
}
