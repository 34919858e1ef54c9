/** What is in the room, and whether a movement can be done with it. */
import type { KitNeed } from './schema.js';
import { ALWAYS_AT_HAND, type KitItem } from './vocabulary.js';
import { inWords } from './words.js';

/** One kind of thing in a kit. Weighed things carry their load; `label` keeps how it was entered (`25 lb`). */
export interface KitPiece {
  item: KitItem;
  count: number;
  kg?: number | null;
  label?: string | null;
}

/** The most equal pieces of each item: a pair of 8s is 2, two single bells of different weight are 1 each. */
export function kitCounts(pieces: readonly KitPiece[]): Map<KitItem, number> {
  const counts = new Map<KitItem, number>(ALWAYS_AT_HAND.map((item) => [item, Infinity]));
  for (const piece of pieces) counts.set(piece.item, Math.max(counts.get(piece.item) ?? 0, piece.count));
  return counts;
}

/** The first option that the kit can meet; `[]` when the movement needs nothing; undefined when no option is met. */
export function usableOption(
  options: readonly (readonly KitNeed[])[],
  counts: ReadonlyMap<KitItem, number>,
): readonly KitNeed[] | undefined {
  if (options.length === 0) return [];
  return options.find((needs) => needs.every((need) => (counts.get(need.item) ?? 0) >= need.count));
}

/** How a load is read aloud: its own label if it has one, else kilograms. */
export const loadLabel = (piece: { kg?: number | null; label?: string | null }): string =>
  piece.label || `${piece.kg ?? 0} kg`;

/** One way to load a movement. */
export interface Load {
  item: KitItem;
  /** Kilograms in all: both of a pair together. */
  kg: number;
  label: string;
}

/** The loads that a kit can make for a movement, lightest first: an option with weighed pieces gives one load for each piece that fits. */
export function loadsFor(options: readonly (readonly KitNeed[])[], pieces: readonly KitPiece[]): Load[] {
  const counts = kitCounts(pieces);
  const loads = options
    .filter((needs) => usableOption([needs], counts) !== undefined)
    .flatMap((needs) => needs)
    .flatMap(({ item, count }) =>
      pieces
        .filter((piece) => piece.item === item && piece.count >= count && piece.kg)
        .map((piece) => ({
          item,
          kg: (piece.kg ?? 0) * count,
          label: `${count > 1 ? `${count} × ` : ''}${loadLabel(piece)}${item === 'dumbbell' ? '' : ` ${inWords(item)}`}`,
        })),
    );
  // Two pieces may carry the same label by mistake: the weight tells them apart.
  const unique = new Map(loads.map((load) => [`${load.label} ${load.kg}`, load]));
  return [...unique.values()].sort((a, b) => a.kg - b.kg || a.label.localeCompare(b.label));
}
