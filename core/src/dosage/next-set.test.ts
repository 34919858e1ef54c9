import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';

import { EFFORTS } from '../movement/index.js';
import { z } from '../schema/zod.js';
import {
  brokenHold,
  effortOf,
  equalEffort,
  estimate,
  expectedReps,
  FIRST_KG,
  FORMULAS,
  holdWords,
  type Load,
  MOST_REPS,
  nextPieces,
  nextSet,
  REPS_LEFT,
  repsFirst,
  sameEffort,
  SET_REASONS,
  type SetSituation,
} from './index.js';

const kilograms = fc.integer({ min: 2, max: 400 }).map((halves) => halves / 2);
const repsToFailure = fc.integer({ min: 1, max: MOST_REPS });

const dumbbell = (kg: number): Load => ({ item: 'dumbbell', count: 1, kg, label: `${kg} kg`, changeSeconds: 0 });

const reasons = z.discriminatedUnion('code', SET_REASONS);

describe('strength', () => {
  test('agrees with a pocket calculator', () => {
    const { by } = estimate(60, 10) ?? { by: [] };
    expect(by.map(({ kg }) => Math.round(kg * 100) / 100)).toEqual([80, 80, 75.54]);
    expect(estimate(60, 21)).toBeNull();
    expect(estimate(0, 5)).toBeNull();
    expect(estimate(60, 13)?.rough).toBe(true);
  });

  test('one rep is one rep, more reps mean more strength, and each formula reads back its own reps', () => {
    fc.assert(
      fc.property(kilograms, fc.integer({ min: 2, max: MOST_REPS }), (kg, n) => {
        for (const { most, reps } of FORMULAS) {
          expect(most(kg, 1)).toBeCloseTo(kg, 9);
          expect(most(kg, n)).toBeGreaterThan(most(kg, n - 1));
          expect(reps(most(kg, n), kg)).toBeCloseTo(n, 6);
        }
      }),
    );
  });

  test('a heavier weight never gets more reps, and the same weight gets the same', () => {
    fc.assert(
      fc.property(kilograms, kilograms, repsToFailure, (kg, other, n) => {
        const there = expectedReps(kg, n, other);
        fc.pre(there !== null);
        if (!there) return;
        if (other > kg) expect(there.high).toBeLessThanOrEqual(n + 1e-6);
        if (other === kg) expect([there.low, there.high].map(Math.round)).toEqual([n, n]);
        if (other < kg) expect(there.low).toBeGreaterThanOrEqual(n - 1e-6);
      }),
    );
  });

  test('a typed number of reps left has the nearest word, is never called failed, and gets no harder with more left', () => {
    expect([0, 1, 2, 3, 4, 5, 9].map(effortOf)).toEqual(['hard', 'hard', 'hard', 'medium', 'medium', 'easy', 'easy']);
  });

  test('the same effort leaves as many reps, by every formula', () => {
    fc.assert(
      fc.property(
        kilograms,
        kilograms,
        fc.integer({ min: 4, max: 12 }),
        fc.integer({ min: 0, max: 5 }),
        (kg, other, reps, left) => {
          const dose = equalEffort({ kg, reps, left }, other);
          fc.pre(dose !== null);
          if (!dose) return;
          // What was done there, done back here, is never more than what was done here.
          const back = equalEffort({ kg: other, reps: dose.aim, left }, kg);
          if (back) expect(back.reps.low).toBeLessThanOrEqual(reps);
          expect(dose.aim).toBeGreaterThanOrEqual(dose.reps.low);
          expect(dose.aim).toBeLessThanOrEqual(dose.reps.high);
          if (other === kg) expect(dose.reps).toEqual({ low: reps, high: reps });
        },
      ),
    );
    expect(equalEffort({ kg: 10, reps: 10, left: 3 }, 12)?.reps).toEqual({ low: 0, high: 5 });
    expect(sameEffort({ kg: 10, reps: 10, left: 3 }, [dumbbell(10), dumbbell(60)]).map(({ load }) => load.kg)).toEqual([
      10,
    ]);
  });
});

const RACK = [4, 6, 8, 10, 12.5, 15, 20].map(dumbbell);

const situations: fc.Arbitrary<SetSituation> = fc.record({
  mode: fc.constantFrom('reps', 'time'),
  window: fc.constantFrom({ low: 8, high: 12 }, { low: 15, high: 20 }, { low: 5, high: 5 }),
  amount: fc.integer({ min: 0, max: 30 }),
  effort: fc.constantFrom(...EFFORTS),
  load: fc.constantFrom(null, ...RACK),
  loads: fc.subarray(RACK),
  faults: fc.subarray(['Knees cave in']),
  stopFault: fc.constantFrom(null, null, 'Back rounds'),
  pain: fc.constantFrom(null, null, 'dull', 'sharp'),
  jump: fc.constantFrom(0.1, 0.2),
  capKg: fc.constantFrom(null, 9),
  bare: fc.boolean(),
});

