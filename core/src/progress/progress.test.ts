/** The weight of a first time, and of a next time with another weight, over the whole starter library. */
import { beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';

import type { PastSession } from '../client/index.js';
import { loadsFor, mayGoBare } from '../dosage/index.js';
import { type Catalog, readiness } from '../ladder/index.js';
import type { KitPiece, MovementSummary } from '../movement/index.js';
import type { Part } from '../schema/index.js';
import { POOR_SLEEP, standing } from '../test/plans.js';
import { starterLibrary } from '../test/starter.js';
import { nextStep, nextTime, type Standing, type StepQuestion, type Work } from './index.js';

let catalog: Catalog;
let byId: Map<string, MovementSummary>;
beforeAll(() => {
  ({ catalog, byId } = starterLibrary());
});

const KIT: KitPiece[] = [
  ...[2, 4, 6, 8, 10, 12, 16, 20].map((kg): KitPiece => ({ item: 'dumbbell', count: 2, kg })),
  ...[8, 12, 16, 24].map((kg): KitPiece => ({ item: 'bell', count: 1, kg })),
  { item: 'bench', count: 1 },
];

const at = '2030-01-01T10:00:00.000Z';
const done = (amount: number, kg: number | null, over: object = {}): PastSession[] => [
  { at, sets: [{ amount, effort: 'medium', clean: true, kg, ...over }] },
];

const asked = (id: string, sets: StepQuestion['sets'], over: Partial<Standing> = {}, kit = KIT) => {
  const movement = byId.get(id);
  if (!movement) throw new Error(`no ${id}`);
  return {
    standing: standing(over),
    movement,
    purpose: 'strength' as const,
    kit,
    ladder: catalog.ladder,
    find: (one: string) => byId.get(one),
    sets,
  };
};
const first = (id: string, sets: StepQuestion['sets'] = {}, over: Partial<Standing> = {}) =>
  nextTime(asked(id, sets, over));

describe('a first time', () => {
  test('takes a light start for somebody of whom nothing is known, and the lightest where nothing heavier is light', () => {
    expect(first('goblet-squat')).toMatchObject({ code: 'first', dose: { load: { kg: 6 } } });
    expect(first('goblet-squat').why).toMatchObject([{ code: 'first-light' }]);
    const heavy = KIT.filter(({ kg }) => (kg ?? 0) >= 12);
    expect(nextTime(asked('goblet-squat', {}, {}, heavy)).why).toMatchObject([{ code: 'first-lightest' }]);
  });

  test('who must not strain begins light, whatever was trained or lifted before', () => {
    const limits = [{ demand: 'breath-hold' as const, allowed: 0, reason: 'eight weeks after birth' }];
    const over = { limits, trainingYears: 9 };
    for (const id of ['goblet-squat', 'supported-one-arm-row', 'floor-press'])
      expect(first(id, { 'bent-over-row': done(10, 40) }, over).dose.load?.kg).toBe(first(id).dose.load?.kg);
  });

  test('takes a usual start after clean sets without a weight, or with years of training', () => {
    const owned = first('goblet-squat', { 'bodyweight-squat': done(12, null) });
    expect(owned.dose.load?.kg).toBe(12);
    expect(owned.why).toMatchObject([{ code: 'first-after', movementId: 'bodyweight-squat' }]);
    expect(first('goblet-squat', { 'bodyweight-squat': done(12, null, { clean: false }) }).dose.load?.kg).toBe(6);
    const trained = first('goblet-squat', {}, { trainingYears: 5 });
    expect(trained.dose.load?.kg).toBeGreaterThan(owned.dose.load?.kg ?? Infinity);
    expect(trained.why).toMatchObject([{ code: 'first-years', years: 5 }]);
  });

  test('takes about half of what a related lift says, and names it', () => {
    const { dose, why } = first('goblet-squat', { 'dumbbell-front-squat': done(10, 40) });
    expect(dose.load?.kg).toBeGreaterThanOrEqual(16);
    expect(dose.load?.kg).toBeLessThanOrEqual(24);
    expect(why).toMatchObject([{ code: 'first-related', kg: 40, movementId: 'dumbbell-front-squat' }]);
  });

  test('of a carry is told by what was held before, and not by the lightest pair', () => {
    const rows = { 'bent-over-row': done(12, 40) };
    expect(first('two-hand-carry', rows).dose.load?.kg).toBeGreaterThanOrEqual(16);
    expect(first('two-hand-carry').dose.load?.kg).toBe(12);
  });

  test('takes a machine and a bar for what they are, and guesses nothing at the edge of a limit', () => {
    const kg = (sets: StepQuestion['sets'], over: Partial<Standing> = {}) =>
      first('goblet-squat', sets, over).dose.load?.kg ?? 0;
    // A hundred on the leg press is not fifty in the arms.
    expect(kg({ 'leg-press': done(10, 100) })).toBeLessThanOrEqual(20);
    expect(kg({ 'barbell-back-squat': done(8, 60) })).toBeLessThanOrEqual(20);
    const limits = [{ demand: 'deep-knee-bend' as const, allowed: 2, reason: 'knee' }];
    expect(kg({ 'dumbbell-front-squat': done(10, 40) }, { limits })).toBe(2);
  });

  test('is never heavier for somebody who lifted less, is lightest on a bad day, and always exists', () => {
    const kg = fc.integer({ min: 2, max: 60 });
    const loaded = [...byId.values()].filter((one) => loadsFor(one.kit, KIT).some((load) => load.kg !== null));
    fc.assert(
      fc.property(
        fc.nat(loaded.length - 1),
        fc.nat(loaded.length - 1),
        fc.integer({ min: 1, max: 25 }),
        kg,
        kg,
        fc.boolean(),
        (i, j, amount, a, b, bad) => {
          const [one, other] = [loaded[i], loaded[j]];
          if (!one || !other || one === other) return;
          const loads = loadsFor(one.kit, KIT);
          const take = (lifted: number) =>
            first(one.id, { [other.id]: done(amount, lifted) }, { ease: bad ? POOR_SLEEP : null }).dose.load;
          const [less, more] = [take(Math.min(a, b)), take(Math.max(a, b))];
          expect(less?.kg ?? 0).toBeLessThanOrEqual(more?.kg ?? 0);
          const bare = mayGoBare(one, [], KIT);
          if (more || !bare) expect(loads).toContainEqual(more);
          if (bad) expect(more?.kg).toBe(bare ? undefined : loads.find((load) => load.kg !== null)?.kg);
        },
      ),
    );
  });
});

describe('a weight that is not there any more', () => {
  const only = (kg: number): KitPiece[] => [{ item: 'dumbbell', count: 1, kg }];
  const next = (kit: KitPiece[], sets: StepQuestion['sets'], over: Partial<Standing> = {}) =>
    nextTime(asked('goblet-squat', sets, over, kit));

  test('gives the reps that feel the same with the one that is, at the same tempo, and says so', () => {
    const sets = { 'goblet-squat': done(12, 8) };
    const step = next(only(9), sets);
    expect(step).toMatchObject({ kind: 'hold', code: 'replaced', dose: { load: { kg: 9 } } });
    expect(step.dose.amount).toBeLessThan(12);
    expect(step.dose.amount).toBeGreaterThanOrEqual(7);
    expect(step.dose.tempo).toBe(byId.get('goblet-squat')?.dose.tempo);
    expect(step.why).toMatchObject([{ code: 'replaced', kg: 8 }]);
    expect(next(only(8), sets).code).not.toBe('replaced');
  });

  test('never makes more of a day on which nothing goes up', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 25 }),
        fc.integer({ min: 4, max: 20 }),
        fc.integer({ min: 4, max: 20 }),
        (amount, was, is) => {
          const step = next(only(is), { 'goblet-squat': done(amount, was) }, { ease: POOR_SLEEP });
          if (step.kind === 'stop') return;
          expect(['hold', 'dose', 'rung-down']).toContain(step.kind);
          // Heavier than before never.
          if (is > was && is - was >= 0.05) expect(step.kind).toBe('rung-down');
        },
      ),
    );
  });

  test('within a session changes nothing of what is in hand', () => {
    const step = nextStep({
      ...asked('goblet-squat', {}),
      work: { amount: 10, effort: 'medium', left: null, kg: 12, label: '12 kg', pieces: null, parts: null },
      faults: [],
      within: true,
    });
    expect(step.code).not.toBe('replaced');
  });
});

