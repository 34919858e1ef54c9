import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';

import { REGION_DEMANDS } from '../client/index.js';
import {
  ALWAYS_AT_HAND,
  DEMANDS,
  type Demands,
  demandsWith,
  KIT_ITEMS,
  type KitItem,
  type Limit,
  openOptions,
  REGIONS,
  SPACES,
  usableOptions,
} from '../movement/index.js';
import { lawfulLibrary } from '../test/generate.js';
import {
  buildCatalog,
  buildLadder,
  type MovementFacts,
  reach,
  type Rung,
  type SubstituteQuery,
  substitutes,
  SWAP_REASONS,
} from './index.js';

const SIZE = 14;

const limit: fc.Arbitrary<Limit> = fc.record({
  demand: fc.constantFrom(...DEMANDS),
  allowed: fc.integer({ min: 0, max: 2 }),
  reason: fc.constant('because'),
});

const kits: fc.Arbitrary<Map<KitItem, number>> = fc
  .uniqueArray(fc.constantFrom(...KIT_ITEMS), { maxLength: 8 })
  .map((items) => new Map([...ALWAYS_AT_HAND, ...items].map((item) => [item, 2])));

/** A library and a question about one of its movements, with room for every answer. */
const questions = fc.record({
  library: lawfulLibrary(SIZE),
  query: fc.record({
    from: fc.nat(SIZE - 1).map((n) => `movement-${n}`),
    reason: fc.constantFrom(...SWAP_REASONS),
    region: fc.constantFrom(...REGIONS),
    limits: fc.array(limit, { maxLength: 3 }),
    kit: kits,
    most: fc.constant(SIZE),
  }),
});

const ask = (library: readonly MovementFacts[], query: SubstituteQuery) => substitutes(buildCatalog(library), query);
const ids = (library: readonly MovementFacts[], query: SubstituteQuery): string[] =>
  ask(library, query).ranked.map(({ id }) => id);

