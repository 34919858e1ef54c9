import { expect, test } from '@jest/globals';
import fc from 'fast-check';

import { sheetsOf } from './sheets';

const picture = fc.record({ width: fc.integer({ min: 1, max: 1800 }), height: fc.integer({ min: 1, max: 1800 }) });

test('pictures lie side by side, none over another, on sheets that a graphics card can hold', () => {
  fc.assert(
    fc.property(fc.array(picture, { maxLength: 40 }), (all) => {
      const sheets = sheetsOf(all);
      expect(sheets.flatMap(({ cells }) => cells.map(({ of }) => of))).toEqual(all);
      for (const { cells, width, height } of sheets) {
        expect(Math.max(width, height)).toBeLessThanOrEqual(4096);
        for (const [i, { of, x, y }] of cells.entries()) {
          expect(x + of.width).toBeLessThanOrEqual(width);
          expect(y + of.height).toBeLessThanOrEqual(height);
          for (const other of cells.slice(i + 1))
            expect(
              x + of.width <= other.x ||
                other.x + other.of.width <= x ||
                y + of.height <= other.y ||
                other.y + other.of.height <= y,
            ).toBe(true);
        }
      }
    }),
  );
});
