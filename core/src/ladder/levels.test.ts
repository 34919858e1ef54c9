import { expect, test } from '@jest/globals';
import fc from 'fast-check';

import { demandsWith, fitFor, kitCounts, type Limit } from '../movement/index.js';
import { ALWAYS_AT_HAND, DEMANDS } from '../movement/vocabulary.js';
import { lawfulLibrary } from '../test/generate.js';
import { buildCatalog, fallbackFor, fallbackForAll, threeLevels } from './index.js';

const limits: fc.Arbitrary<Limit[]> = fc.array(
  fc.record({ demand: fc.constantFrom(...DEMANDS), allowed: fc.constantFrom(0, 1, 2), reason: fc.constant('so') }),
  { maxLength: 3 },
);

test('three levels for everybody: nothing that is closed or hurts is offered, and the fallback is open to all', () => {
  fc.assert(
    fc.property(lawfulLibrary(12), fc.array(limits, { minLength: 1, maxLength: 4 }), fc.nat(11), (library, all, n) => {
      const catalog = buildCatalog(library);
      const from = `movement-${n}`;
      const clients = all.map((own, i) => ({
        clientId: `${i}`,
        limits: own,
        avoid: i === 0 ? [`movement-${(n + 1) % 12}`] : [],
      }));
      // What asks for nothing that is not in every room, at its gentlest.
      const stands = ({ demands, kit }: (typeof library)[number], who: number) => {
        const options = kit.length === 0 ? [{ needs: [] }] : kit;
        const met = options.filter(({ needs }) => needs.every(({ item }) => ALWAYS_AT_HAND.includes(item)));
        const all = met.map((option) => fitFor(demandsWith(demands, option), clients[who]?.limits ?? []).status);
        return (['open', 'care'] as const).find((status) => all.includes(status)) ?? 'closed';
      };
      const may = (id: string, who: number) => {
        const movement = library.find((one) => one.id === id);
        return movement !== undefined && stands(movement, who) !== 'closed' && !clients[who]?.avoid.includes(id);
      };
      threeLevels(catalog, from, clients, kitCounts([])).forEach(({ easier, same, harder }, who) => {
        for (const step of [easier, harder]) if (step) expect(may(step.id, who)).toBe(true);
        if (same) expect(may(from, who)).toBe(true);
        if (easier?.levels != null) expect(easier.levels).toBeLessThanOrEqual(0);
      });
      const fallback = fallbackFor(catalog, from, clients, kitCounts([]));
      const origin = library[n];
      const open = library.filter(
        (one) =>
          one.pattern === origin?.pattern &&
          one.role === origin.role &&
          clients.every((_, who) => may(one.id, who) && stands(one, who) === 'open'),
      );
      expect(fallback === null).toBe(open.length === 0);
      const levels = catalog.ladder.levels;
      if (fallback) expect(levels.get(fallback.id)).toBe(Math.min(...open.map(({ id }) => levels.get(id) ?? 0)));
      // At stations: one of what could stand in for each, and none of them asks for less.
      const stations = [from, `movement-${(n + 5) % 12}`, `movement-${(n + 7) % 12}`];
      const single = stations.flatMap((id) => fallbackFor(catalog, id, clients, kitCounts([])) ?? []);
      const forAll = fallbackForAll(catalog, stations, clients, kitCounts([]));
      const asked = (id: string) => catalog.entries.get(id)?.asks.reduce((sum, one) => sum + one, 0) ?? 0;
      if (forAll) {
        expect(single).toContainEqual(forAll);
        for (const { id } of single) expect(asked(forAll.id)).toBeLessThanOrEqual(asked(id));
      } else expect(single.every(({ id }) => stations.every((one) => one === id))).toBe(true);
    }),
  );
  expect(threeLevels(buildCatalog([]), 'gone', [], new Map())).toEqual([]);
});