describe('a hold that was broken', () => {
  const after = (pieces: number[], over: Partial<Standing> = {}) => {
    return nextStep({
      ...asked('forearm-plank', {}),
      standing: standing(over),
      work: {
        amount: pieces.reduce((a, b) => a + b, 0),
        effort: 'medium',
        left: null,
        kg: null,
        label: null,
        pieces,
        parts: null,
      },
      faults: [],
      within: false,
    });
  };

  test('is put together piece by piece before anything grows, and stays as it is on a day on which nothing goes up', () => {
    expect(after([10, 10, 10])).toMatchObject({ code: 'pieces', kind: 'hold', dose: { amount: 30 } });
    expect(after([10, 10, 10]).why).toMatchObject([{ code: 'pieces', next: [12, 10, 8], held: null }]);
    expect(after([10, 10, 10], { ease: POOR_SLEEP }).why).toMatchObject([
      { code: 'pieces', next: [10, 10, 10], held: { code: 'ease', ease: POOR_SLEEP } },
    ]);
  });

  test('is ready by the best single, not by the sum', () => {
    const sign = { seconds: 30, sets: 1, clean: true, effortAtMost: 'medium' as const, sessions: 1 };
    const set = { amount: 40, effort: 'easy' as const, clean: true };
    expect(readiness(sign, [{ at, sets: [set] }]).ready).toBe(true);
    expect(readiness(sign, [{ at, sets: [{ ...set, pieces: [20, 20] }] }]).ready).toBe(false);
    // What nobody counted neither meets a sign nor misses it.
    expect(
      readiness(sign, [
        { at, sets: [set] },
        { at: `${at}1`, sets: [], byClock: 3 },
      ]).ready,
    ).toBe(true);
  });
});

