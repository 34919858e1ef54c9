/** Random kits of fixed pieces, and random needs of movements. */
import fc from 'fast-check';

import type { KitOption, KitPiece } from '../movement/index.js';

const ITEMS = ['dumbbell', 'bell', 'bench', 'mat'] as const;

export const piece: fc.Arbitrary<KitPiece> = fc.record({
  item: fc.constantFrom(...ITEMS),
  count: fc.integer({ min: 1, max: 3 }),
  kg: fc.constantFrom(null, 4, 8, 11.34),
  label: fc.constantFrom(null, '25 lb'),
});
export const kit = fc.array(piece, { maxLength: 6 });
const option: fc.Arbitrary<KitOption> = fc.record({
  needs: fc.uniqueArray(fc.record({ item: fc.constantFrom(...ITEMS), count: fc.integer({ min: 1, max: 2 }) }), {
    maxLength: 2,
    selector: ({ item }) => item,
  }),
});
export const options = fc.array(option, { maxLength: 3 });
