/**
 * A composed set: one part after the other, such as `8 singles · 3 slow (2-0-2-0) · 8 pulses · hold 8 s`.
 * One line types it, and the same line is what is read: what is written is parsed back to the same parts.
 */
import { type Begins, longerTurn, parseTempo } from '../movement/tempo.js';
import type { DoseMode, Sides } from '../movement/vocabulary.js';
import { MOST_PARTS, type Part, type PartKind, partSchema, type Point, POINTS } from '../schema/part.js';
import { SIDE_CHANGE_SECONDS, sideCount } from './tempo.js';

/** Seconds that one side of a set may take. */
export const LONGEST_SET = 1800;

/** What the parts of one side of a set add up to. */
export interface PartTotals {
  /** Whole reps; half-and-full ones count once. */
  reps: number;
  pulses: number;
  /** Seconds held. */
  held: number;
}

export const partTotals = (parts: readonly Part[]): PartTotals =>
  parts.reduce(
    ({ reps, pulses, held }, { kind, count }) => ({
      reps: reps + (kind === 'reps' || kind === 'half' ? count : 0),
      pulses: pulses + (kind === 'pulses' ? count : 0),
      held: held + (kind === 'hold' ? count : 0),
    }),
    { reps: 0, pulses: 0, held: 0 },
  );

/** The one number that a composed set is known by: its reps, else the seconds held, else its pulses. */
export function amountOfParts(parts: readonly Part[]): number {
  const { reps, pulses, held } = partTotals(parts);
  return reps || held || pulses;
}

const secondsOfTempo = (tempo: string): number => parseTempo(tempo).reduce((sum, seconds) => sum + seconds, 0);

/** Whole seconds of one part, at the tempo of its line where it has none of its own. */
export function partSeconds(part: Part, tempo: string): number {
  if (part.kind === 'reps') return part.count * secondsOfTempo(part.tempo ?? tempo);
  if (part.kind !== 'half') return part.count;
  const [lower, pause, rise, top] = parseTempo(tempo);
  return Math.ceil(part.count * (1.5 * (lower + rise) + pause + top));
}

/** Whole seconds of a composed set: one side after the other where each has its own. */
export function partsSeconds(parts: readonly Part[], tempo: string, sides: Sides): number {
  const times = sideCount(sides);
  const one = parts.reduce((sum, part) => sum + partSeconds(part, tempo), 0);
  return one * times + SIDE_CHANGE_SECONDS * (times - 1);
}

/** Why a movement that is dosed so cannot be done in some parts; null when it can. */
export function wrongPartsFor(mode: DoseMode, parts: readonly Part[]): string | null {
  if (mode === 'distance') return 'are for reps and holds: this movement is measured in metres';
  if (mode === 'reps') return null;
  const { reps, held } = partTotals(parts);
  return reps > 0 || held === 0 ? 'must be holds, with pulses if wished: this movement is held' : null;
}

/** Why some parts cannot be a set at a tempo; null when they can. */
export function wrongParts(parts: readonly Part[], tempo: string): string | null {
  const seconds = partsSeconds(parts, tempo, 'both');
  if (seconds > LONGEST_SET) return `take ${Math.ceil(seconds / 60)} minutes: a set takes at most ${LONGEST_SET / 60}`;
  if (parts.some((part) => partSeconds(part, tempo) === 0)) return 'need a tempo that takes at least a second for reps';
  return null;
}

/** Where a composed set stands so many milliseconds after its start. */
export interface PartAt {
  /** From 0. */
  index: number;
  part: Part;
  /** Milliseconds within the part, and left of it. */
  within: number;
  left: number;
}

/** Null once the set is over. */
export function partAt(parts: readonly Part[], tempo: string, elapsedMs: number): PartAt | null {
  let from = 0;
  for (const [index, part] of parts.entries()) {
    const length = partSeconds(part, tempo) * 1000;
    if (elapsedMs < from + length)
      return { index, part, within: Math.max(0, elapsedMs - from), left: from + length - elapsedMs };
    from += length;
  }
  return null;
}

