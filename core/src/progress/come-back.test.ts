import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';

import type { Move, PastSession } from '../client/index.js';
import { buildLadder } from '../ladder/index.js';
import { movement } from '../test/plans.js';
import { comeBacks, waysUp } from './come-back.js';
import { isUp } from './held.js';

/** a ← b ← c ← d, from easy to hard, and another way up from a. */
const IDS = ['a', 'b', 'c', 'd', 'other'] as const;
const link = (to: string) => ({ to, direction: 'harder' as const, lever: 'load' as const });
const UP: Readonly<Record<string, string[]>> = { a: ['other', 'b'], b: ['c'], c: ['d'] };
const ladder = buildLadder(IDS.map((id) => movement(id, { links: (UP[id] ?? []).map(link) })));

const move = (from: string, to: string, day: number): Move => ({ from, to, why: 'too-hard', at: at(day) });
const at = (day: number) => `2030-01-${String(day).padStart(2, '0')}T10:00:00.000Z`;
const done = (day: number): PastSession => ({
  at: at(day),
  sets: [{ amount: 8, effort: 'medium', clean: true, kg: null }],
});

describe('what was gone down from', () => {
  test('is come back to, with since when, until it is done again', () => {
    const moves = [move('c', 'b', 3)];
    expect(comeBacks({ moves, sets: { c: [done(1)] } }, ladder)).toEqual([{ movementId: 'c', to: 'b', since: at(3) }]);
    expect(comeBacks({ moves, sets: { c: [done(1), done(9)] } }, ladder)).toEqual([]);
    // Gone back to on the same day.
    expect(comeBacks({ moves: [...moves, move('b', 'c', 4)], sets: {} }, ladder)).toEqual([]);
  });

  test('is neither what hurt, nor a way up or aside', () => {
    expect(comeBacks({ moves: [move('c', 'b', 3)], sets: {}, hurt: [{ movementId: 'c', at: at(3) }] }, ladder)).toEqual(
      [],
    );
    expect(comeBacks({ moves: [move('b', 'c', 3), move('b', 'other', 4)], sets: {} }, ladder)).toEqual([]);
    // The kit was taken: that says nothing of the rung.
    expect(comeBacks({ moves: [{ ...move('c', 'b', 3), aside: true }], sets: {} }, ladder)).toEqual([]);
  });

  test('does not depend on the order in which moves are told, and leads only up from where somebody is', () => {
    const moves = fc.uniqueArray(
      fc.record({ from: fc.constantFrom(...IDS), to: fc.constantFrom(...IDS), day: fc.integer({ min: 1, max: 28 }) }),
      { selector: ({ day }) => day, maxLength: 8 },
    );
    fc.assert(
      fc.property(moves, (drawn) => {
        const told = drawn.map(({ from, to, day }) => move(from, to, day));
        const found = comeBacks({ moves: told, sets: {} }, ladder);
        expect(comeBacks({ moves: told.toReversed(), sets: {} }, ladder)).toEqual(found);
        for (const { movementId, to } of found) expect(isUp(ladder, to, movementId)).toBe(true);
      }),
    );
  });

  test('is the first way up', () => {
    expect(waysUp(ladder, 'a', {}).map(({ to }) => to)).toEqual(['b', 'other']);
    expect(waysUp(ladder, 'a', { other: [done(1)] }).map(({ to }) => to)).toEqual(['other', 'b']);
    // What was done far above is on the way as well, and the nearer of two comes first.
    expect(waysUp(ladder, 'a', { d: [done(1)] }).map(({ to }) => to)).toEqual(['b', 'other']);
    expect(waysUp(ladder, 'a', { d: [done(1)], other: [done(1)] }).map(({ to }) => to)).toEqual(['other', 'b']);
  });
});
