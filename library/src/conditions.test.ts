import { expect, test } from '@jest/globals';
import { checkConditions, conditionsHeld, limitsToday, proposedLimits, withoutCondition } from '@waxwing/core/client';
import { KIT_ITEMS, type KitItem, type Limit, limitsOn, type Movement, opennessWith } from '@waxwing/core/movement';

import { loadConditions, loadLibrary } from './load.js';
import { CONDITIONS, STARTER_FOLDER } from './places.js';

const conditions = loadConditions(CONDITIONS);
const movements = loadLibrary(STARTER_FOLDER);
const EVERYTHING: ReadonlyMap<KitItem, number> = new Map(KIT_ITEMS.map((item) => [item, 9]));
const DAY = '2030-01-31';
const SAID = { caution: 'So.', stop: 'Pain.', clearedBy: 'a doctor', from: 'the event' };

const find = (id: string) => {
  const condition = conditions.find((one) => one.id === id);
  if (!condition) throw new Error(`no condition "${id}"`);
  return condition;
};
const isOpen = (movement: Movement, limits: readonly Limit[]) =>
  opennessWith(movement, limits, EVERYTHING) !== 'closed';

test('every condition closes something and leaves enough to train, and choosing it twice proposes nothing more', () => {
  for (const condition of conditions) {
    const proposed = proposedLimits(condition, [], DAY);
    for (const { reason } of proposed) expect(reason).toContain(`clear it with ${condition.clearedBy} first`);
    const open = movements.filter((movement) => isOpen(movement, proposed));
    expect([condition.id, open.length < movements.length]).toEqual([condition.id, true]);
    const patterns = new Set(open.filter(({ role }) => role !== 'stretch').map(({ pattern }) => pattern)).size;
    // Where only what is marked is open there is less: right after an operation no more than to move head and feet.
    expect([condition.id, patterns >= (condition.kind === 'only-suitable' ? 1 : 5)]).toEqual([condition.id, true]);
    expect(proposedLimits(condition, proposed, DAY)).toEqual([]);
  }
});

test('what a caution rules out is closed by its condition, and what suits one is open under it and under its own cautions', () => {
  const known = new Set(conditions.map(({ id }) => id));
  for (const movement of movements) {
    expect([movement.id, movement.notFor.filter((id) => !known.has(id))]).toEqual([movement.id, []]);
    for (const id of movement.notFor)
      expect([movement.id, id, isOpen(movement, proposedLimits(find(id), [], DAY))]).toEqual([movement.id, id, false]);
    for (const id of movement.suits)
      expect([movement.id, id, isOpen(movement, proposedLimits(find(id), [], DAY))]).toEqual([movement.id, id, true]);
  }
});

test('nothing but what was marked is open under a condition of the strict kind', () => {
  for (const condition of conditions.filter(({ kind }) => kind === 'only-suitable')) {
    const proposed = proposedLimits(condition, [], DAY);
    const open = movements.filter((movement) => isOpen(movement, proposed));
    expect(open.filter(({ suits }) => !suits.includes(condition.id)).map(({ id }) => id)).toEqual([]);
    expect([condition.id, open.length >= 3]).toEqual([condition.id, true]);
  }
});

// One stage of the same thing is never freer than a gentler one: pregnancy grows, a joint is worn before it is replaced.
test.each([
  ['pregnancy-first-third', 'pregnancy-middle-third'],
  ['pregnancy-middle-third', 'pregnancy-last-third'],
  ['after-birth-later', 'after-birth-early'],
  ['heart-disease', 'after-heart-event'],
  ['worn-hip', 'new-hip'],
])('what %s closes stays closed under %s', (gentler, stricter) => {
  const open = (id: string) =>
    movements.filter((movement) => isOpen(movement, proposedLimits(find(id), [], DAY))).map(({ id: one }) => one);
  const before = new Set(open(gentler));
  expect(open(stricter).filter((id) => !before.has(id))).toEqual([]);
});

test('a proposal never loosens what is there, lasts until somebody ends it, and keeps the stricter of two', () => {
  const early = find('after-birth-early');
  const none: Limit = { demand: 'impact', allowed: 0, reason: 'ankle' };
  const proposed = proposedLimits(early, [none], DAY);
  expect(proposed.map(({ demand }) => demand)).not.toContain('impact');
  expect(new Set(proposed.map(({ since }) => since))).toEqual(new Set([DAY]));
  expect(limitsOn(proposed, '2099-01-01')).toHaveLength(proposed.length);
  // One that ends by itself does not stand in for it.
  expect(proposedLimits(early, [{ ...none, until: '2030-02-01' }], DAY).map(({ demand }) => demand)).toContain(
    'impact',
  );
});

test('when its weeks have passed it is asked whether a condition still holds; it does until a word ends it', () => {
  const early = find('after-birth-early');
  const own: Limit = { demand: 'neck-load', allowed: 1, reason: 'sore since the move' };
  const limits = [own, ...proposedLimits(early, [], DAY)];
  const [before] = conditionsHeld(limits, conditions, '2030-02-15');
  const [after] = conditionsHeld(limits, conditions, '2031-01-31');
  expect(before).toMatchObject({ condition: 'after-birth-early', since: DAY, ask: false });
  expect(after).toMatchObject({ condition: 'after-birth-early', ask: true });
  expect(after?.limits).toEqual(before?.limits);
  expect(withoutCondition(limits, 'after-birth-early')).toEqual([own]);
});

test('limits of earlier versions get their condition, lose no demand, and once is as good as twice', () => {
  const former: Limit[] = [
    {
      demand: 'impact',
      allowed: 0,
      reason: 'After birth, first eight weeks: clear it with a midwife first',
      until: DAY,
    },
    { demand: 'loaded-spine-bend', allowed: 0, reason: 'Osteoporosis: clear it with a doctor first' },
    { demand: 'overhead', allowed: 1, reason: 'a stiff shoulder' },
  ];
  const today = limitsToday(former);
  expect(limitsToday(today)).toEqual(today);
  for (const { demand, allowed } of former)
    expect(today.some((one) => one.demand === demand && one.allowed <= allowed)).toBe(true);
  expect(today).toContainEqual(expect.objectContaining({ demand: 'impact', condition: 'after-birth-early' }));
  expect(today.find(({ demand }) => demand === 'impact')?.until).toBeUndefined();
  expect(today).toContainEqual(
    expect.objectContaining({ demand: 'loaded-hinge', allowed: 0, condition: 'osteoporosis' }),
  );
  for (const condition of ['after-birth-early', 'osteoporosis'])
    expect(today).toContainEqual(expect.objectContaining({ demand: 'ruled-out', condition }));
  expect(today.find(({ demand }) => demand === 'overhead')).toEqual(former[2]);
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
