import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';

import { bestOrder, longSearch, orderCost, type OrderProblem } from './order.js';

const seconds = fc.integer({ min: 0, max: 60 });
const row = (n: number) => fc.array(seconds, { minLength: n, maxLength: n });
const square = (n: number) => fc.array(row(n), { minLength: n, maxLength: n });

/** Any costs, any locks, any pairs: some cannot be kept at all. */
const problem = (least: number, most: number): fc.Arbitrary<OrderProblem> =>
  fc.integer({ min: least, max: most }).chain((size) =>
    fc.record({
      size: fc.constant(size),
      first: row(size),
      step: square(size),
      place: square(size),
      rounds: fc.integer({ min: 1, max: 3 }),
      locked: fc.array(fc.constantFrom(null, null, null, ...Array.from({ length: size }, (_, i) => i)), {
        minLength: size,
        maxLength: size,
      }),
      after: fc
        .tuple(fc.nat(size - 1), fc.nat(size - 1), fc.boolean())
        .map(([a, b, needed]) => Array.from({ length: size }, (_, i) => (needed && a !== b && i === a ? [b] : []))),
      then: fc
        .tuple(fc.nat(size - 1), fc.nat(size - 1), fc.boolean())
        .map(([a, b, paired]) => Array.from({ length: size }, (_, i) => (paired && a !== b && i === a ? b : null))),
    }),
  );

const free = (one: OrderProblem): OrderProblem => ({
  ...one,
  locked: one.locked.map(() => null),
  then: one.then.map(() => null),
  after: one.after.map(() => []),
});

function* orders(rest: readonly number[]): Generator<number[]> {
  if (rest.length === 0) yield [];
  for (const one of rest) for (const tail of orders(rest.filter((other) => other !== one))) yield [one, ...tail];
}

describe('the best order', () => {
  test('costs as little as the best of all orders tried one by one, locks, pairs and what comes first kept', () => {
    fc.assert(
      fc.property(problem(1, 7), (one) => {
        let least = Infinity;
        for (const order of orders([...one.step.keys()])) least = Math.min(least, orderCost(one, order));
        const best = bestOrder(one);
        expect(best === null ? Infinity : orderCost(one, best)).toBeCloseTo(least, 6);
      }),
      { numRuns: 120, endOnFailure: true },
    );
    fc.assert(
      fc.property(problem(8, 8), (one) => {
        let least = Infinity;
        for (const order of orders([...one.step.keys()])) least = Math.min(least, orderCost(one, order));
        const best = bestOrder(one);
        expect(best === null ? Infinity : orderCost(one, best)).toBeCloseTo(least, 6);
      }),
      { numRuns: 6, endOnFailure: true },
    );
  });

  test('of many keeps everything once and every lock in its place', () => {
    fc.assert(
      fc.property(problem(13, 20), (drawn) => {
        const locked = drawn.locked.map((at, i) => (at === i && drawn.then[i] === null ? at : null));
        const one = { ...free(drawn), locked };
        const best = bestOrder(one);
        expect(best?.toSorted((a, b) => a - b)).toEqual([...one.step.keys()]);
        locked.forEach((at, i) => at !== null && expect(best?.[at]).toBe(i));
      }),
      { numRuns: 5, endOnFailure: true },
    );
  });

  test('leaves things as they are where nothing is gained', () => {
    fc.assert(
      fc.property(problem(2, 9), (one) => {
        const flat = {
          ...free(one),
          first: one.first.map(() => 1),
          step: one.step.map((r) => r.map(() => 1)),
          place: one.place.map((r) => r.map(() => 1)),
        };
        expect(bestOrder(flat)).toEqual([...flat.step.keys()]);
      }),
      { numRuns: 20 },
    );
  });
});

test('of many that are in a lawful order stays lawful: locks, pairs, and what comes after its parts', () => {
  fc.assert(
    fc.property(problem(14, 16), (drawn) => {
      const one = {
        ...free(drawn),
        locked: drawn.locked.map((_, i) => (i === 4 ? 4 : null)),
        then: drawn.then.map((_, i) => (i === 6 ? 7 : null)),
        after: drawn.after.map((_, i) => (i === 12 ? [1, 10] : [])),
      };
      const best = bestOrder(one);
      expect(best).not.toBeNull();
      expect(orderCost(one, best ?? [])).toBeLessThanOrEqual(orderCost(one, [...one.step.keys()]));
      expect(best?.toSorted((a, b) => a - b)).toEqual([...one.step.keys()]);
    }),
    { numRuns: 6, endOnFailure: true },
  );
});

test('the local search finds what the exact one finds, where both can look', () => {
  fc.assert(
    fc.property(problem(6, 10), (drawn) => {
      const one = free(drawn);
      const exact = orderCost(one, bestOrder(one) ?? []);
      const found = longSearch(one, 200);
      expect(orderCost(one, found ?? [])).toBeLessThanOrEqual(exact * 1.05 + 2);
    }),
    // Always the same problems: a search may miss, and whether it does must not be a matter of luck.
    { numRuns: 25, seed: 7, endOnFailure: true },
  );
});