/** What was done of a set that ended in one of its parts: those before it whole, and so many of it. */
export function partsUntil(parts: readonly Part[], index: number, count: number): Part[] {
  return parts.flatMap((part, i): Part[] => {
    if (i < index) return [part];
    return i === index && count > 0 ? [{ ...part, count: Math.min(count, part.count) }] : [];
  });
}

export const sameParts = (a: readonly Part[], b: readonly Part[]): boolean => partsWords(a) === partsWords(b);

const GROWTH: Readonly<Record<PartKind, { by: number; to: number }>> = {
  reps: { by: 1, to: 12 },
  half: { by: 1, to: 8 },
  pulses: { by: 2, to: 20 },
  hold: { by: 2, to: 20 },
};

/** Slow reps tire as much as twice as many. */
const SLOW_TO = 6;

/**
 * The parts a little larger: the one that is furthest from its end grows by one step, and only that; the earlier of equals.
 * Null when every part is at its end: then the load, the tempo or the rung is next.
 */
export function grownParts(parts: readonly Part[]): Part[] | null {
  const end = (part: Part) => (part.kind === 'reps' && part.tempo !== null ? SLOW_TO : GROWTH[part.kind].to);
  let least: { index: number; share: number } | null = null;
  for (const [index, part] of parts.entries()) {
    const share = part.count / end(part);
    if (share < 1 && (!least || share < least.share)) least = { index, share };
  }
  if (!least) return null;
  const { index } = least;
  return parts.map((part, i) =>
    i === index ? { ...part, count: Math.min(end(part), part.count + GROWTH[part.kind].by) } : part,
  );
}

/** The parts a little smaller: the last one goes down by a step, or goes where it is the smallest that it can be. Never less than one part of one. */
export function lessParts(parts: readonly Part[]): Part[] {
  const last = parts.at(-1);
  if (!last) return [];
  const count = last.count - GROWTH[last.kind].by;
  if (count >= 1) return [...parts.slice(0, -1), { ...last, count }];
  return parts.length > 1 ? parts.slice(0, -1) : [{ ...last, count: 1 }];
}

const at = (point: Point | null): string => (point === null ? '' : ` at the ${point}`);

/** What reps of their own tempo are called: by what is longest in it. */
function tempoName(tempo: string): string {
  const [, pause, , top] = parseTempo(tempo);
  if (pause + top >= 1) return 'with a pause';
  return secondsOfTempo(tempo) >= 4 ? 'slow' : 'quick';
}

export function partWords(part: Part): string {
  switch (part.kind) {
    case 'reps':
      return part.tempo === null
        ? `${part.count} ${part.count === 1 ? 'single' : 'singles'}`
        : `${part.count} ${tempoName(part.tempo)} (${part.tempo})`;
    case 'half':
      return `${part.count} half-and-full`;
    case 'pulses':
      return `${part.count} ${part.count === 1 ? 'pulse' : 'pulses'}${at(part.at)}`;
    case 'hold':
      return `hold ${part.count} s${at(part.at)}`;
  }
}

/** `8 singles · 3 slow (2-0-2-0) · 8 pulses · hold 8 s`. */
export const partsWords = (parts: readonly Part[]): string => parts.map(partWords).join(' · ');

/** What reps are done at where only a word says how. */
export const TEMPO_NAMES = ['slow', 'pause', 'quick'] as const;
export type TempoName = (typeof TEMPO_NAMES)[number];

export function namedTempo(name: TempoName, begins: Begins): string {
  switch (name) {
    case 'slow':
      return '4-0-2-0';
    case 'pause':
      return longerTurn('2-0-1-0', begins, 2);
    case 'quick':
      return '1-0-1-0';
  }
}

const REPS =
  /^(\d{1,3})(?: (singles?|reps?|full|slow|quick|pause|with a pause|at))?(?: ?\(?(\d{1,2}-\d{1,2}-\d{1,2}-\d{1,2})\)?)?$/;
