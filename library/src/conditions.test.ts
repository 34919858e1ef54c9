import { expect, test } from '@jest/globals';
import { checkConditions, proposedLimits } from '@waxwing/core/client';
import { type Limit, limitsOn, opennessFor } from '@waxwing/core/movement';

import { loadConditions, loadLibrary } from './load.js';
import { CONDITIONS, STARTER_FOLDER } from './places.js';

const conditions = loadConditions(CONDITIONS);
const movements = loadLibrary(STARTER_FOLDER);
const DAY = '2030-01-31';
const SAID = { caution: 'So.', stop: 'Pain.', clearedBy: 'a doctor' };

test('every condition closes something and leaves enough to train, and choosing it twice proposes nothing more', () => {
  for (const condition of conditions) {
    const proposed = proposedLimits(condition, [], DAY);
    expect(proposed.map(({ demand }) => demand)).toEqual(condition.limits.map(({ demand }) => demand));
    for (const { reason } of proposed) expect(reason).toContain(`clear it with ${condition.clearedBy} first`);
    const closed = movements.filter(({ demands }) => opennessFor(demands, proposed) === 'closed');
    expect([condition.id, closed.length > 0]).toEqual([condition.id, true]);
    const open = movements.filter((one) => one.role === 'strength' && opennessFor(one.demands, proposed) !== 'closed');
    // Who cannot stand has what is done sitting.
    const least = condition.limits.some(({ demand }) => demand === 'standing') ? 2 : 5;
    expect(new Set(open.map(({ pattern }) => pattern)).size).toBeGreaterThanOrEqual(least);
    if (condition.weeks === undefined) expect(proposedLimits(condition, proposed, DAY)).toEqual([]);
  }
});

test('a proposal never loosens what is there, lasts its weeks, and keeps the stricter of two', () => {
  const early = conditions.find(({ id }) => id === 'after-birth-early');
  if (!early) throw new Error('no such condition');
  const none: Limit = { demand: 'impact', allowed: 0, reason: 'ankle' };
  const proposed = proposedLimits(early, [none], DAY);
  expect(proposed.map(({ demand }) => demand)).not.toContain('impact');
  expect(new Set(proposed.map(({ until }) => until))).toEqual(new Set(['2030-03-28']));
  expect(limitsOn(proposed, '2030-03-28')).toHaveLength(proposed.length);
  expect(limitsOn(proposed, '2030-03-29')).toEqual([]);
  // One that ends sooner does not stand in for it.
  expect(proposedLimits(early, [{ ...none, until: '2030-02-01' }], DAY).map(({ demand }) => demand)).toContain(
    'impact',
  );
});

test.each([
  [
    'an unknown demand',
    [{ id: 'a', name: 'A', ...SAID, limits: [{ demand: 'luck', allowed: 0 }] }],
    '[0].limits[0].demand',
  ],
  ['no limits', [{ id: 'a', name: 'A', ...SAID, limits: [] }], '[0].limits'],
  [
    'one demand twice',
    [
      {
        id: 'a',
        name: 'A',
        ...SAID,
        limits: [
          { demand: 'impact', allowed: 0 },
          { demand: 'impact', allowed: 1 },
        ],
      },
    ],
    '[0].limits[1].demand',
  ],
  [
    'nobody to clear it',
    [{ id: 'a', name: 'A', ...SAID, clearedBy: '', limits: [{ demand: 'impact', allowed: 0 }] }],
    '[0].clearedBy',
  ],
])('%s is named by its path', (_, input, path) => {
  const checked = checkConditions(input);
  expect(checked.ok ? [] : checked.problems.map((problem) => problem.path)).toContain(path);
});
