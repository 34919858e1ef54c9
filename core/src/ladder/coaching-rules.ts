/**
 * What a coach would look for before signing a movement: that each fault can be seen and answered, that words can be spoken as they stand
 * and followed alone, that hands are only laid on with consent, and that neither a ladder nor a swap leads to something harsher.
 */
import type { FaultKind } from '../movement/fault-kinds.js';
import type { Correction, Fault, Link, Movement } from '../movement/schema.js';
import { type Demand, type Lever, SEVERITIES } from '../movement/vocabulary.js';
import { demandWords } from '../movement/words.js';
import { countUnlike } from './count-words.js';
import { focusProblem } from './focus-words.js';
import { buildLadder, reach } from './graph.js';
import { countWords, jargonIn, schoolYears, sentencesIn } from './plain-words.js';

/** Most serious first. */
export const COACHING_RULES = [
  'swap-asks-more',
  'touch',
  'severity',
  'demand-falls',
  'how',
  'feel',
  'caution',
  'views',
  'kind',
  'spoken-cue',
  'link-both-ways',
  'speakable',
  'telegram',
  'jargon',
  'focus',
  'count',
  'sign-back',
] as const;
export type CoachingRule = (typeof COACHING_RULES)[number];

export interface Breach {
  movementId: string;
  /** Field path within the movement. */
  path: string;
  rule: CoachingRule;
  message: string;
}

/** A fault that shows from one side only is missed whenever the trainer stands elsewhere. */
const LEAST_VIEWS = 2;
/** Words that can be said in one breath, and understood at once. */
const SPEAKABLE = { least: 3, most: 12 } as const;
/** Fewer are a telegram: only who wrote it would know the fault again. */
const LEAST_TO_KNOW = 4;
/** Fewer are no step at all. What is said beside a sentence is only when to say it, and may be a word. */
const LEAST_TO_DO = 2;
/** A shorter caution is a slogan: it says neither who should leave it nor what to mind. */
const LEAST_OF_A_CAUTION = 6;
/** What somebody alone can take in before moving: start, move, finish, and one thing to mind. */
const HOW = { least: 2, most: 4, years: 7 } as const;
/** Words that mean a hand on the client. */
const TOUCH =
  /\b(?:your (?:hand|palm|finger|knuckle)s? (?:on|at|under|against|between|behind) (?:the|their|each)|(?:hold|press|guide|steer|tap|lift|nudge|push|support) (?:their|her|his|the client)\b|hands? on (?:their|her|his|the client))/i;
/** Taken on by everything that is harder, unless the lever of the link says why not. Where somebody lies or stands is no measure of hardness. */
const HARD: readonly Demand[] = [
  'deep-knee-bend',
  'loaded-spine-bend',
  'long-lever-trunk',
  'overhead',
  'loaded-shoulder',
  'impact',
  'single-leg-balance',
  'neck-load',
];
/** What may be less in a harder movement that is reached by a lever: a base that is narrower is often less deep. */
const EXPLAINS: Readonly<Record<Lever, readonly Demand[]>> = {
  load: ['single-leg-balance', 'overhead'],
  depth: [],
  base: ['deep-knee-bend', 'loaded-spine-bend', 'impact', 'long-lever-trunk', 'overhead', 'loaded-shoulder'],
  leverLength: ['deep-knee-bend', 'single-leg-balance', 'loaded-shoulder', 'neck-load'],
  tempo: ['impact', 'single-leg-balance'],
  assistance: ['single-leg-balance', 'neck-load'],
  coordination: ['deep-knee-bend', 'loaded-spine-bend', 'long-lever-trunk', 'loaded-shoulder', 'single-leg-balance'],
  impact: ['deep-knee-bend', 'single-leg-balance', 'long-lever-trunk', 'loaded-shoulder', 'overhead'],
  plane: ['deep-knee-bend', 'impact', 'loaded-shoulder', 'overhead', 'single-leg-balance', 'long-lever-trunk'],
  range: ['single-leg-balance', 'overhead'],
  speed: ['deep-knee-bend', 'single-leg-balance', 'long-lever-trunk', 'overhead'],
  grip: [],
};

