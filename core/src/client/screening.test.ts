import { expect, test } from '@jest/globals';
import fc from 'fast-check';

import { REGIONS } from '../movement/index.js';
import {
  awaitsClearance,
  easeOf,
  limitsFromPain,
  limitsHolding,
  limitsOfToday,
  READINESS_QUESTIONS,
  readinessCheckSchema,
  type TodayCheck,
  todayCheckSchema,
} from './index.js';

const DAY = '2030-03-01';
const check: fc.Arbitrary<TodayCheck> = fc.record({
  on: fc.constant(DAY),
  sleep: fc.integer({ min: 1, max: 5 }),
  energy: fc.integer({ min: 1, max: 5 }),
  pains: fc.array(
    fc.record({
      region: fc.constantFrom(...REGIONS),
      side: fc.constantFrom('left', 'right', 'middle'),
      quality: fc.constantFrom('sharp', 'dull', 'sore'),
    }),
    { maxLength: 5 },
  ),
});

test('any yes waits for a clinician until clearance is noted, and only then', () => {
  const ids = READINESS_QUESTIONS.map(({ id }) => id);
  fc.assert(
    fc.property(fc.subarray(ids), fc.constantFrom(null, DAY), (yes, clearedOn) => {
      const answered = readinessCheckSchema.parse({ on: DAY, yes, clearedOn, clearedBy: '' });
      expect(awaitsClearance(answered)).toBe(yes.length > 0 && clearedOn === null);
    }),
  );
  expect(awaitsClearance(null)).toBe(false);
  expect(readinessCheckSchema.safeParse({ on: DAY, yes: ['horoscope'], clearedOn: null, clearedBy: '' }).success).toBe(
    false,
  );
});

test('pain of today closes what it must today and nothing tomorrow; soreness and poor sleep only hold', () => {
  fc.assert(
    fc.property(check, (today) => {
      expect(todayCheckSchema.safeParse(today).success).toBe(true);
      const pains = today.pains.filter(({ quality }) => quality !== 'sore');
      expect(limitsOfToday(today, DAY)).toEqual(limitsFromPain(pains as Parameters<typeof limitsFromPain>[0]));
      expect(limitsOfToday(today, '2030-03-02')).toEqual([]);
      const lasting = { demand: 'impact', allowed: 1, reason: 'knee' } as const;
      const past = { ...lasting, until: '2030-02-28' };
      const client = { limits: [lasting, past], today };
      expect(limitsHolding(client, DAY)).toEqual([lasting, ...limitsOfToday(today, DAY)]);
      expect(limitsHolding(client, '2030-03-02')).toEqual([lasting]);
      expect(easeOf(today, '2030-03-02')).toBeNull();
      const holds = today.sleep <= 2 || today.energy <= 2 || pains.length < today.pains.length;
      expect(easeOf(today, DAY) !== null).toBe(holds);
    }),
  );
});
