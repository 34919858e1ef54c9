/** The loads that a kit can really make for a movement: fixed pieces, plates on handles, stacks, bands in order. */
import { kitCounts, loadLabel, usableOptions, weightWords } from '../movement/kit.js';
import type { KitPiece, Plates } from '../movement/kit-schema.js';
import type { Limit } from '../movement/limit-schema.js';
import { type Equipped, openOptions } from '../movement/limits.js';
import type { KitOption } from '../movement/schema.js';
import type { KitItem } from '../movement/vocabulary.js';
import { inWords } from '../movement/words.js';

/** One way to load a movement. */
export interface Load {
  item: KitItem;
  /** How many of the item are in use: 2 for a pair. */
  count: number;
  /** Kilograms in all, both of a pair together; null for a band, which only has its place in the order. */
  kg: number | null;
  label: string;
  /** How plates are set, from the handle out, on each end: `10 + 2.5`. */
  setting?: string;
  /** Seconds to set this weight; 0 for one that is only picked up. */
  changeSeconds: number;
}

/** Seconds to change plates or a pin where the kit does not say. */
const PLATES_SECONDS = 30;
const PIN_SECONDS = 5;
/** Seconds to fill a bag or a jug up, or to take something out. */
const FILL_SECONDS = 60;
const FILLED: readonly KitItem[] = ['backpack', 'jug'];
/** What is filled can weigh more and less than it was weighed with, though nobody said so: by how much at a time, and from what to what, in kilograms. */
const FILL: Readonly<Partial<Record<KitItem, Filling>>> = {
  backpack: { least: 4, step: 1, most: 16 },
  jug: { least: 2, step: 0.5, most: 5 },
};

/** Grams, so that sums of plates are exact. */
const grams = (kg: number): number => Math.round(kg * 1000);

/** The weight that something has, and those that filling and emptying make of it. */
function fillings(kg: number, { least, step, most }: Filling): number[] {
  const [own, by, top] = [grams(kg), grams(step), Math.max(grams(kg), grams(most))];
  const low = Math.min(own, grams(least));
  const first = own - Math.floor((own - low) / by) * by;
  return Array.from({ length: Math.floor((top - first) / by) + 1 }, (_, i) => (first + i * by) / 1000);
}

interface Filling {
  least: number;
  step: number;
  most: number;
}

interface Setting {
  kg: number;
  /** Plates on each end, heaviest first, in kilograms. */
  ends: number[];
}

/**
 * Every weight that plates can make on `handles` equal handles, lightest first, each with the fewest plates.
 * Both ends of every handle carry the same, so a plate counts only in groups of two times the handles.
 */
export function settingsOf(handleKg: number, plates: readonly Plates[], handles: number): Setting[] {
  const sizes = plates.toSorted((a, b) => b.kg - a.kg);
  let sums = new Map<number, number[]>([[0, []]]);
  for (const { kg, count } of sizes) {
    const most = Math.floor(count / (2 * handles));
    const next = new Map(sums);
    for (const [sum, ends] of sums)
      for (let n = 1; n <= most; n += 1) {
        const total = sum + n * grams(kg);
        const known = next.get(total);
        if (!known || known.length > ends.length + n)
          next.set(total, [...ends, ...Array.from({ length: n }, () => kg)]);
      }
    sums = next;
  }
  return [...sums].sort(([a], [b]) => a - b).map(([sum, ends]) => ({ kg: (grams(handleKg) + 2 * sum) / 1000, ends }));
}

/** Every setting of a stack, lightest first. */
function stackOf(piece: KitPiece): number[] {
  const first = grams(piece.kg ?? piece.stepKg ?? 0);
  const step = grams(piece.stepKg ?? 0);
  const most = grams(piece.mostKg ?? 0);
  return Array.from({ length: Math.floor((most - first) / step) + 1 }, (_, i) => (first + i * step) / 1000);
}

const OF_PIECE = new WeakMap<KitPiece, Map<number, readonly Load[]>>();

/** What one piece can weigh when `need` of them are used alike; worked out once, because plates have many sums. */
function loadsOfPiece(piece: KitPiece, need: number): readonly Load[] {
  const known = OF_PIECE.get(piece) ?? new Map<number, readonly Load[]>();
  OF_PIECE.set(piece, known);
  const loads = known.get(need) ?? makeLoadsOfPiece(piece, need);
  known.set(need, loads);
  return loads;
}

