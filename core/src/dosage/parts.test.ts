/** Composed sets: what is written is read back, and every sum equals a count of single reps and seconds. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';

import { parseTempo } from '../movement/tempo.js';
import { SIDES } from '../movement/vocabulary.js';
import { MOST_PARTS, type Part, partSchema } from '../schema/part.js';
import {
  amountOfParts,
  grownParts,
  lessParts,
  parseParts,
  partAt,
  partSeconds,
  partsSeconds,
  partsUntil,
  partsWords,
  partTotals,
  wrongParts,
  wrongPartsFor,
} from './parts.js';
import { SIDE_CHANGE_SECONDS } from './tempo.js';

const tempo = fc
  .tuple(...[1, 2, 3, 4].map(() => fc.integer({ min: 0, max: 5 })))
  .filter((beats) => beats.some((beat) => beat > 0))
  .map((beats) => beats.join('-'));
const point = fc.constantFrom('bottom', 'middle', 'top', null);
export const part: fc.Arbitrary<Part> = fc.oneof(
  fc.record({
    kind: fc.constant('reps' as const),
    count: fc.integer({ min: 1, max: 20 }),
    tempo: fc.option(tempo, { nil: null }),
  }),
  fc.record({ kind: fc.constant('half' as const), count: fc.integer({ min: 1, max: 12 }) }),
  fc.record({ kind: fc.constant('pulses' as const), count: fc.integer({ min: 1, max: 30 }), at: point }),
  fc.record({ kind: fc.constant('hold' as const), count: fc.integer({ min: 1, max: 40 }), at: point }),
);
const parts = fc.array(part, { minLength: 1, maxLength: MOST_PARTS });

/** Every single second of a part, counted one by one. */
function* beats(one: Part, tempoOfLine: string): Generator<'rep' | 'pulse' | 'held'> {
  for (let n = 0; n < one.count; n += 1)
    if (one.kind === 'reps')
      for (const beat of parseTempo(one.tempo ?? tempoOfLine)) for (let s = 0; s < beat; s += 1) yield 'rep';
    else if (one.kind === 'pulses') yield 'pulse';
    else if (one.kind === 'hold') yield 'held';
}

