import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';

import { fromPounds, kitCounts, type KitOption, type KitPiece, usableOption, weightWords } from '../movement/index.js';
import { kit, options, piece } from '../test/kits.js';
import { bodyLoad, loadsFor, nearestLoads, settingsOf, standInsFor } from './index.js';

const ONE_DUMBBELL: KitOption[] = [{ needs: [{ item: 'dumbbell', count: 1 }] }];
const PAIR: KitOption[] = [{ needs: [{ item: 'dumbbell', count: 2 }] }];

describe('loads', () => {
  test('are all that fixed pieces can make, lightest first, each once, both of a pair counted; another piece takes none away', () => {
    fc.assert(
      fc.property(kit, piece, options, (pieces, more, any) => {
        const loads = loadsFor(any, pieces);
        expect(loads.map(({ kg }) => kg)).toEqual(loads.map(({ kg }) => kg ?? 0).toSorted((a, b) => a - b));
        expect(new Set(loads.map((load) => `${load.label} ${load.kg}`)).size).toBe(loads.length);
        const possible = any
          .filter((option) => usableOption([option], kitCounts(pieces)))
          .flatMap(({ needs }) =>
            needs.flatMap((need) =>
              pieces
                .filter(({ item, count, kg }) => item === need.item && count >= need.count && kg)
                .map(({ kg }) => (kg ?? 0) * need.count),
            ),
          );
        expect(new Set(loads.map(({ kg }) => kg))).toEqual(new Set(possible));
        const richer = loadsFor(any, [...pieces, more]).map(({ label }) => label);
        for (const { label } of loads) expect(richer).toContain(label);
      }),
    );
  });

  test('of plates are exactly the sums that both ends of all handles can carry alike, with the fewest plates', () => {
    const plates = fc.uniqueArray(
      fc.record({ kg: fc.constantFrom(0.5, 1.25, 2.5, 5, 10), count: fc.integer({ min: 0, max: 9 }) }),
      { minLength: 1, maxLength: 3, selector: ({ kg }) => kg },
    );
    fc.assert(
      fc.property(plates, fc.constantFrom(1, 2), fc.constantFrom(0, 2, 2.25), (rack, handles, bare) => {
        // Every way to put equal numbers on each end, one by one.
        const ways = rack.reduce<{ kg: number; used: number }[]>(
          (all, { kg, count }) =>
            all.flatMap((way) =>
              Array.from({ length: Math.floor(count / (2 * handles)) + 1 }, (_, n) => ({
                kg: way.kg + 2 * n * kg,
                used: way.used + n,
              })),
            ),
          [{ kg: bare, used: 0 }],
        );
        const fewest = new Map<number, number>();
        for (const { kg, used } of ways) fewest.set(kg, Math.min(used, fewest.get(kg) ?? Infinity));
        const settings = settingsOf(bare, rack, handles);
        expect(settings.map(({ kg }) => kg)).toEqual([...fewest.keys()].toSorted((a, b) => a - b));
        for (const { kg, ends } of settings) {
          expect(ends.length).toBe(fewest.get(kg));
          expect(bare + 2 * ends.reduce((sum, end) => sum + end, 0)).toBeCloseTo(kg, 9);
        }
      }),
    );
  });

  test('of an adjustable pair share their plates, and say how they are set and what a change takes', () => {
    const handles: KitPiece = { item: 'dumbbell', count: 2, kg: 2, plates: [{ kg: 2.5, count: 4 }], changeSeconds: 40 };
    expect(loadsFor(PAIR, [handles])).toEqual([
      { item: 'dumbbell', count: 2, kg: 4, label: '2 × 2 kg', setting: 'bare', changeSeconds: 40 },
      { item: 'dumbbell', count: 2, kg: 14, label: '2 × 7 kg', setting: '2.5', changeSeconds: 40 },
    ]);
    expect(loadsFor(ONE_DUMBBELL, [handles]).map(({ kg }) => kg)).toEqual([2, 7, 12]);
    const both = loadsFor(ONE_DUMBBELL, [handles, { item: 'dumbbell', count: 1, kg: 7 }]);
    expect(both.find(({ kg }) => kg === 7)?.changeSeconds).toBe(0);
  });

  test('of a stack go up by its step and no further; bands come in their order', () => {
    const stack: KitPiece = { item: 'cable', count: 1, kg: 5, stepKg: 2.5, mostKg: 13 };
    expect(loadsFor([{ needs: [{ item: 'cable', count: 1 }] }], [stack]).map(({ kg }) => kg)).toEqual([
      5, 7.5, 10, 12.5,
    ]);
    const bands = ['thick', 'thin'].map((label, i): KitPiece => ({ item: 'band', count: 1, label, order: 2 - i }));
    expect(loadsFor([{ needs: [{ item: 'band', count: 1 }] }], bands).map(({ label }) => label)).toEqual([
      'thin band',
      'thick band',
    ]);
  });

  test('typed in pounds come back as they were typed', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 40_000 }), (hundredths) => {
        expect(weightWords(fromPounds(hundredths / 100), 'lb')).toBe(`${hundredths / 100} lb`);
      }),
    );
    const pounds: KitPiece[] = [{ item: 'dumbbell', count: 2, kg: fromPounds(25), unit: 'lb' }];
    expect(loadsFor(PAIR, pounds)[0]?.label).toBe('2 × 25 lb');
    expect(loadsFor(PAIR, [{ item: 'dumbbell', count: 2, kg: 11.34, label: '25 lb' }])[0]?.label).toBe('2 × 25 lb');
  });

  test('nearest to one that cannot be made are its neighbours', () => {
    const loads = loadsFor(
      ONE_DUMBBELL,
      [4, 6, 10].map((kg): KitPiece => ({ item: 'dumbbell', count: 1, kg })),
    );
    expect(nearestLoads(loads, 7).map(({ kg }) => kg)).toEqual([6, 10]);
    expect(nearestLoads(loads, 3).map(({ kg }) => kg)).toEqual([4]);
    expect(nearestLoads(loads, 30).map(({ kg }) => kg)).toEqual([10]);
    // What weighs the same stands in for what is gone, whatever it is called.
    expect(standInsFor(loads, 10).map(({ kg }) => kg)).toEqual([10]);
    expect(standInsFor(loads, 7)).toEqual(nearestLoads(loads, 7));
  });
});

test('the share of body weight is known only where it was measured', () => {
  expect(bodyLoad('push-up', 70)).toBe(44.8);
  expect(bodyLoad('hands-raised-push-up', 70, 55)).toBe(28.7);
  expect(bodyLoad('goblet-squat', 70)).toBeNull();
});