function makeLoadsOfPiece(piece: KitPiece, need: number): Load[] {
  const { item, unit } = piece;
  const name = (words: string) =>
    `${need > 1 ? `${need} × ` : ''}${words}${item === 'dumbbell' ? '' : ` ${inWords(item)}`}`;
  const base = { item, count: need };
  if (piece.plates?.length)
    return settingsOf(piece.kg ?? 0, piece.plates, need)
      .filter(({ kg }) => kg > 0)
      .map(({ kg, ends }) => ({
        ...base,
        kg: kg * need,
        label: name(weightWords(kg, unit)),
        setting: ends.length > 0 ? ends.map((end) => parseFloat(weightWords(end, unit))).join(' + ') : 'bare',
        changeSeconds: piece.changeSeconds ?? PLATES_SECONDS,
      }));
  if (piece.stepKg && piece.mostKg)
    return stackOf(piece).map((kg) => ({
      ...base,
      kg: kg * need,
      label: name(weightWords(kg, unit)),
      changeSeconds: piece.changeSeconds ?? (FILLED.includes(item) ? FILL_SECONDS : PIN_SECONDS),
    }));
  const filled = piece.kg ? FILL[item] : undefined;
  if (piece.kg && filled)
    return fillings(piece.kg, filled).map((kg) => ({
      ...base,
      kg: kg * need,
      label: name(weightWords(kg, unit)),
      // As it stands it is only picked up.
      changeSeconds: kg === piece.kg ? 0 : (piece.changeSeconds ?? FILL_SECONDS),
    }));
  if (piece.kg) return [{ ...base, kg: piece.kg * need, label: name(loadLabel(piece)), changeSeconds: 0 }];
  if (item === 'band' && piece.order)
    return [{ ...base, kg: null, label: name(piece.label || `no. ${piece.order}`), changeSeconds: 0 }];
  return [];
}

const KNOWN = new WeakMap<readonly KitPiece[], WeakMap<readonly KitOption[], Load[]>>();

/**
 * The loads that a kit can make for a movement's options, lightest first, each once.
 * Bands come first, in their order, because nobody knows their kilograms. A load that several pieces make is the one that takes least time.
 * Worked out once for the same kit and options: neither may be changed afterwards.
 */
export function loadsFor(options: readonly KitOption[], pieces: readonly KitPiece[]): readonly Load[] {
  const ofKit = KNOWN.get(pieces) ?? new WeakMap<readonly KitOption[], Load[]>();
  KNOWN.set(pieces, ofKit);
  const loads = ofKit.get(options) ?? makeLoads(options, pieces);
  ofKit.set(options, loads);
  return loads;
}

export const isImprovised = ({ item }: Pick<Load, 'item'>): boolean => FILLED.includes(item);

/** It has to be filled up or emptied first. */
export const isToFill = ({ item, changeSeconds }: Pick<Load, 'item' | 'changeSeconds'>): boolean =>
  isImprovised({ item }) && changeSeconds > 0;

/**
 * The loads that anybody would think of: nobody fills a bag where a weight lies at hand, unless the bag is what they train with.
 * @param item what is in the hand; null where nothing is
 */
export function atHand(loads: readonly Load[], item: KitItem | null): readonly Load[] {
  const weights = loads.some((one) => one.kg !== null && !isImprovised(one));
  return weights ? loads.filter((one) => !isToFill(one) || one.item === item) : loads;
}

/** The loads of the options that no limit closes for somebody. */
export const loadsOpen = (
  movement: Equipped,
  limits: readonly Limit[],
  pieces: readonly KitPiece[],
): readonly Load[] =>
  movement.kit.some(({ demands }) => demands !== undefined)
    ? loadsFor(openOptions(movement, limits, kitCounts(pieces)), pieces)
    : loadsFor(movement.kit, pieces);

const ALONE = new WeakMap<KitOption, readonly [KitOption]>();

/** An option as a list of its own, always the same one, so that its loads are worked out once. */
function alone(option: KitOption): readonly [KitOption] {
  const list = ALONE.get(option) ?? [option];
  ALONE.set(option, list);
  return list;
}