/** What a fault is about, by the first part of its kind: a swap must not ask more of it. */
const ABOUT: Readonly<Record<string, readonly Demand[]>> = {
  knee: ['deep-knee-bend', 'impact'],
  knees: ['deep-knee-bend', 'impact'],
  heels: ['deep-knee-bend'],
  lands: ['impact'],
  balance: ['single-leg-balance'],
  hip: ['single-leg-balance'],
  hips: ['long-lever-trunk', 'loaded-spine-bend'],
  pelvis: ['deep-knee-bend', 'loaded-spine-bend'],
  low: ['loaded-spine-bend', 'long-lever-trunk'],
  upper: ['loaded-spine-bend'],
  torso: ['loaded-spine-bend'],
  shoulders: ['overhead', 'loaded-shoulder'],
  blades: ['overhead', 'loaded-shoulder'],
  elbows: ['loaded-shoulder'],
  wrists: ['weight-on-wrist'],
  grip: ['hard-grip'],
  neck: ['neck-load'],
  belly: ['belly-strain'],
  drops: ['impact'],
  pain: [],
};

/** What the rules must know beside the movement. */
export interface CoachingContext {
  /** The kind of a fault, where it is plain. */
  kindOf: (fault: Fault) => FaultKind | undefined;
  find: (movementId: string) => Movement | undefined;
  /** Ids of everything that is reached from a movement by harder links. */
  harderThan: (movementId: string) => { has: (movementId: string) => boolean };
}

/**
 * Everything in which movements break a rule, in the order of the movements.
 * @throws CycleError where their links run in a circle
 */
export function breaches(movements: readonly Movement[], kindOf: CoachingContext['kindOf']): Breach[] {
  const ladder = buildLadder(movements);
  const byId = new Map(movements.map((movement) => [movement.id, movement]));
  const context: CoachingContext = {
    kindOf,
    find: (id) => byId.get(id),
    harderThan: (id) => reach(ladder, id, ['harder'], movements.length),
  };
  return movements.flatMap((movement) => breachesOf(movement, context));
}

/** The same for one movement. */
export function breachesOf(movement: Movement, context: CoachingContext): Breach[] {
  const found: Breach[] = [];
  const add: Add = (rule, path, message) => found.push({ movementId: movement.id, path, rule, message });
  textBreaches(movement, add);
  faultBreaches(movement, context, add);
  movement.links.forEach((link, i) => linkBreaches(movement, link, context.find(link.to), `links[${i}]`, add));
  return found;
}

type Add = (rule: CoachingRule, path: string, message: string) => void;

/** What a client reads or hears. */
function textBreaches({ how, feel, breath, cautions, cues, faults, dose }: Movement, add: Add): void {
  cues.forEach((cue, i) => {
    const problem = focusProblem(cue);
    if (problem !== undefined) add('focus', `cues[${i}].focus`, `“${cue.text}” ${problem}`);
  });
  const counts = (text: string, path: () => string) => {
    const seconds = countUnlike(text, dose.tempo);
    if (seconds !== undefined)
      add(
        'count',
        path(),
        `counts ${seconds} seconds, and no part of the tempo ${dose.tempo} lasts so long: “${text}”`,
      );
  };
  if (dose.mode === 'reps') {
    counts(how, () => 'how');
    counts(breath, () => 'breath');
    cues.forEach(({ text }, i) => counts(text, () => `cues[${i}].text`));
  }
  if (how === '') add('how', 'how', 'says nothing to somebody who does it alone');
  else {
    const sentences = sentencesIn(how).length;
    if (sentences < HOW.least || sentences > HOW.most)
      add('how', 'how', `has ${sentences} sentences: ${HOW.least} to ${HOW.most} can be kept in mind`);
    if (schoolYears(how) > HOW.years) add('how', 'how', 'is hard to read: shorter sentences and plainer words');
  }
  if (!feel?.expected || !feel.stop) add('feel', 'feel', 'does not say what should be felt, and what means stop');
  cautions.forEach((caution, i) => {
    if (countWords(caution) < LEAST_OF_A_CAUTION)
      add('caution', `cautions[${i}]`, `says neither who should take care nor of what: “${caution}”`);
  });
  const reads = (text: string | undefined, path: () => string) => {
    const word = text === undefined ? undefined : jargonIn(text);
    if (word !== undefined) add('jargon', path(), `a client may not know “${word}”: “${text ?? ''}”`);
  };
  reads(how, () => 'how');
  reads(breath, () => 'breath');
  reads(feel?.expected, () => 'feel.expected');
  reads(feel?.stop, () => 'feel.stop');
  cautions.forEach((text, i) => reads(text, () => `cautions[${i}]`));
  cues.forEach(({ text }, i) => reads(text, () => `cues[${i}].text`));
  faults.forEach(({ corrections }, i) =>
    corrections.forEach(({ say }, j) => reads(say, () => `faults[${i}].corrections[${j}].say`)),
  );
}