describe('the next set', () => {
  test('a broken hold grows from its longest piece, adds up to the same, and ends in one', () => {
    expect(nextPieces([10, 10, 10], 30)).toEqual([12, 10, 8]);
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 60 }), { minLength: 2, maxLength: 8 }), (drawn) => {
        const total = drawn.reduce((sum, piece) => sum + piece, 0);
        let pieces = drawn;
        for (let times = 0; pieces.length > 1; times += 1) {
          const next = nextPieces(pieces, total);
          expect(next.reduce((sum, piece) => sum + piece, 0)).toBe(total);
          expect(Math.max(...next)).toBe(next[0]);
          expect(next[0]).toBeGreaterThan(Math.max(...pieces));
          expect(Math.min(...next)).toBeGreaterThan(0);
          for (const piece of next.slice(1)) expect(piece).toBeLessThanOrEqual(Math.max(...pieces));
          pieces = next;
          expect(times).toBeLessThan(60);
        }
        expect(pieces).toEqual([total]);
      }),
    );
  });

  test('never goes over form, pain, the allowed jump, the cap, or what exists', () => {
    fc.assert(
      fc.property(situations, (s) => {
        const next = nextSet(s);
        expect(reasons.safeParse(next.why).error).toBeUndefined();
        expect(next.load === s.load || (next.load ? s.loads.includes(next.load) : s.bare)).toBe(true);
        if (s.pain === 'sharp' || s.stopFault) expect(next.kind).toBe('stop');
        if (next.kind === 'stop') return;
        expect(next.amount).toBeGreaterThan(0);
        const before = s.load?.kg ?? 0;
        const after = next.load?.kg ?? 0;
        if (s.pain || s.faults.length > 0) {
          expect(['hold', 'down', 'rung-down']).toContain(next.kind);
          expect(after).toBeLessThanOrEqual(before);
        }
        expect(next.kind === 'up').toBe(after > before);
        if (next.kind !== 'up') return;
        expect(s.effort).not.toBe('failed');
        expect(s.effort).not.toBe('hard');
        expect(s.amount).toBeGreaterThanOrEqual(s.window.high);
        if (s.capKg != null) expect(after).toBeLessThanOrEqual(s.capKg);
        // The first weight after none is a light one, and only where both are possible.
        if (s.load === null) {
          expect(s.bare).toBe(true);
          expect(after).toBeLessThanOrEqual(FIRST_KG);
          expect(next.load).toBe(s.loads[0]);
          return;
        }
        // What was easy may go a tenth further.
        const reach = s.jump + (s.effort === 'easy' ? 0.1 : 0);
        const isNext = !s.loads.some(({ kg }) => (kg ?? 0) > before && (kg ?? 0) < after);
        // A step out of reach only where enough reps were done first, and then to the very next weight.
        const first = repsFirst(before, after, s.window.low);
        if (after / before - 1 > reach + 1e-9) expect(isNext && first !== null && s.amount >= first).toBe(true);
        // Past a nearer weight only where the low end of the window is left there, with some in reserve.
        const left = s.left ?? REPS_LEFT[s.effort ?? 'hard'];
        const there = expectedReps(before, s.amount + left, after)?.middle ?? 0;
        if (!isNext) expect(there).toBeGreaterThanOrEqual(s.window.low + (s.effort === 'easy' ? 1 : 2));
      }),
      { numRuns: 1000 },
    );
  });

  test('an easier set never leads to a lighter weight than a harder one', () => {
    fc.assert(
      fc.property(situations, (s) => {
        const loads = EFFORTS.map((effort) => nextSet({ ...s, effort, pain: null, stopFault: null }).load?.kg ?? 0);
        for (let i = 1; i < loads.length; i += 1) expect(loads[i - 1]).toBeGreaterThanOrEqual(loads[i] ?? 0);
      }),
    );
  });

  test('from 4 to 6 kg is half as much again: reps first, counted by the formula in the middle', () => {
    const done = {
      mode: 'reps',
      window: { low: 8, high: 12 },
      effort: 'medium',
      loads: RACK,
      faults: [],
      jump: 0.1,
    } as const;
    const at = (kg: number, amount: number) =>
      nextSet({ ...done, load: RACK.find((load) => load.kg === kg) ?? null, amount });
    expect(at(4, 12)).toMatchObject({ kind: 'pause', load: { kg: 4 } });
    expect(at(10, 12).why).toMatchObject({ from: '10 kg', to: '12.5 kg', share: 0.25 });
    const first = repsFirst(10, 12.5, 8) ?? 0;
    expect(expectedReps(10, first + 2, 12.5)?.middle).toBeCloseTo(10, 6);
    expect(expectedReps(10, first + 1, 12.5)?.middle).toBeLessThan(10);
    expect(first).toBe(18);
    expect(at(10, first)).toMatchObject({ kind: 'up', load: { kg: 12.5 }, amount: 8 });
    expect(nextSet({ ...done, jump: 0.25, load: RACK[3] ?? null, amount: 12 })).toMatchObject({ kind: 'up' });
    expect(at(20, 12)).toMatchObject({ kind: 'slower', load: { kg: 20 } });
  });
});

test('a broken-up hold adds up, in pieces nobody has to stretch', () => {
  const seconds = fc.integer({ min: 1, max: 300 });
  fc.assert(
    fc.property(seconds, seconds, (total, longest) => {
      const pieces = brokenHold(total, longest);
      expect(pieces.reduce((sum, piece) => sum + piece, 0)).toBe(total);
      expect(Math.max(...pieces)).toBeLessThanOrEqual(longest);
      expect(Math.max(...pieces) - Math.min(...pieces)).toBeLessThanOrEqual(1);
      expect(pieces.length).toBe(Math.ceil(total / longest));
    }),
  );
  expect(holdWords(brokenHold(36, 15))).toBe('3 × 12 s');
  expect(holdWords(brokenHold(37, 15))).toBe('13 + 12 + 12 s');
  expect(() => brokenHold(0, 10)).toThrow('total must be a whole number');
});