/** Whether a movement can be done without a weight, with what is there. */
export const mayGoBare = (movement: Equipped, limits: readonly Limit[], pieces: readonly KitPiece[]): boolean =>
  openOptions(movement, limits, kitCounts(pieces)).some((option) => loadsFor(alone(option), pieces).length === 0);

/** The options that a load can belong to. */
export const optionsWith = (options: readonly KitOption[], load: Pick<Load, 'item' | 'count'>): KitOption[] =>
  options.filter(({ needs }) => needs.some(({ item, count }) => item === load.item && count === load.count));

function makeLoads(options: readonly KitOption[], pieces: readonly KitPiece[]): Load[] {
  const counts = kitCounts(pieces);
  const order = new Map(pieces.map((piece) => [piece.label, piece.order ?? 0]));
  const loads = usableOptions(options, counts)
    .flatMap(({ needs, mostKg = Infinity }) => needs.map((need) => ({ ...need, mostKg })))
    .flatMap(({ item, count, mostKg }) =>
      pieces
        .filter((piece) => piece.item === item && piece.count >= count)
        .flatMap((piece) =>
          loadsOfPiece(piece, count)
            .filter(({ kg }) => (kg ?? 0) <= mostKg)
            .map((load) => ({ load, place: load.kg ?? order.get(piece.label) ?? 0 })),
        ),
    )
    .sort(
      (a, b) =>
        Number(a.load.kg !== null) - Number(b.load.kg !== null) ||
        a.place - b.place ||
        a.load.changeSeconds - b.load.changeSeconds ||
        a.load.label.localeCompare(b.load.label),
    );
  // Two pieces may carry the same label by mistake: the weight tells them apart.
  const unique = new Map<string, Load>();
  for (const { load } of loads) {
    const key = `${load.label} ${load.kg}`;
    if (!unique.has(key)) unique.set(key, load);
  }
  return [...unique.values()];
}

/** Two weights within this many kilograms are one. */
export const SAME_KG = 0.05;

/** The real loads on both sides of a weight, and not that weight; one of them is missing past an end. */
export function nearestLoads(loads: readonly Load[], kg: number): Load[] {
  const weighed = loads.filter((load) => load.kg !== null);
  const below = weighed.findLast((load) => (load.kg ?? 0) < kg);
  const above = weighed.find((load) => (load.kg ?? 0) > kg);
  return [below, above].filter((load) => load !== undefined);
}

/** Those that make sense now, lightest first: the one in hand, one step down and up, and what was used before. */
export function sensibleLoads(loads: readonly Load[], load: Load | null, usedKg: readonly number[]): Load[] {
  const near = load?.kg == null ? loads.slice(0, 2) : nearestLoads(loads, load.kg);
  const used = (kg: number | null) => kg !== null && usedKg.some((one) => Math.abs(one - kg) < SAME_KG);
  return loads.filter((one) => near.includes(one) || used(one.kg) || (one.label === load?.label && one.kg === load.kg));
}

/** What can be taken for a weight that is not here: another of the same weight, else those on both sides of it. */
export function standInsFor(loads: readonly Load[], kg: number): Load[] {
  const same = loads.find((load) => load.kg !== null && Math.abs(load.kg - kg) < SAME_KG);
  return same ? [same] : nearestLoads(loads, kg);
}

/**
 * Share of body weight that the hands carry in push-ups.
 * @see Ebben WP et al. (2011), Kinetic analysis of several variations of push-ups. J Strength Cond Res 25(10).
 */
const PUSH_UP_SHARES: Readonly<Record<string, number>> = {
  'push-up': 0.64,
  'knee-push-up': 0.49,
};
const RAISED_SHARES: Readonly<Record<string, readonly (readonly [cm: number, share: number])[]>> = {
  'hands-raised-push-up': [
    [30, 0.55],
    [60, 0.41],
  ],
  'feet-raised-push-up': [
    [30, 0.7],
    [60, 0.74],
  ],
};

/** Kilograms of body weight that a movement puts on the hands, where a measured share is published; else null. */
export function bodyLoad(movementId: string, bodyKg: number, heightCm = 30): number | null {
  const raised = RAISED_SHARES[movementId];
  const share =
    PUSH_UP_SHARES[movementId] ??
    raised?.toSorted((a, b) => Math.abs(a[0] - heightCm) - Math.abs(b[0] - heightCm))[0]?.[1];
  return share === undefined ? null : Math.round(share * bodyKg * 10) / 10;
}