describe('what is planned', () => {
  const after = (planned: number | undefined, amount: number, effort: 'easy' | 'medium' | 'hard') =>
    nextStep({
      ...asked('bodyweight-squat', {}),
      work: { amount, effort, left: null, kg: null, label: null, pieces: null, parts: null },
      faults: [],
      planned,
      within: true,
    });

  test('is aimed at where it lies outside of the usual window, and the words say what is taken', () => {
    const { low, high } = byId.get('bodyweight-squat')?.dose.windows.strength ?? { low: 0, high: 0 };
    // More than usual, by plan: hard is once more, and not less; without a plan it is less, and says so.
    expect(after(high + 5, high + 5, 'hard')).toMatchObject({ kind: 'hold', dose: { amount: high + 5 } });
    const unplanned = after(undefined, high + 5, 'hard');
    expect(unplanned.dose.amount).toBe(high);
    expect(unplanned.why).toMatchObject([{ code: 'once-more', next: high }]);
    // Fewer than usual, by plan: what was done as planned is no failure.
    expect(after(low - 3, low - 3, 'medium')).toMatchObject({ change: 'more', dose: { amount: low - 2 } });
  });
});

describe('a composed set', () => {
  const parts: Part[] = [
    { kind: 'reps', count: 8, tempo: null },
    { kind: 'pulses', count: 8, at: null },
  ];
  const after = (change: Partial<Work>, over: Partial<Standing> = {}) =>
    nextStep({
      ...asked('bodyweight-squat', {}),
      standing: standing(over),
      work: { amount: 8, effort: 'medium', left: null, kg: null, label: null, pieces: null, parts, ...change },
      planned: 8,
      plannedParts: parts,
      faults: [],
      within: true,
    });

  test('grows by one part when all of it was done well', () => {
    expect(after({})).toMatchObject({
      kind: 'dose',
      code: 'parts',
      dose: { amount: 8, parts: [parts[0], { kind: 'pulses', count: 10 }] },
    });
  });

  test('stays as it is when it was hard, and on a day on which nothing goes up', () => {
    expect(after({ effort: 'hard' }).dose.parts).toEqual(parts);
    expect(after({}, { ease: POOR_SLEEP })).toMatchObject({ kind: 'hold', dose: { parts } });
  });

  test('gets less where it ended before its end', () => {
    expect(after({ parts: parts.slice(0, 1) }).dose.parts).toEqual([parts[0], { kind: 'pulses', count: 6, at: null }]);
  });
});

test('nothing gets heavier for somebody with a limit on holding the breath', () => {
  const strained = (limits: Standing['limits']) =>
    nextStep({
      ...asked('goblet-squat', {}),
      standing: standing({ limits }),
      work: { amount: 30, effort: 'easy', left: null, kg: 8, label: null, pieces: null, parts: null },
      faults: [],
      within: true,
    });
  const free = strained([]);
  expect(free.change).toBe('up');
  const held = strained([{ demand: 'breath-hold', allowed: 1, reason: 'pregnant' }]);
  expect(held).toMatchObject({ kind: 'hold', code: 'held', why: [{ code: 'held', held: { code: 'strain' } }] });
  expect(held.dose.load?.kg).toBe(8);
});

test('nor is a heavier weight taken by them in place of one that is gone', () => {
  const only = [{ item: 'dumbbell' as const, count: 2, kg: 12 }];
  const question = (limits: Standing['limits']) => ({
    ...asked('goblet-squat', {}, { limits }, only),
    work: { amount: 10, effort: 'medium' as const, left: null, kg: 8, label: null, pieces: null, parts: null },
    faults: [],
    within: true,
  });
  expect(nextStep(question([])).code).toBe('replaced');
  const held = nextStep(question([{ demand: 'breath-hold', allowed: 1, reason: 'pregnant' }]));
  expect(held).toMatchObject({ kind: 'rung-down', why: [{ code: 'only-heavier', held: { code: 'strain' } }] });
});