describe('the answers to a swap', () => {
  test('do not depend on the order in which the library is written', () => {
    fc.assert(
      fc.property(questions, fc.infiniteStream(fc.nat()), ({ library, query }, keys) => {
        const drawn = library.map((movement) => ({ movement, key: keys.next().value ?? 0 }));
        const shuffled = drawn.sort((a, b) => a.key - b.key).map(({ movement }) => movement);
        const plain = ask(library, query);
        const other = ask(shuffled, query);
        expect(other.ranked.map(({ id, cost }) => [id, cost])).toEqual(plain.ranked.map(({ id, cost }) => [id, cost]));
        expect(other.ruledOut).toEqual(plain.ruledOut);
      }),
    );
  });

  test('are cut off from the end, never from the middle', () => {
    fc.assert(
      fc.property(questions, fc.integer({ min: 1, max: SIZE }), ({ library, query }, most) => {
        expect(ids(library, { ...query, most })).toEqual(ids(library, query).slice(0, most));
      }),
    );
  });

  test('only become fewer with one more limit, and every one that goes is named with it', () => {
    fc.assert(
      fc.property(questions, limit, ({ library, query }, more) => {
        const before = ids(library, query);
        const { ranked, ruledOut } = ask(library, { ...query, limits: [...query.limits, more] });
        const after = ranked.map(({ id }) => id);
        for (const id of after) expect(before).toContain(id);
        for (const id of before.filter((one) => !after.includes(one)))
          expect(ruledOut.find((out) => out.id === id)?.by).toMatchObject({ code: 'limits' });
      }),
    );
  });

  test('only become more with more kit', () => {
    fc.assert(
      fc.property(questions, fc.constantFrom(...KIT_ITEMS), ({ library, query }, item) => {
        fc.pre(query.reason !== 'no-kit');
        const richer = ids(library, { ...query, kit: new Map([...query.kit, [item, 2]]) });
        for (const id of ids(library, query)) expect(richer).toContain(id);
      }),
    );
  });

  test('leave out what hurt today and keep the rest in order', () => {
    fc.assert(
      fc.property(questions, fc.nat(SIZE - 1), ({ library, query }, n) => {
        const hurt = `movement-${n}`;
        expect(ids(library, { ...query, avoid: [hurt] })).toEqual(ids(library, query).filter((id) => id !== hurt));
      }),
    );
  });

  test('need no more room than there is, and after "no room" less than now', () => {
    fc.assert(
      fc.property(questions, fc.constantFrom(...SPACES), ({ library, query }, space) => {
        const room = (id: string) => SPACES.indexOf(library.find((one) => one.id === id)?.space ?? 'lane');
        for (const id of ids(library, { ...query, space })) expect(room(id)).toBeLessThanOrEqual(SPACES.indexOf(space));
        for (const id of ids(library, { ...query, reason: 'no-room' }))
          expect(room(id) < room(query.from) || room(query.from) === 0).toBe(true);
      }),
    );
  });

  test('after "no kit" can be done without anything that the movement in hand may use', () => {
    fc.assert(
      fc.property(questions, ({ library, query }) => {
        const used = new Set(
          library
            .find(({ id }) => id === query.from)
            ?.kit.flatMap(({ needs }) => needs)
            .map(({ item }) => item),
        );
        for (const id of ids(library, { ...query, reason: 'no-kit' })) {
          const { kit } = library.find((one) => one.id === id) ?? { kit: [] };
          const without = kit.some(({ needs }) => needs.every(({ item }) => !used.has(item) && query.kit.has(item)));
          expect(kit.length === 0 || without).toBe(true);
        }
      }),
    );
  });

  test('after pain ask for no more than a trace of what loads the region, and for less of it than now', () => {
    fc.assert(
      fc.property(questions, ({ library, query }) => {
        const now = library.find(({ id }) => id === query.from)?.demands ?? {};
        const spares = (demands: Demands) =>
          REGION_DEMANDS[query.region ?? 'knee'].every((demand) => {
            const asked = demands[demand] ?? 0;
            return asked === 0 || (asked === 1 && asked < (now[demand] ?? 0));
          });
        for (const id of ids(library, { ...query, reason: 'pain' })) {
          const facts = library.find((one) => one.id === id) as MovementFacts;
          const open = openOptions(facts, query.limits, query.kit);
          expect(open.some((option) => spares(demandsWith(facts.demands, option)))).toBe(true);
        }
      }),
    );
  });

  test('after a wobble ask for less balance than now', () => {
    fc.assert(
      fc.property(questions, ({ library, query }) => {
        const balance = (id: string) => library.find((one) => one.id === id)?.demands['single-leg-balance'] ?? 0;
        for (const id of ids(library, { ...query, reason: 'wobbly' }))
          expect(balance(id) === 0 || balance(id) < balance(query.from)).toBe(true);
      }),
    );
  });

  test('after a wobble never go another way than now', () => {
    fc.assert(
      fc.property(questions, ({ library, query }) => {
        const planes = (id: string) => library.find((one) => one.id === id)?.planes ?? [];
        for (const id of ids(library, { ...query, reason: 'wobbly' }))
          expect(planes(query.from)).toEqual(expect.arrayContaining(planes(id)));
      }),
    );
  });

  test('begin with linked rungs of the pattern, the smallest step first, then the family, then the rest; the cheapest first in each', () => {
    fc.assert(
      fc.property(questions, ({ library, query }) => {
        // After pain it is what the movement was meant for that comes first.
        fc.pre(query.reason !== 'pain');
        const { ladder } = buildCatalog(library);
        const ways = { 'too-hard': ['easier'], wobbly: ['easier'], 'too-easy': ['harder'] } as const;
        const way = query.reason in ways ? ways[query.reason as keyof typeof ways] : null;
        const linked = reach(ladder, query.from, way ?? ['sideways', 'easier', 'harder'], way ? 6 : 3);
        const pattern = (id: string) => library.find((one) => one.id === id)?.pattern;
        const keys = ask(library, query).ranked.map(({ id, cost, levels }) => {
          const sameFamily = ladder.components.get(id) === ladder.components.get(query.from);
          const far = pattern(id) !== pattern(query.from) ? 3 : linked.has(id) ? 0 : sameFamily ? 1 : 2;
          const stepwise = ['too-hard', 'too-easy'].includes(query.reason) && linked.has(id);
          return [far, stepwise ? Math.abs(levels ?? 0) : 0, cost] as const;
        });
        const ordered = keys.toSorted((a, b) => a[0] - b[0] || a[1] - b[1] || a[2] - b[2]);
        expect(keys).toEqual(ordered);
      }),
    );
  });

  test('mark what is taken with care, say why, and cost more for it', () => {
    const held: Limit = { demand: 'impact', allowed: 1, reason: 'ankle' };
    fc.assert(
      fc.property(questions, ({ library, query }) => {
        const free = ask(library, { ...query, limits: [] });
        const { ranked } = ask(library, { ...query, limits: [held] });
        for (const answer of ranked) {
          const { kit = [], demands } = library.find(({ id }) => id === answer.id) ?? { demands: {} };
          // The way to do it that asks least, of those that the kit allows.
          const ways = usableOptions(kit, query.kit).map((option) => option.demands?.impact ?? demands.impact ?? 0);
          const asked = ways.length > 0 ? Math.min(...ways) : (demands.impact ?? 0);
          const before = free.ranked.find(({ id }) => id === answer.id)?.cost ?? Infinity;
          if (asked === held.allowed) expect(answer).toMatchObject({ care: true });
          if (answer.care)
            expect(answer.why.at(-1)).toMatchObject({ code: 'care', because: [{ demand: 'impact', reason: 'ankle' }] });
          expect(answer.cost - before).toBeCloseTo(answer.care ? 1.5 : 0, 9);
        }
      }),
    );
  });
});

