import { expect, test } from '@jest/globals';
import { parseTempo, setSeconds } from './index.js';

test('seconds of a set: reps × tempo × sides and the change between sides', () => {
  expect(setSeconds({ mode: 'reps', tempo: '3-1-1-0' }, 'both', 10)).toBe(50);
  expect(setSeconds({ mode: 'reps', tempo: '2-0-1-1' }, 'each', 10)).toBe(85);
  expect(setSeconds({ mode: 'time', tempo: '0-0-0-0' }, 'both', 40)).toBe(40);
  expect(() => parseTempo('3-1')).toThrow('"3-1" is not a tempo');
});
