/** Tests over the weeks: what was measured stands together, and what was not measured for long is due. */
import { join } from 'node:path';

import { describe, expect, test } from '@jest/globals';
import { loadLibrary } from '@waxwing/library';
import fc from 'fast-check';

import { buildCatalog } from '../ladder/index.js';
import { type SuggestRequest, suggestSession } from '../planning/index.js';
import { uuidAt } from '../test/generate.js';
import { KIT, POOR_SLEEP, standing } from '../test/plans.js';
import { type Benchmark, dueTests, measured, type TestResult, testsOf, USUAL_TESTS } from './index.js';

const noted = (name: string, on: string, value: number): Benchmark => ({ name, unit: 'reps', on, value });
const result = (name: string, on: string, value: number, movementId = 'push-up'): TestResult => ({
  ...noted(name, on, value),
  movementId,
  seconds: null,
  clean: 'All the way.',
});
const NOW = '2030-03-01T10:00:00.000Z';

describe('what was measured', () => {
  test('is in order of its days, whatever order it comes in, and the better of one day stands', () => {
    const day = fc.integer({ min: 1, max: 9 }).map((n) => `2030-01-0${n}`);
    const one = fc.tuple(fc.constantFrom('A', 'B'), day, fc.integer({ min: 0, max: 30 }));
    fc.assert(
      fc.property(fc.array(one), fc.array(one), (hand, sessions) => {
        const all = measured(
          hand.map((each) => noted(...each)),
          sessions.map((each) => result(...each)),
        );
        for (const [name, values] of all) {
          const days = values.map(({ on }) => on);
          expect(days).toEqual([...new Set(days)].sort());
          for (const { on, value } of values)
            expect(value).toBe(
              Math.max(...[...hand, ...sessions].filter((x) => x[0] === name && x[1] === on).map((x) => x[2])),
            );
        }
      }),
    );
  });

  test('is due after four weeks, by the usual name or by the session that it was done in, the longest ago first', () => {
    const due = (on: string) => dueTests([], [result('Own', on, 8)], NOW);
    expect(due('2030-02-02')).toEqual([]);
    expect(due('2030-02-01')).toMatchObject([{ weeks: 4, test: { name: 'Own', movementId: 'push-up' } }]);
    expect(dueTests([noted('Plank', '2030-01-01', 40), noted('Whatever', '2030-01-01', 3)], [], NOW)).toMatchObject([
      { test: { name: 'Plank', movementId: 'forearm-plank' }, weeks: 8 },
    ]);
    expect(
      dueTests([noted('Plank', '2030-01-20', 40)], [result('Own', '2029-12-01', 8)], NOW).map(
        ({ test: { name } }) => name,
      ),
    ).toEqual(['Own', 'Plank']);
  });

  test('usual tests are of movements of the library, and own ones are offered again', () => {
    const ids = loadLibrary(join(import.meta.dirname, '../../../library/movements')).map(({ id }) => id);
    for (const { movementId } of USUAL_TESTS) expect(ids).toContain(movementId);
    expect(testsOf('push-up', [result('Own', '2030-01-01', 8)]).map(({ name }) => name)).toEqual([
      'Clean push-ups in a row',
      'Own',
    ]);
  });
});

describe('a suggestion', () => {
  const movements = loadLibrary(join(import.meta.dirname, '../../../library/movements'));
  const { levels } = buildCatalog(movements).ladder;
  let ids = 0;
  const ask = (change: Partial<SuggestRequest['clients'][number]>, minutes = 45) =>
    suggestSession({
      minutes,
      purpose: 'strength',
      clients: [
        {
          id: uuidAt(1),
          name: 'Ada',
          standing: standing({}),
          sets: {},
          tests: dueTests([], [result('Own', '2030-01-01', 8)], NOW),
          ...change,
        },
      ],
      movements: movements.map((one) => ({ ...one, level: levels.get(one.id) ?? 0 })),
      kit: KIT,
      space: 'lane',
      wanted: [],
      without: [],
      blocks: [],
      notThese: [],
      now: NOW,
      newId: () => uuidAt(0xf00 + (ids += 1)),
    });
  const tests = (answer: ReturnType<typeof ask>) =>
    answer.blocks.flatMap(({ kind, items }) =>
      items.flatMap(({ lanes }) => lanes.flatMap(({ test }) => (test ? [kind] : []))),
    );

  test('has a test that is due before the work, says why, and still fits its time', () => {
    const answer = ask({});
    expect(tests(answer)).toEqual(['skill']);
    expect(answer.blocks.findIndex(({ kind }) => kind === 'skill')).toBeLessThan(
      answer.blocks.findIndex(({ kind }) => kind === 'strength'),
    );
    expect(answer.reasons).toContainEqual({ code: 'test-due', clientId: uuidAt(1), name: 'Own', weeks: 8 });
    expect(answer.seconds).toBeLessThanOrEqual(45 * 60);
  });

  test('has none on a day that asks for ease, where a limit closes it, where it hurt, or in a short slot', () => {
    expect(tests(ask({ standing: standing({ ease: POOR_SLEEP }) }))).toEqual([]);
    const limits = [{ demand: 'weight-on-wrist' as const, allowed: 0, reason: 'sore' }];
    expect(tests(ask({ standing: standing({ limits }) }))).toEqual([]);
    expect(tests(ask({ standing: standing({ hurtBefore: ['push-up'] }) }))).toEqual([]);
    expect(tests(ask({}, 20))).toEqual([]);
    // A fault that was open the last time, a set that failed, and whoever must not strain.
    const after = (set: object) =>
      tests(ask({ sets: { 'push-up': [{ at: NOW, sets: [{ amount: 8, effort: 'medium', clean: true, ...set }] }] } }));
    expect(after({})).toEqual(['skill']);
    expect(after({ clean: false })).toEqual([]);
    expect(after({ effort: 'failed' })).toEqual([]);
    const strained = [{ demand: 'breath-hold' as const, allowed: 1, reason: 'pregnant' }];
    expect(tests(ask({ standing: standing({ limits: strained }) }))).toEqual([]);
  });
});
