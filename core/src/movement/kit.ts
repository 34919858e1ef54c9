/** What is in the room, and whether a movement can be done with it. */
import type { KitPiece } from './kit-schema.js';
import type { KitOption } from './schema.js';
import { ALWAYS_AT_HAND, type KitItem } from './vocabulary.js';

const KG_IN_LB = 0.45359237;

/** A weight typed in pounds, in kilograms. */
export const fromPounds = (lb: number): number => lb * KG_IN_LB;

/** Kilograms as they are read in a unit: `12.5 kg`, `25 lb`. Rounded to a hundredth, so that a typed number comes back. */
export function weightWords(kg: number, unit?: 'lb' | null): string {
  const shown = Math.round((unit === 'lb' ? kg / KG_IN_LB : kg) * 100) / 100;
  return `${shown} ${unit ?? 'kg'}`;
}

/** The most equal pieces of each item: a pair of 8s is 2, two single bells of different weight are 1 each. */
export function kitCounts(pieces: readonly KitPiece[]): Map<KitItem, number> {
  const counts = new Map<KitItem, number>(ALWAYS_AT_HAND.map((item) => [item, Infinity]));
  for (const piece of pieces) counts.set(piece.item, Math.max(counts.get(piece.item) ?? 0, piece.count));
  return counts;
}

/** The body alone. */
const BARE: KitOption = { needs: [] };

const isMet = ({ needs }: KitOption, counts: ReadonlyMap<KitItem, number>): boolean =>
  needs.every((need) => (counts.get(need.item) ?? 0) >= need.count);

/** The first option that the kit can meet; one without needs when the movement needs nothing; undefined when no option is met. */
export const usableOption = (
  options: readonly KitOption[],
  counts: ReadonlyMap<KitItem, number>,
): KitOption | undefined => (options.length === 0 ? BARE : options.find((option) => isMet(option, counts)));

/** Every option that the kit can meet. */
export const usableOptions = (options: readonly KitOption[], counts: ReadonlyMap<KitItem, number>): KitOption[] =>
  options.length === 0 ? [BARE] : options.filter((option) => isMet(option, counts));

/** Whether a movement can be done with nothing in the hands or underfoot. */
export const needsNothing = (options: readonly KitOption[]): boolean =>
  options.length === 0 || options.some(({ needs }) => needs.length === 0);

/** Every item that any option names. */
export const itemsOf = (options: readonly KitOption[]): KitItem[] =>
  options.flatMap(({ needs }) => needs.map(({ item }) => item));

/** How a load is read aloud: its own label if it has one, else kilograms. */
export const loadLabel = (piece: { kg?: number | null; label?: string | null; unit?: 'lb' | null }): string =>
  piece.label || weightWords(piece.kg ?? 0, piece.unit);
