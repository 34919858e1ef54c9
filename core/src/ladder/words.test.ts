import { expect, test } from '@jest/globals';
import fc from 'fast-check';

import { countUnlike } from './count-words.js';
import { focusProblem } from './focus-words.js';
import { countWords } from './plain-words.js';

test.each([
  'Push the floor away',
  'Knees over the middle of your shoes',
  'Heels on the line',
  'Lower as slowly as you lifted',
  'Bring it back to your chest',
  'Twelve clean ones earn the next weight',
])('“%s” sends the mind out of the body', (text) => {
  expect(focusProblem({ text, focus: 'outward' })).toBeUndefined();
});

test.each(['Elbow under the shoulder', 'Bend the other knee first', 'Both heels heavy', 'Pull your arms tight'])(
  '“%s” is of the body alone, and is not outward',
  (text) => {
    expect(focusProblem({ text, focus: 'outward' })).toBe('is marked as outward, but speaks of the body alone');
    expect(focusProblem({ text, focus: 'inward' })).toBeUndefined();
    expect(focusProblem({ text, focus: 'image' })).toBeUndefined();
  },
);

test.each(['Push the floor away', 'Do not rest between reps'])(
  '“%s” names no part of the body, and is not inward',
  (text) => {
    expect(focusProblem({ text, focus: 'inward' })).toBe('is marked as inward, but names no part of the body');
  },
);

test('seconds that are counted aloud are of the tempo, in words or figures', () => {
  expect(countUnlike('Three slow counts down', '3-1-1-0')).toBeUndefined();
  expect(countUnlike('Three slow counts down', '2-1-1-0')).toBe(3);
  expect(countUnlike('Hold for 5 seconds, then one count up', '3-5-1-0')).toBeUndefined();
  expect(countUnlike('Hold for a second and take three seconds back', '2-1-2-0')).toBe(3);
  expect(countUnlike('Three clean ones in a row', '2-0-2-0')).toBeUndefined();
});

test('a word is what stands between spaces and has a letter or a figure in it', () => {
  const texts = fc.oneof(
    fc.string({ unit: 'binary' }),
    fc.string({ unit: fc.constantFrom(...' \t\n\u00a0\0aÉ9–.😀漢') }),
  );
  fc.assert(
    fc.property(texts, (text) => {
      const words = text.split(/\s+/).filter((part) => /[\p{L}\d]/u.test(part));
      expect(countWords(text)).toBe(words.length);
    }),
  );
});
