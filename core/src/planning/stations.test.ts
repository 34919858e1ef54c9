import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';

import { rotate, type Rotation, type StationProblem, waits } from './stations.js';

const problem: fc.Arbitrary<StationProblem> = fc
  .record({ people: fc.integer({ min: 1, max: 4 }), items: fc.integer({ min: 1, max: 5 }) })
  .chain(({ people, items }) =>
    fc.record({
      people: fc.constant(people),
      items: fc.constant(items),
      places: fc.array(fc.integer({ min: 1, max: 4 }), { minLength: items, maxLength: items }),
      sharing: fc.array(
        fc.tuple(fc.nat(items - 1), fc.nat(items - 1)).filter(([a, b]) => a !== b || items === 1),
        { maxLength: items === 1 ? 0 : 2 },
      ),
    }),
  );

/** Read from the rules one by one. */
function lawful({ people, items, places, sharing }: StationProblem, rotation: Rotation): boolean {
  const slotsFit = rotation.every((slot) => {
    const at = (item: number) => slot.filter((one) => one === item).length;
    return places.every((n, item) => at(item) <= n) && sharing.every(([a, b]) => at(a) === 0 || at(b) === 0);
  });
  const everybody = Array.from({ length: people }, (_, person) =>
    rotation.map((slot) => slot[person]).filter((one) => one !== null),
  );
  return slotsFit && everybody.every((mine) => mine.length === items && new Set(mine).size === items);
}

/** The fewest slots, by filling slot after slot with every possible choice and remembering what each has done. */
function fewest({ people, items, places, sharing }: StationProblem): number {
  const all = (1 << items) - 1;
  let states = new Set([Array.from({ length: people }, () => 0).join()]);
  for (let slots = 0; ; slots += 1) {
    if (states.has(Array.from({ length: people }, () => all).join())) return slots;
    const next = new Set<string>();
    for (const state of states) {
      const done = state.split(',').map(Number);
      const choose = (person: number, picks: (number | null)[]) => {
        if (person === people) {
          next.add(done.map((mask, i) => (picks[i] === null ? mask : mask | (1 << (picks[i] as number)))).join());
          return;
        }
        choose(person + 1, [...picks, null]);
        for (let item = 0; item < items; item += 1) {
          if ((done[person] as number) & (1 << item)) continue;
          if (picks.filter((one) => one === item).length >= (places[item] as number)) continue;
          if (sharing.some(([a, b]) => (a === item && picks.includes(b)) || (b === item && picks.includes(a))))
            continue;
          choose(person + 1, [...picks, item]);
        }
      };
      choose(0, []);
    }
    states = next;
  }
}

describe('stations', () => {
  test('everybody does everything once, no two on one piece', () => {
    fc.assert(
      fc.property(problem, (one) => {
        expect(lawful(one, rotate(one) ?? [])).toBe(true);
      }),
      { endOnFailure: true },
    );
  });

  test('in as few slots as any rotation could', () => {
    fc.assert(
      fc.property(
        problem.filter(({ people, items }) => people <= 3 && items <= 3),
        (one) => expect(rotate(one)?.length).toBe(fewest(one)),
      ),
      { numRuns: 40, endOnFailure: true },
    );
  });

  test('with a place for each nobody waits; an item without a place has no rotation', () => {
    const open: StationProblem = { people: 3, items: 4, places: [1, 1, 1, 1], sharing: [] };
    expect(waits(rotate(open) ?? [], 3)).toEqual([0, 0, 0]);
    expect(rotate({ ...open, places: [1, 0, 1, 1] })).toBeNull();
  });
});
