import { expect, test } from '@jest/globals';
import { checkDemandLevels, DEMANDS, levelOf } from '@waxwing/core/movement';

import { levelShortfalls } from './demand-levels.js';
import { loadDemandLevels, loadLibrary } from './load.js';
import { DEMAND_LEVELS, STARTER_FOLDER } from './places.js';

const levels = loadDemandLevels(DEMAND_LEVELS);
const movements = loadLibrary(STARTER_FOLDER);
const paths = (...given: Parameters<typeof levelShortfalls>) => levelShortfalls(...given).map(({ path }) => path);

test('every level that is asked for says what it means, and its examples ask for exactly that', () => {
  expect(levelShortfalls(levels, movements)).toEqual([]);
  expect(new Set(levels.map(({ demand }) => demand))).toEqual(new Set(DEMANDS));
  expect(levelOf(levels, 'hip-bend', 2)?.means).toContain('past sitting');
  expect(levelOf(levels, 'standing', 3)).toBeUndefined();
});

test('an example that asks for more, a level without words, and words for what nobody asks are named', () => {
  const squat = levelOf(levels, 'deep-knee-bend', 2);
  const other = squat?.like[1] ?? '';
  const wrong = levels.map((one) => (one === squat ? { ...one, like: ['high-seat-stand', other] } : one));
  expect(levelShortfalls(wrong, movements)).toEqual([
    { file: 'demands.yaml', path: 'deep-knee-bend.2', message: 'high-seat-stand does not ask for this much' },
  ]);
  const without = levels.filter((one) => one !== squat);
  expect(paths(without, movements)).toEqual(['deep-knee-bend.2']);
  expect(paths([...levels, { demand: 'standing', level: 3, means: 'For hours.', like: [other] }], movements)).toEqual([
    'standing.3',
    'standing.3',
  ]);
  expect(checkDemandLevels({ 'hip-bend': { 4: { means: 'All.', like: ['x'] } } })).toMatchObject({ ok: false });
});
