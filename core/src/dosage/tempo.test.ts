import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';

import { beginsWith, inOrder, longerTurn, parseTempo, SIDES } from '../movement/index.js';
import { aimOf, setSeconds, SIDE_CHANGE_SECONDS, sideCount } from './index.js';

const beat = fc.integer({ min: 0, max: 20 });

describe('tempo', () => {
  test('is four whole seconds, read back as they were written', () => {
    fc.assert(
      fc.property(beat, beat, beat, beat, (...beats) => {
        expect(parseTempo(beats.join('-'))).toEqual(beats);
      }),
    );
    for (const wrong of ['3-1', '3-1-1', '3-1-1-0-2', 'a-b-c-d', '3 1 1 0', '3-1-1-', '-1-0-0-0', '100-0-0-0', ''])
      expect(() => parseTempo(wrong)).toThrow(`"${wrong}" is not a tempo`);
  });

  test('is gone through in the order of the rep, and is longer where the rep turns', () => {
    expect(beginsWith(['set-up', 'lower', 'bottom', 'rise'])).toBe('lower');
    expect(beginsWith(['set-up', 'step', 'bottom', 'rise'])).toBe('lower');
    expect(beginsWith(['set-up', 'pull', 'top', 'lower'])).toBe('rise');
    expect(beginsWith(['set-up', 'reach', 'return'])).toBe('lower');
    expect(inOrder('3-0-2-1', 'rise')).toEqual([2, 1, 3, 0]);
    fc.assert(
      fc.property(beat, beat, beat, beat, fc.constantFrom('lower', 'rise'), (a, b, c, d, begins) => {
        const tempo = [a, b, c, d].join('-');
        const [go, turn, back, home] = inOrder(tempo, begins);
        expect([go, turn, back, home].toSorted()).toEqual(parseTempo(tempo).toSorted());
        expect(inOrder(longerTurn(tempo, begins, 2), begins)).toEqual([go, turn + 2, back, home]);
      }),
    );
  });
});

describe('seconds of a set', () => {
  test('reps × tempo × sides and the change between sides', () => {
    expect(setSeconds({ mode: 'reps', tempo: '3-1-1-0' }, 'both', 10)).toBe(50);
    expect(setSeconds({ mode: 'reps', tempo: '2-0-1-1' }, 'each', 10)).toBe(85);
    expect(setSeconds({ mode: 'time', tempo: '0-0-0-0' }, 'both', 40)).toBe(40);
    expect(setSeconds({ mode: 'distance', tempo: '0-0-0-0' }, 'alternating', 20)).toBe(20);
  });

  test('are whole, add up over sets, and double with a change when each side has its own', () => {
    const tempo = fc.tuple(beat, beat, beat, beat).map((beats) => beats.join('-'));
    fc.assert(
      fc.property(tempo, fc.nat(60), fc.nat(60), fc.constantFrom(...SIDES), (beats, a, b, sides) => {
        const dose = { mode: 'reps', tempo: beats } as const;
        const change = SIDE_CHANGE_SECONDS * (sideCount(sides) - 1);
        const seconds = (amount: number) => setSeconds(dose, sides, amount);
        expect(Number.isInteger(seconds(a))).toBe(true);
        expect(seconds(a) + seconds(b)).toBe(seconds(a + b) + change);
        expect(setSeconds(dose, 'each', a)).toBe(2 * setSeconds(dose, 'both', a) + SIDE_CHANGE_SECONDS);
      }),
    );
  });
});

test('a set aims at the strength window, else at the first, else at what is usual', () => {
  const window = (low: number) => ({ low, high: low + 2, sets: [2, 3] as [number, number], rest: 60 });
  const dose = (windows: object) => ({ dose: { mode: 'reps', tempo: '2-0-1-0', windows } }) as never;
  expect(aimOf(dose({ learn: window(6), strength: window(8) })).low).toBe(8);
  expect(aimOf(dose({ learn: window(6), endurance: window(15) })).low).toBe(6);
  expect(aimOf(dose({}))).toMatchObject({ low: 8, high: 12 });
});
