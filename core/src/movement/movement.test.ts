import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';

import { checkReferences } from '../ladder/index.js';
import {
  checkMovement,
  DEMANDS,
  type Equipped,
  fitFor,
  fitWith,
  kitCounts,
  type KitItem,
  type KitOption,
  kitWords,
  label,
  leverWords,
  type Limit,
  limitsOn,
  loadLabel,
  mayDo,
  type Movement,
  opennessWith,
  openOptions,
  RULINGS,
} from './index.js';

const valid = {
  id: 'test-squat',
  name: 'Test squat',
  families: ['squat'],
  pattern: 'squat',
  role: 'strength',
  position: 'standing',
  sides: 'both',
  planes: ['sagittal'],
  muscles: { prime: ['quads'] },
  space: 'spot',
  dose: { mode: 'reps', tempo: '3-1-1-0', windows: { strength: { low: 8, high: 12, sets: [2, 3], rest: 60 } } },
  breath: 'In, then out.',
  phases: ['set-up', 'lower', 'rise'],
  cues: [{ id: 'grow', phase: 'rise', text: 'Grow tall', focus: 'image', channel: 'say', addresses: ['knees-in'] }],
  faults: [
    {
      id: 'knees-in',
      name: 'Knees in',
      looksLike: 'The knees go in.',
      phase: 'rise',
      severity: 'fix',
      views: { front: 0.9 },
      causes: ['set-up/narrow-stance'],
      corrections: [
        { id: 'say-it', kind: 'say', say: 'Say it.', cueId: 'grow' },
        { id: 'lighter', kind: 'lighten', do: 'Lighter.' },
      ],
    },
  ],
};

const made = (change: object = {}): Movement => {
  const checked = checkMovement({ ...valid, ...change });
  if (!checked.ok) throw new Error(JSON.stringify(checked.problems));
  return checked.value;
};

/** The problem at a path after setting something deep inside a good movement. */
function problemsAfter(path: (string | number)[], value: unknown): string[] {
  const copy: unknown = structuredClone(valid);
  let at = copy as Record<string | number, unknown>;
  for (const part of path.slice(0, -1)) at = at[part] as Record<string | number, unknown>;
  at[path.at(-1) ?? ''] = value;
  const checked = checkMovement(copy);
  return checked.ok ? [] : checked.problems.map((p) => `${p.path}: ${p.message}`);
}

describe('checking a movement', () => {
  test.each<[string, (string | number)[], unknown, string]>([
    ['an empty name', ['name'], '   ', 'name: must not be empty'],
    ['a name of 10,000 characters', ['name'], 'x'.repeat(10_000), 'name: must be at most 80 characters'],
    ['an unknown field', ['colour'], 'red', 'colour: is not a known field'],
    [
      'an unknown field far inside',
      ['faults', 0, 'corrections', 1, 'loud'],
      true,
      'faults[0].corrections[1].loud: is not a known field',
    ],
    ['no phases', ['phases'], undefined, 'phases: is missing'],
    [
      'a cue in a phase it does not have',
      ['cues', 0, 'phase'],
      'hold',
      'cues[0].phase: "hold" is not one of this movement\'s phases',
    ],
    [
      'a correction leaning on no cue',
      ['faults', 0, 'corrections', 0, 'cueId'],
      'gone',
      'faults[0].corrections[0].cueId: no cue "gone" in this movement',
    ],
    [
      'a cue against no fault',
      ['cues', 0, 'addresses', 0],
      'gone',
      'cues[0].addresses[0]: no fault "gone" in this movement',
    ],
    ['a fault seen from nowhere', ['faults', 0, 'views'], {}, 'faults[0].views: must show from at least one side'],
    ['corrections out of order', ['faults', 0, 'corrections', 1, 'kind'], 'say', ''],
    [
      'a swap to nothing',
      ['faults', 0, 'corrections', 1, 'kind'],
      'swap',
      'faults[0].corrections[1].swapTo: a swap names the movement to go to',
    ],
    ['a cause of no kind', ['faults', 0, 'causes', 0], 'bad', 'faults[0].causes[0]: must be a kind'],
    [
      'a link to itself',
      ['links'],
      [{ to: 'test-squat', direction: 'harder', lever: 'load' }],
      'links[0].to: a movement cannot link to itself',
    ],
    [
      'a window upside down',
      ['dose', 'windows', 'strength', 'low'],
      20,
      'dose.windows.strength.low: must not be above high',
    ],
  ])('%s is named by its path', (_, path, value, expected) => {
    const problems = problemsAfter(path, value);
    if (expected === '') expect(problems).toEqual([]);
    else expect(problems.some((p) => p.startsWith(expected))).toBe(true);
  });

  test('a more intrusive correction may not come before a lesser one', () => {
    const [fault] = valid.faults;
    const swapped = { ...fault, corrections: [...(fault?.corrections ?? [])].reverse() };
    const checked = checkMovement({ ...valid, faults: [swapped] });
    expect(checked.ok ? [] : checked.problems).toEqual([
      { path: 'faults[0].corrections[1].kind', message: 'is less intrusive than the correction before it' },
    ]);
  });

  test('what passed once passes again unchanged', () => {
    expect(checkMovement(structuredClone(made()))).toEqual({ ok: true, value: made() });
  });

  test('a library names links and swaps to nowhere, and circles with their path', () => {
    const lost = made({ links: [{ to: 'nowhere', direction: 'harder', lever: 'load' }] });
    expect(checkReferences([lost])).toEqual([
      { movementId: 'test-squat', path: 'links[0].to', message: 'no movement "nowhere" in the library' },
    ]);
    const a = made({ id: 'a', links: [{ to: 'b', direction: 'harder', lever: 'load' }] });
    const b = made({ id: 'b', links: [{ to: 'a', direction: 'harder', lever: 'load' }] });
    expect(checkReferences([a, b])[0]?.message).toMatch(/circle.*(a → b → a|b → a → b)/);
  });
});