describe('composed sets', () => {
  test('what is written is read back as the same parts', () => {
    fc.assert(fc.property(parts, (all) => expect(parseParts(partsWords(all), 'lower')).toEqual({ parts: all })));
  });

  test('a line is read as people type it', () => {
    expect(parseParts('8 singles · 3 slow (2-0-2-0) · 8 pulses · hold 8 s', 'lower')).toEqual({
      parts: [
        { kind: 'reps', count: 8, tempo: null },
        { kind: 'reps', count: 3, tempo: '2-0-2-0' },
        { kind: 'pulses', count: 8, at: null },
        { kind: 'hold', count: 8, at: null },
      ],
    });
    expect(parseParts('8, 4 half and full then 10 pulses at the bottom + 20s hold at top', 'lower')).toEqual({
      parts: [
        { kind: 'reps', count: 8, tempo: null },
        { kind: 'half', count: 4 },
        { kind: 'pulses', count: 10, at: 'bottom' },
        { kind: 'hold', count: 20, at: 'top' },
      ],
    });
    expect(parseParts('3 slow', 'rise')).toEqual({ parts: [{ kind: 'reps', count: 3, tempo: '4-0-2-0' }] });
    const paused = ['lower', 'rise'] as const;
    expect(paused.map((begins) => parseParts('3 with a pause', begins))).toEqual([
      { parts: [{ kind: 'reps', count: 3, tempo: '2-2-1-0' }] },
      { parts: [{ kind: 'reps', count: 3, tempo: '2-0-1-2' }] },
    ]);
    const said = (line: string, begins: 'lower' | 'rise' = 'lower') => {
      const answer = parseParts(line, begins);
      return 'parts' in answer
        ? answer.parts.map(({ count, ...part }) => [count, 'tempo' in part && part.tempo])
        : answer;
    };
    expect(said('3 at 2 down 2 up')).toEqual([[3, '2-0-2-0']]);
    expect(said('5 reps with 3 seconds down and 1 s pause and 1 up')).toEqual([[5, '3-1-1-0']]);
    expect(said('4 at 2 pause', 'rise')).toEqual([[4, '2-0-1-2']]);
    expect(said('4 at 2 pause at the bottom, 6 at 5 down', 'rise')).toEqual([
      [4, '2-2-1-0'],
      [6, '5-0-1-0'],
    ]);
    expect(parseParts('  ', 'lower')).toEqual({ parts: [] });
  });

  test.each([
    ['0 singles', /0 singles/],
    ['hold 0 s', /hold 0/],
    ['8 singles, eight jumps', /eight jumps/],
    ['3 slow (99-0-99-0)', /at most 60 seconds/],
    [Array.from({ length: 13 }, () => '1').join(', '), /at most 12 parts/],
  ])('%s is refused by its words', (line, said) => {
    const answer = parseParts(line, 'lower');
    expect('wrong' in answer && answer.wrong).toMatch(said);
  });

  test('totals and seconds equal a count of single reps and seconds', () => {
    fc.assert(
      fc.property(parts, tempo, fc.constantFrom(...SIDES), (all, line, sides) => {
        const counted = { rep: 0, pulse: 0, held: 0 };
        let halves = 0;
        for (const one of all) {
          for (const beat of beats(one, line)) counted[beat] += 1;
          if (one.kind === 'half') halves += partSeconds(one, line);
        }
        const totals = partTotals(all);
        expect(totals.pulses).toBe(counted.pulse);
        expect(totals.held).toBe(counted.held);
        const once = counted.rep + counted.pulse + counted.held + halves;
        expect(partsSeconds(all, line, sides)).toBe(sides === 'each' ? 2 * once + SIDE_CHANGE_SECONDS : once);
      }),
    );
  });

  test('a half-and-full rep goes the way one and a half times', () => {
    expect(partSeconds({ kind: 'half', count: 4 }, '2-1-2-0')).toBe(4 * 7);
    expect(partSeconds({ kind: 'half', count: 3 }, '2-0-1-0')).toBe(Math.ceil(3 * 4.5));
  });

  test('at every second the clock is in the part that a count would be in, and the parts fill it without a gap', () => {
    fc.assert(
      fc.property(parts, tempo, (all, line) => {
        const order = all.flatMap((one, i) => Array.from({ length: partSeconds(one, line) }, () => i));
        expect(order.map((_, second) => partAt(all, line, second * 1000)?.index)).toEqual(order);
        expect(partAt(all, line, order.length * 1000)).toBeNull();
      }),
      { numRuns: 40 },
    );
  });

  test('a set that ended in a part is the parts before it and what was done of it', () => {
    fc.assert(
      fc.property(parts, fc.nat(), fc.nat(), (all, which, n) => {
        const index = which % all.length;
        const count = n % ((all[index]?.count ?? 0) + 1);
        const done = partsUntil(all, index, count);
        expect(done.every((one) => partSchema.safeParse(one).success)).toBe(true);
        const by = (some: readonly Part[]) => some.reduce((sum, one) => sum + one.count, 0);
        expect(by(done)).toBe(by(all.slice(0, index)) + count);
      }),
    );
  });

  test('growth changes one part, by its own step, and comes to an end', () => {
    fc.assert(
      fc.property(parts, (first) => {
        let now: Part[] | null = first;
        for (let steps = 0; now; steps += 1) {
          expect(steps).toBeLessThan(1000);
          const next: Part[] | null = grownParts(now);
          if (next) {
            const before: Part[] = now;
            const changed = next.filter((one, i) => one.count !== before[i]?.count);
            expect(changed).toHaveLength(1);
            expect(next.every((one, i) => one.count >= (before[i]?.count ?? 0) && one.kind === before[i]?.kind)).toBe(
              true,
            );
          }
          now = next;
        }
      }),
    );
  });

  test('less is less, and never nothing', () => {
    fc.assert(
      fc.property(parts, (all) => {
        const less = lessParts(all);
        expect(less.length).toBeGreaterThan(0);
        const by = (some: readonly Part[]) => some.reduce((sum, one) => sum + one.count, 0);
        expect(by(less)).toBeLessThanOrEqual(by(all));
        expect(by(less) === by(all)).toBe(all.length === 1 && all[0]?.count === 1);
      }),
    );
  });

  test('the number of a composed set is its reps, else its seconds, else its pulses; what takes an hour is no set', () => {
    expect(amountOfParts([{ kind: 'hold', count: 20, at: null }])).toBe(20);
    expect(
      amountOfParts([
        { kind: 'hold', count: 20, at: null },
        { kind: 'pulses', count: 9, at: null },
      ]),
    ).toBe(20);
    expect(amountOfParts([{ kind: 'pulses', count: 9, at: null }])).toBe(9);
    expect(wrongPartsFor('time', [{ kind: 'reps', count: 5, tempo: null }])).toMatch('holds');
    expect(wrongPartsFor('time', [{ kind: 'hold', count: 5, at: null }])).toBeNull();
    expect(wrongParts([{ kind: 'reps', count: 100, tempo: '30-0-30-0' }], '2-0-1-0')).toMatch('100 minutes');
    expect(wrongParts([{ kind: 'reps', count: 5, tempo: null }], '0-0-0-0')).toMatch('tempo');
  });
});