describe('how far a ladder reaches', () => {
  const directions = fc.uniqueArray(fc.constantFrom<keyof Rung>('easier', 'harder', 'sideways'), { minLength: 1 });

  /** Steps to everything within reach, by trying every walk. */
  function walks(library: readonly MovementFacts[], start: string, along: readonly string[], most: number) {
    const { rungs } = buildLadder(library);
    const found = new Map<string, number>();
    const walk = (id: string, taken: number): void => {
      if ((found.get(id) ?? Infinity) <= taken || taken > most) return;
      found.set(id, taken);
      for (const direction of along as (keyof Rung)[])
        for (const { to } of rungs.get(id)?.[direction] ?? []) walk(to, taken + 1);
    };
    walk(start, 0);
    found.delete(start);
    return found;
  }

  test('every way is a shortest one, leads there step by step, and none is missing', () => {
    fc.assert(
      fc.property(
        lawfulLibrary(9),
        fc.nat(8),
        directions,
        fc.integer({ min: 1, max: 4 }),
        (library, n, along, most) => {
          const ladder = buildLadder(library);
          const start = `movement-${n}`;
          const found = reach(ladder, start, along, most);
          expect(new Map([...found].map(([id, way]) => [id, way.length]))).toEqual(walks(library, start, along, most));
          for (const [id, way] of found) {
            let at = start;
            for (const step of way) {
              expect(along.some((direction) => ladder.rungs.get(at)?.[direction].includes(step))).toBe(true);
              at = step.to;
            }
            expect(at).toBe(id);
          }
        },
      ),
    );
  });

  test('two movements are of one family exactly when easier and harder links lead from one to the other', () => {
    fc.assert(
      fc.property(lawfulLibrary(9), fc.nat(8), fc.nat(8), (library, a, b) => {
        const { components } = buildLadder(library);
        const joined = a === b || walks(library, `movement-${a}`, ['easier', 'harder'], 9).has(`movement-${b}`);
        expect(components.get(`movement-${a}`) === components.get(`movement-${b}`)).toBe(joined);
      }),
    );
  });
});
