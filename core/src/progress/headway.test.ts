import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';

import type { PastSession } from '../client/index.js';
import { buildLadder } from '../ladder/index.js';
import { movement } from '../test/plans.js';
import { headwayOf } from './index.js';

const low = movement('low', { families: ['squat'], links: [{ to: 'high', direction: 'harder', lever: 'load' }] });
const high = movement('high', { families: ['squat'] });
const other = movement('other', { families: ['row'] });
const all = new Map([low, high, other].map((one) => [one.id, one]));
const ladder = buildLadder([...all.values()]);
const day = (n: number): string => `2030-01-${String(n).padStart(2, '0')}T10:00:00.000Z`;
const done = (n: number, kg: number | null): PastSession => ({
  at: day(n),
  sets: [{ amount: 8, effort: 'medium', clean: true, kg }],
});
const of = (sets: Record<string, PastSession[]>, faultLoads: { at: string; sets: number; faults: number }[] = []) =>
  headwayOf({ sets, faultLoads }, (id) => all.get(id), ladder);

describe('how far somebody has come', () => {
  test('is from the first rung of a family to the present one, from the first weight to the last, and from many faults to few', () => {
    const sets = { low: [done(1, 10), done(8, 14)], high: [done(15, 16)], other: [done(1, 20), done(8, 20)] };
    const loads = [8, 7, 5, 2, 1, 1, 0, 0].map((faults, i) => ({ at: day(i + 1), sets: 10, faults }));
    expect(of(sets, loads)).toEqual({
      climbs: [{ family: 'squat', from: 'low', to: 'high', levels: 1 }],
      gains: [{ movementId: 'low', from: 10, to: 14 }],
      faults: { first: 7.5, lately: 0, series: [8, 7, 5, 2, 1, 1, 0, 0] },
    });
    expect(of({ high: [done(1, 10)], low: [done(8, 10)] }).climbs).toMatchObject([{ levels: -1 }]);
    expect(of({}, loads.slice(0, 3))).toEqual({ climbs: [], gains: [], faults: null });
  });

  test('does not depend on the order in which sessions are told', () => {
    const sessions = fc.array(fc.record({ n: fc.integer({ min: 1, max: 28 }), kg: fc.constantFrom(null, 8, 10, 12) }), {
      maxLength: 8,
    });
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 1, max: 28 }), { maxLength: 8 }), sessions, (days, kgs) => {
        const past = days.map((n, i) => done(n, kgs[i]?.kg ?? null));
        const loads = past.map(({ at }, i) => ({ at, sets: 1 + i, faults: i % 3 }));
        expect(of({ low: past.toReversed() }, loads.toReversed())).toEqual(of({ low: past }, loads));
      }),
    );
  });
});
