import { describe, expect, test } from '@jest/globals';
import { loadsFor } from '@waxwing/core/dosage';
import { fromPounds, KIT_ITEMS, type KitPiece } from '@waxwing/core/movement';
import fc from 'fast-check';

import { fromRows, type KitRow, toRows } from './kit-fields';

const quarter = fc.integer({ min: 1, max: 400 }).map((n) => n / 4);

/** Pieces as a trainer would type them: every number in the unit that stands beside it. */
const piece: fc.Arbitrary<KitPiece> = fc
  .record({
    item: fc.constantFrom(...KIT_ITEMS),
    count: fc.integer({ min: 1, max: 12 }),
    pounds: fc.boolean(),
    weight: fc.option(quarter, { nil: undefined }),
    label: fc.constantFrom(undefined, 'the old one', '25 lb'),
    plates: fc.option(
      fc.uniqueArray(fc.record({ size: quarter, count: fc.integer({ min: 1, max: 20 }) }), {
        minLength: 1,
        maxLength: 4,
        selector: ({ size }) => size,
      }),
      { nil: undefined },
    ),
    stack: fc.option(fc.record({ step: quarter, most: quarter }), { nil: undefined }),
    changeSeconds: fc.constantFrom(undefined, 0, 30),
    order: fc.constantFrom(undefined, 1, 3),
    heightsCm: fc.constantFrom(undefined, [10], [10, 20, 30]),
  })
  .map(({ item, count, pounds, weight, label, plates, stack, changeSeconds, order, heightsCm }) => {
    const inKg = (n: number) => (pounds ? fromPounds(n) : n);
    return {
      item,
      count,
      ...(weight === undefined ? {} : { kg: inKg(weight) }),
      ...(label ? { label } : {}),
      ...(pounds ? { unit: 'lb' as const } : {}),
      ...(plates ? { plates: plates.map((plate) => ({ kg: inKg(plate.size), count: plate.count })) } : {}),
      ...(stack ? { stepKg: inKg(stack.step), mostKg: inKg(stack.most) } : {}),
      ...(changeSeconds === undefined ? {} : { changeSeconds }),
      ...(order ? { order } : {}),
      ...(heightsCm ? { heightsCm: [...heightsCm] } : {}),
    };
  });

describe('kit rows', () => {
  test('written out and read back are the same kit, pounds to the last digit', () => {
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 5 }), (kit) => {
        expect(fromRows(toRows(kit))).toEqual(kit);
      }),
    );
  });

  test('take plates in several spellings, and keep what cannot be read for the answer to name', () => {
    const [row] = toRows([{ item: 'dumbbell', count: 2, kg: 2 }]) as [KitRow];
    const plates = (typed: string) => fromRows([{ ...row, plates: typed }])[0]?.plates;
    const right = [
      { kg: 2.5, count: 4 },
      { kg: 1.25, count: 8 },
    ];
    expect(plates('4 × 2.5, 8 × 1.25')).toEqual(right);
    expect(plates('4x2.5;8*1.25')).toEqual(right);
    expect(plates('four of them')).toEqual([{ kg: NaN, count: NaN }]);
    expect(plates('')).toBeUndefined();
    expect(fromRows([{ ...row, kg: 'heavy' }])[0]?.kg).toBeNaN();
  });

  test('of pounds make loads that are read in pounds', () => {
    const [row] = toRows([{ item: 'dumbbell', count: 2, kg: fromPounds(5), unit: 'lb' }]) as [KitRow];
    const kit = fromRows([{ ...row, plates: '4 × 10' }]);
    expect(
      loadsFor([{ needs: [{ item: 'dumbbell', count: 2 }] }], kit).map(({ label, setting }) => [label, setting]),
    ).toEqual([
      ['2 × 5 lb', 'bare'],
      ['2 × 25 lb', '10'],
    ]);
  });
});
