import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';

import { kit, options, piece } from '../test/kits.js';
import {
  ALWAYS_AT_HAND,
  DEMANDS,
  demandWords,
  DIRECTIONS,
  inWords,
  KIT_ITEMS,
  kitCounts,
  type KitOption,
  type KitPiece,
  kitWords,
  label,
  LEVERS,
  leverWords,
  usableOption,
} from './index.js';

describe('what is at hand', () => {
  test('an option is usable exactly when each need is met by equal pieces, and the first such one is taken', () => {
    fc.assert(
      fc.property(kit, options, (pieces, any) => {
        const met = ({ needs }: KitOption) =>
          needs.every((need) => pieces.some(({ item, count }) => item === need.item && count >= need.count));
        const usable = usableOption(any, kitCounts(pieces));
        expect(usable).toEqual(any.length === 0 ? { needs: [] } : any.find(met));
      }),
    );
  });

  test('two single bells of different weight are not a pair', () => {
    const singles: KitPiece[] = [
      { item: 'bell', count: 1, kg: 8 },
      { item: 'bell', count: 1, kg: 12 },
    ];
    expect(usableOption([{ needs: [{ item: 'bell', count: 2 }] }], kitCounts(singles))).toBeUndefined();
    expect(
      usableOption([{ needs: [{ item: 'bell', count: 2 }] }], kitCounts([{ item: 'bell', count: 2 }])),
    ).toBeDefined();
  });

  test('walls and towels are everywhere', () => {
    for (const item of ALWAYS_AT_HAND)
      expect(usableOption([{ needs: [{ item, count: 1 }] }], kitCounts([]))).toBeDefined();
  });

  test('another piece never takes an option away', () => {
    fc.assert(
      fc.property(kit, piece, options, (pieces, more, any) => {
        const richer = [...pieces, more];
        if (usableOption(any, kitCounts(pieces))) expect(usableOption(any, kitCounts(richer))).toBeDefined();
      }),
    );
  });
});

describe('words', () => {
  const readable = /^[a-zA-Z0-9][a-z0-9 ,-]*$/;

  test('no slug, camel case or empty word reaches a person', () => {
    for (const demand of DEMANDS) expect(demandWords(demand)).toMatch(readable);
    for (const lever of LEVERS)
      for (const direction of DIRECTIONS) {
        expect(leverWords(lever, direction)).toMatch(readable);
        expect(leverWords(lever, direction)).not.toMatch(/[A-Z]/);
      }
    for (const item of KIT_ITEMS) {
      expect(inWords(item)).not.toContain('-');
      for (const count of [1, 2, 3])
        expect(kitWords([{ needs: [{ item, count }] }])).toMatch(/^(a|one|a pair of|\d) [a-z ]+$/);
    }
    for (const slug of [...DEMANDS, ...KIT_ITEMS, ...LEVERS]) expect(label(slug)).toMatch(/^[A-Z]/);
  });

  test('easier and harder by one lever are never said the same', () => {
    for (const lever of LEVERS) {
      const said = DIRECTIONS.map((direction) => leverWords(lever, direction));
      expect(new Set(said).size).toBe(DIRECTIONS.length);
    }
  });
});
