/** Slugs of the vocabulary as people read them. */
import type { Correction, Cue, KitNeed, KitOption } from './schema.js';
import type {
  Demand,
  Direction,
  DoseMode,
  Focus,
  KitItem,
  Lever,
  Limited,
  Plane,
  Position,
  Severity,
  Sides,
  Space,
  View,
} from './vocabulary.js';

const SPECIAL: Readonly<Record<string, string>> = {
  'set-up': 'Set-up',
  'push-up': 'Push-up',
  'all-fours': 'All fours',
  'side-lying': 'Side-lying',
  leverLength: 'Lever length',
};

/** A slug as a label: `outer-hips` → `Outer hips`. */
export function label(slug: string): string {
  const spaced = slug.replaceAll('-', ' ');
  return SPECIAL[slug] ?? spaced.charAt(0).toUpperCase() + spaced.slice(1);
}

/** A slug inside a sentence: `outer-hips` → `outer hips`. */
export const inWords = (slug: string): string => slug.replaceAll('-', ' ');

/** The detail of a cause: `set-up/stance-too-narrow` → `stance too narrow`. */
export const causeWords = (cause: string): string => inWords(cause.slice(cause.indexOf('/') + 1));

export const SEVERITY_WORDS: Readonly<Record<Severity, string>> = {
  stop: 'Stop now',
  fix: 'Fix before adding',
  polish: 'Polish',
};

export const FOCUS_WORDS: Readonly<Record<Focus, string>> = { inward: 'Inward', outward: 'Outward', image: 'Image' };

const VIEW_WORDS: Readonly<Record<View, string>> = {
  front: 'In front',
  side: 'At the side',
  back: 'Behind',
  oblique: 'At a corner',
};
/** Beside somebody who lies one side is seen from above, and the other end is the head's: nobody stands between the feet. */
const LYING_WORDS: Readonly<Partial<Record<Position, Readonly<Partial<Record<View, string>>>>>> = {
  supine: { front: 'From above', back: 'At the head’s end' },
  prone: { front: 'At the head’s end', back: 'From above' },
  'side-lying': { side: 'From above' },
};

/** Where to stand for a view of somebody in a position. */
export const viewWords = (view: View, position?: Position): string =>
  (position && LYING_WORDS[position]?.[view]) ?? VIEW_WORDS[view];

export const PLANE_WORDS: Readonly<Record<Plane, string>> = {
  sagittal: 'forward and back',
  frontal: 'side to side',
  transverse: 'turning',
};

/** The unit of a dose, short: `8 reps`, `20 s`, `15 m`. */
export const UNIT_WORDS: Readonly<Record<DoseMode, string>> = { reps: 'reps', time: 's', distance: 'm' };

export const SPACE_WORDS: Readonly<Record<Space, string>> = {
  spot: 'a spot to stand',
  mat: 'a mat',
  lane: 'a lane to travel',
};

export const SIDES_WORDS: Readonly<Record<Sides, string>> = {
  both: 'both sides together',
  alternating: 'sides take turns',
  each: 'one side, then the other',
};

const LEVER_CHANGE: Readonly<Record<Lever, Readonly<Record<'easier' | 'harder', string>>>> = {
  load: { easier: 'less load', harder: 'more load' },
  depth: { easier: 'less depth', harder: 'more depth' },
  base: { easier: 'a steadier base', harder: 'a less steady base' },
  leverLength: { easier: 'a shorter lever', harder: 'a longer lever' },
  tempo: { easier: 'an easier tempo', harder: 'a harder tempo' },
  assistance: { easier: 'more support', harder: 'less support' },
  coordination: { easier: 'simpler to coordinate', harder: 'more to coordinate' },
  impact: { easier: 'less impact', harder: 'more impact' },
  plane: { easier: 'a simpler direction', harder: 'a new direction' },
  range: { easier: 'a smaller range', harder: 'a larger range' },
  speed: { easier: 'slower', harder: 'faster' },
  grip: { easier: 'an easier grip', harder: 'a harder grip' },
};

/** What a link changes: (`leverLength`, `easier`) → `a shorter lever`. */
export const leverWords = (lever: Lever, direction: Direction): string =>
  direction === 'sideways'
    ? `another ${inWords(lever === 'leverLength' ? 'lever length' : lever)}`
    : LEVER_CHANGE[lever][direction];

const ITEM_WORDS: Readonly<Partial<Record<KitItem, readonly [one: string, many: string]>>> = {
  bench: ['bench', 'benches'],
  'leg-press': ['leg press', 'leg presses'],
  'safety-arms': ['pair of safety arms', 'pairs of safety arms'],
  'jump-box': ['jump box', 'jump boxes'],
};

/** How many and what, apart: `one` and `bench`, `a pair of` and `dumbbells`. */
function needParts({ item, count }: KitNeed): [how: string, what: string] {
  const [one, many] = ITEM_WORDS[item] ?? [inWords(item), `${inWords(item)}s`];
  if (count === 1) return [item === 'wall' ? 'a' : 'one', one];
  return count === 2 && (item === 'dumbbell' || item === 'bell') ? ['a pair of', many] : [String(count), many];
}

