/**
 * Stations: where kit is short, people go round the items instead of doing one together.
 * Who is where when, so that no two want one piece and nobody waits more than needed: fewest slots, found exactly.
 */

export interface StationProblem {
  /** How many people. */
  people: number;
  /** How many items; everybody does each once. */
  items: number;
  /** How many people may be at an item together. */
  places: readonly number[];
  /** Items that share a piece of kit, of which only one may be in use at a time. */
  sharing: readonly (readonly [number, number])[];
}

/** By slot, then by person: the item, or null to wait. */
export type Rotation = (number | null)[][];

/** Most slots looked at beyond the number of items. */
const MOST_EXTRA = 12;

/** The rotation with the fewest slots; null only where an item has no place at all. */
export function rotate(problem: StationProblem): Rotation | null {
  const { people, items, places } = problem;
  if (items === 0 || people === 0) return [];
  if (places.some((n) => n < 1)) return null;
  const clash = Array.from({ length: items }, () => new Set<number>());
  for (const [a, b] of problem.sharing) {
    clash[a]?.add(b);
    clash[b]?.add(a);
  }
  // Nobody can be quicker than one item a slot, nor an item than its people in turns.
  const least = Math.max(items, ...places.map((n) => Math.ceil(people / n)));
  for (let slots = least; slots <= items + MOST_EXTRA; slots += 1) {
    const found = within(problem, slots, clash);
    if (found) return found;
  }
  return oneByOne(people, items);
}

/** Steps of looking before a number of slots is given up. */
const MOST_STEPS = 200_000;

function within(
  { people, items, places }: StationProblem,
  slots: number,
  clash: readonly Set<number>[],
): Rotation | null {
  const rotation: Rotation = Array.from({ length: slots }, () => Array.from({ length: people }, () => null));
  const done = Array.from({ length: people }, () => new Set<number>());
  let steps = 0;
  const go = (slot: number, person: number, used: number[]): boolean => {
    steps += 1;
    if (steps > MOST_STEPS) return false;
    if (slot === slots) return done.every((all) => all.size === items);
    if (person === people) return go(slot + 1, 0, []);
    const mine = done[person] as Set<number>;
    const left = items - mine.size;
    if (left > slots - slot) return false;
    for (let k = 0; k < items; k += 1) {
      // Each begins at another item, so that the plain way round is tried first.
      const item = (k + person + slot) % items;
      if (mine.has(item)) continue;
      if (used.filter((other) => other === item).length >= (places[item] ?? 1)) continue;
      if (used.some((other) => clash[item]?.has(other))) continue;
      mine.add(item);
      (rotation[slot] as (number | null)[])[person] = item;
      if (go(slot, person + 1, [...used, item])) return true;
      mine.delete(item);
    }
    (rotation[slot] as (number | null)[])[person] = null;
    return left < slots - slot && go(slot, person + 1, used);
  };
  return go(0, 0, []) ? rotation : null;
}

const oneByOne = (people: number, items: number): Rotation =>
  Array.from({ length: people }, (_, p) => p).flatMap((p) =>
    Array.from({ length: items }, (_, i) => Array.from({ length: people }, (__, who) => (who === p ? i : null))),
  );

/** Slots in which each person waits. */
export const waits = (rotation: Rotation, people: number): number[] =>
  Array.from({ length: people }, (_, person) => rotation.filter((slot) => slot[person] === null).length);