/** `3 at 2 down 2 up`, `5 with 3 seconds down, 1 pause and 1 up`, as it is said. */
const SAID =
  /^(\d{1,3})(?: reps?)?(?: at| with|:)? ((?:\d{1,2} ?(?:s|secs?|seconds?)? (?:down|up|pause|stop)(?: at(?: the)? (?:bottom|top))?(?: and)? ?)+)$/;
const SAID_PIECE = /(\d{1,2}) ?(?:s|secs?|seconds?)? (down|up|pause|stop)(?: at(?: the)? (bottom|top))?/g;

/** The tempo that somebody says: what is not said of lowering and rising is as usual, and a pause without a place is in the turn of the rep. */
function saidTempo(words: string, begins: Begins): string {
  let tempo: [lower: number, low: number, rise: number, high: number] = [2, 0, 1, 0];
  for (const [, seconds, what, where] of words.matchAll(SAID_PIECE)) {
    const [lower, low, rise, high] = tempo;
    const said = Number(seconds);
    const isLow = where === 'bottom' || (where === undefined && begins === 'lower');
    if (what === 'down') tempo = [said, low, rise, high];
    else if (what === 'up') tempo = [lower, low, said, high];
    else tempo = isLow ? [lower, said, rise, high] : [lower, low, rise, said];
  }
  return tempo.join('-');
}

const HALF = /^(\d{1,3}) (?:half[- ]and[- ](?:full|whole)|halves|one and a half)$/;
const PULSES = /^(\d{1,3}) pulses?(?: at(?: the)? (bottom|middle|top))?$/;
const HOLD = /^(?:hold (\d{1,3})(?: ?s)?|(\d{1,3}) ?s hold)(?: at(?: the)? (bottom|middle|top))?$/;

/** What a typed line of parts says, or the words of it that cannot be read. */
export type ParsedParts = { parts: Part[] } | { wrong: string };

/**
 * Reads one line of parts, divided by `·`, commas, `+`, semicolons or “then”. An empty line has no parts.
 * @param begins with which half a rep begins: a pause is in its turn
 */
export function parseParts(line: string, begins: Begins): ParsedParts {
  const pieces = line
    .toLowerCase()
    .split(/[·,;+]|\bthen\b/)
    .map((piece) => piece.trim().replace(/\s+/g, ' '))
    .filter((piece) => piece !== '');
  const parts: Part[] = [];
  for (const piece of pieces) {
    const part = parsePart(piece, begins);
    if (!part)
      return { wrong: `“${piece}” is not a part of a set: try 8 singles, 3 slow (2-0-2-0), 8 pulses or hold 8 s` };
    const checked = partSchema.safeParse(part);
    if (!checked.success) return { wrong: `“${piece}” ${checked.error.issues[0]?.message ?? 'is not possible'}` };
    parts.push(checked.data);
  }
  return parts.length > MOST_PARTS ? { wrong: `a set has at most ${MOST_PARTS} parts` } : { parts };
}

function parsePart(piece: string, begins: Begins): Part | null {
  const pointOf = (name: string | undefined): Point | null => POINTS.find((point) => point === name) ?? null;
  const reps = REPS.exec(piece);
  if (reps) {
    const [, count, word, tempo] = reps;
    const name = TEMPO_NAMES.find((one) => word?.endsWith(one));
    return { kind: 'reps', count: Number(count), tempo: tempo ?? (name ? namedTempo(name, begins) : null) };
  }
  const said = SAID.exec(piece);
  if (said) return { kind: 'reps', count: Number(said[1]), tempo: saidTempo(said[2] ?? '', begins) };
  const half = HALF.exec(piece);
  if (half) return { kind: 'half', count: Number(half[1]) };
  const pulses = PULSES.exec(piece);
  if (pulses) return { kind: 'pulses', count: Number(pulses[1]), at: pointOf(pulses[2]) };
  const hold = HOLD.exec(piece);
  return hold ? { kind: 'hold', count: Number(hold[1] ?? hold[2]), at: pointOf(hold[3]) } : null;
}