const needWords = (need: KitNeed): string => needParts(need).join(' ');
const orWords = (all: readonly string[]): string =>
  all.length < 2 ? all.join('') : `${all.slice(0, -1).join(', ')} or ${all.at(-1)}`;

/** What is chosen between, things of one number together: `one dumbbell, bell or jug, or a pair of bells`. */
function choiceWords(options: readonly (readonly KitNeed[])[]): string {
  const alike = new Map<string, string[]>();
  for (const needs of options) {
    const [how, what] = needs.length === 1 && needs[0] ? needParts(needs[0]) : [needs.map(needWords).join(' and '), ''];
    alike.set(how, [...(alike.get(how) ?? []), what]);
  }
  return [...alike].map(([how, what]) => `${how} ${orWords(what)}`.trim()).join(', or ');
}

/**
 * A movement's kit options in words: `one dumbbell or bell, or a pair of dumbbells`; what every option has comes first:
 * `one bench alone, or with one dumbbell or bell`; `nothing` for none.
 */
export function kitWords(options: readonly Pick<KitOption, 'needs'>[]): string {
  const [first, ...others] = options;
  if (!first) return 'nothing';
  const key = ({ item, count }: KitNeed) => `${item} ${count}`;
  const always = first.needs.filter((need) =>
    others.every(({ needs }) => needs.some((other) => key(other) === key(need))),
  );
  const rest = options.map(({ needs }) => needs.filter((need) => !always.some((one) => key(one) === key(need))));
  const more = rest.filter((needs) => needs.length > 0);
  if (more.length === 0) return always.length > 0 ? always.map(needWords).join(' and ') : 'nothing';
  const bare = more.length < rest.length;
  if (always.length === 0) return `${bare ? 'nothing, or ' : ''}${choiceWords(more)}`;
  return `${always.map(needWords).join(' and ')}${bare ? ' alone, or' : ''} with ${choiceWords(more)}`;
}

/** What is spoken for a correction: its cue, or its own words; null where it is only done. */
export const spokenOf = (
  { say, cueId }: Pick<Correction, 'say' | 'cueId'>,
  cues: readonly Pick<Cue, 'id' | 'text'>[],
): string | null => cues.find(({ id }) => id === cueId)?.text ?? say ?? null;

/** A correction in one line: what is said in quotation marks, then what is done. */
export function correctionWords(
  correction: Pick<Correction, 'say' | 'do' | 'cueId'>,
  cues: readonly Pick<Cue, 'id' | 'text'>[],
): string {
  const spoken = spokenOf(correction, cues);
  return [...(spoken === null ? [] : [`“${spoken}”`]), ...(correction.do === undefined ? [] : [correction.do])].join(
    ' ',
  );
}

const DEMAND_SPECIAL: Readonly<Partial<Record<Limited, string>>> = {
  'hip-bend': 'bending the hip',
  'hip-turn': 'turning or crossing the hip',
  'loaded-hinge': 'load on a long, leaning back',
  'belly-strain': 'strain on the belly',
  'hard-effort': 'hard effort',
  transfer: 'moving onto a seat, a bench or the floor',
  'ruled-out': 'what its own caution rules out',
  'not-suitable': 'what is not marked as suitable',
  'single-leg-balance': 'balance on one leg',
  'weight-on-wrist': 'weight on the wrist',
  'weight-on-knees': 'weight on the knees',
  'long-lever-trunk': 'a long lever on the trunk',
  'loaded-shoulder': 'load on the shoulder',
  'floor-to-standing': 'getting down to the floor and up',
  standing: 'standing on the feet',
  'leg-drive': 'working the legs',
  'loaded-spine-bend': 'rounding the back under load',
  'spine-bend': 'rounding the back',
  'spine-twist': 'turning the back',
  'spine-arch': 'arching the back',
  'spotter-needed': 'a spotter',
  'second-person': 'somebody to help',
};

/** A demand inside a sentence: `weight-on-wrist` → `weight on the wrist`. */
export const demandWords = (demand: Limited): string => DEMAND_SPECIAL[demand] ?? inWords(demand);

const AMOUNT_WORDS = ['not', 'a little', 'clearly', 'strongly'] as const;

/** How much of a demand: 0 → `not`, 3 → `strongly`. */
export const amountWords = (amount: number): string => AMOUNT_WORDS[amount] ?? String(amount);

/** Demands above nothing, in words: `deep knee bend (clearly)`. */
export const demandList = (demands: Readonly<Partial<Record<Demand, number>>>): string[] =>
  (Object.entries(demands) as [Demand, number][])
    .filter(([, amount]) => amount > 0)
    .map(([demand, amount]) => `${demandWords(demand)} (${amountWords(amount)})`);

/** A cue as it is written down: where it is for a part of the kit only, that is said beside it. */
export const cueWords = ({ text, for: only }: Pick<Cue, 'text' | 'for'>): string =>
  only ? `${text} (${only.kit.map(inWords).join(', ')})` : text;