describe('limits', () => {
  const limit = fc.record({
    demand: fc.constantFrom(...DEMANDS),
    allowed: fc.integer({ min: 0, max: 3 }),
    reason: fc.constant('why'),
  });
  const demands = fc.dictionary(fc.constantFrom<string>(...DEMANDS), fc.integer({ min: 0, max: 3 }));

  test('another limit never opens what was closed, and closed means some demand is over a limit', () => {
    const rank = { open: 0, care: 1, closed: 2 };
    fc.assert(
      fc.property(demands, fc.array(limit), limit, (asked, limits, more) => {
        const before = fitFor(asked, limits);
        expect(rank[fitFor(asked, [...limits, more]).status]).toBeGreaterThanOrEqual(rank[before.status]);
        expect(before.status === 'closed').toBe(limits.some((l) => (asked[l.demand] ?? 0) > l.allowed));
      }),
    );
  });

  test('a library looked over without words gets the answers that have words, whatever is in the room', () => {
    const option = fc.record(
      {
        needs: fc.constantFrom<KitOption['needs']>(
          [],
          [{ item: 'dumbbell', count: 2 }],
          [{ item: 'barbell', count: 1 }],
        ),
        demands,
      },
      { requiredKeys: ['needs'] },
    );
    const movement = fc.record({
      id: fc.constant('press'),
      demands,
      kit: fc.array(option, { maxLength: 3 }),
      notFor: fc.subarray(['c1', 'c2']),
      suits: fc.subarray(['c1', 'c2']),
    });
    const ruling = fc.record({
      demand: fc.constantFrom(...RULINGS),
      allowed: fc.constant(0),
      reason: fc.constant('why'),
      condition: fc.constantFrom('c1', 'c2'),
    });
    fc.assert(
      fc.property(movement, fc.array(fc.oneof(limit, ruling), { maxLength: 8 }), fc.boolean(), (one, limits, bells) => {
        const counts = kitCounts(bells ? [{ item: 'dumbbell', count: 2, kg: 8 }] : []);
        const { status } = fitWith(one, limits, counts);
        expect(opennessWith(one, limits, counts)).toBe(status);
        if (mayDo(one, limits, counts)) expect(status).not.toBe('closed');
      }),
    );
  });

  test('hold through their last day', () => {
    const until: Limit = { demand: 'impact', allowed: 0, reason: 'knee', until: '2030-01-05' };
    expect(limitsOn([until], '2030-01-05')).toHaveLength(1);
    expect(limitsOn([until], '2030-01-06')).toHaveLength(0);
  });
});

test('a limit that closes one way to equip a movement leaves the others, and what is in the hands decides', () => {
  const press: Equipped = {
    id: 'press',
    notFor: [],
    suits: [],
    demands: { 'lying-on-back': 1 },
    kit: [
      { needs: [{ item: 'dumbbell', count: 2 }] },
      { needs: [{ item: 'barbell', count: 1 }], demands: { 'spotter-needed': 3 } },
    ],
  };
  const alone: Limit[] = [{ demand: 'spotter-needed', allowed: 0, reason: 'trains alone' }];
  const all = kitCounts([
    { item: 'dumbbell', count: 2, kg: 8 },
    { item: 'barbell', count: 1, kg: 20 },
  ]);
  expect(fitWith(press, alone, all).status).toBe('open');
  expect(fitWith(press, alone, all, 'barbell').status).toBe('closed');
  expect(openOptions(press, alone, all)).toEqual([press.kit[0]]);
  expect(mayDo(press, alone, kitCounts([{ item: 'barbell', count: 1, kg: 20 }]))).toBe(false);
});

test('words for people', () => {
  expect(label('outer-hips')).toBe('Outer hips');
  expect(leverWords('leverLength', 'easier')).toBe('a shorter lever');
  expect(kitWords([])).toBe('nothing');
  expect(
    kitWords([
      { needs: [{ item: 'dumbbell', count: 2 }] },
      {
        needs: [
          { item: 'bell', count: 1 },
          { item: 'bench', count: 1 },
        ],
      },
    ]),
  ).toBe('a pair of dumbbells, or one bell and one bench');
  const needs = (...items: [KitItem, number?][]) => ({ needs: items.map(([item, count = 1]) => ({ item, count })) });
  expect(kitWords([{ needs: [] }])).toBe('nothing');
  expect(kitWords([{ needs: [] }, needs(['dumbbell']), needs(['bell']), needs(['bell', 2])])).toBe(
    'nothing, or one dumbbell or bell, or a pair of bells',
  );
  expect(
    kitWords([needs(['bench']), needs(['bench'], ['dumbbell']), needs(['bench'], ['bell']), needs(['bench'], ['jug'])]),
  ).toBe('one bench alone, or with one dumbbell, bell or jug');
  expect(kitWords([needs(['bench'], ['bar']), needs(['bench'], ['strap'])])).toBe('one bench with one bar or strap');
  expect(loadLabel({ kg: 11.34, label: '25 lb' })).toBe('25 lb');
});