function faultBreaches(movement: Movement, { kindOf, find, harderThan }: CoachingContext, add: Add): void {
  movement.faults.forEach((fault, i) => {
    const at = `faults[${i}]`;
    const seen = Object.values(fault.views).filter((chance) => chance > 0).length;
    if (seen < LEAST_VIEWS) add('views', `${at}.views`, `“${fault.name}” shows from one side only`);
    if (countWords(fault.looksLike) < LEAST_TO_KNOW)
      add('telegram', `${at}.looksLike`, `is too short to be recognised: “${fault.looksLike}”`);
    const kind = kindOf(fault);
    if (!kind) add('kind', `${at}.kind`, `“${fault.name}” is of no known kind`);
    else if (SEVERITIES.indexOf(fault.severity) > SEVERITIES.indexOf(kind.severity))
      add('severity', `${at}.severity`, `“${fault.name}” is ${fault.severity}, its kind usually ${kind.severity}`);
    if (!fault.corrections.some(({ cueId, say }) => cueId !== undefined || say !== undefined))
      add('spoken-cue', `${at}.corrections`, `nothing is said against “${fault.name}”`);
    const about = ABOUT[kind?.id.split('-')[0] ?? ''] ?? [];
    fault.corrections.forEach((one, j) => {
      const path = () => `${at}.corrections[${j}]`;
      const cue = one.cueId === undefined ? undefined : movement.cues.find(({ id }) => id === one.cueId);
      if (cue && !cue.addresses.includes(fault.id))
        add('link-both-ways', path(), `the cue “${cue.text}” does not say that it answers “${fault.name}”`);
      wordBreaches(one, path, add);
      const swap = one.swapTo === undefined ? undefined : find(one.swapTo);
      if (
        swap &&
        (about.some((demand) => atLeast(swap, demand) > asks(movement, demand)) || harderThan(movement.id).has(swap.id))
      )
        add('swap-asks-more', path(), `${swap.name} asks more than what it is offered for`);
    });
  });
}

/** What a movement asks at the least: with the kit that asks the least of it. */
const atLeast = ({ kit, demands }: Movement, demand: Demand): number => {
  const options = kit.length > 0 ? kit.map((option) => option.demands) : [undefined];
  return Math.min(...options.map((own) => own?.[demand] ?? demands[demand] ?? 0));
};

const asks = ({ demands }: Pick<Movement, 'demands'>, demand: Demand): number => demands[demand] ?? 0;

function wordBreaches({ kind, say, do: act }: Correction, path: () => string, add: Add): void {
  if (say !== undefined) {
    const words = countWords(say);
    if (words < SPEAKABLE.least || words > SPEAKABLE.most || /^ask (?:for|them|the client)\b/i.test(say))
      add('speakable', `${path()}.say`, `cannot be said to the client as it stands: “${say}”`);
  }
  if (act !== undefined && kind !== 'say' && countWords(act) < LEAST_TO_DO)
    add('telegram', `${path()}.do`, `is too short to be understood: “${act}”`);
  if (kind !== 'touch')
    for (const text of [say, act])
      if (text !== undefined && TOUCH.test(text))
        add('touch', path(), `lays a hand on the client without being marked as touch: “${text}”`);
}

function linkBreaches(movement: Movement, link: Link, other: Movement | undefined, path: string, add: Add): void {
  if (!other || link.direction === 'sideways') return;
  const [easy, hard] = link.direction === 'harder' ? [movement, other] : [other, movement];
  const falls = HARD.filter(
    (demand) => asks(hard, demand) < asks(easy, demand) && !EXPLAINS[link.lever].includes(demand),
  );
  for (const demand of falls)
    add('demand-falls', path, `${hard.name} is harder than ${easy.name}, but asks for less “${demandWords(demand)}”`);
  if (!link.backWhen) add('sign-back', path, `has no sign to go back from ${hard.name}`);
}
