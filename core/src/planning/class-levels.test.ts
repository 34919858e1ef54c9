/** Three levels for everybody: by what they did, and never what is closed or held back. */
import { join } from 'node:path';

import { expect, test } from '@jest/globals';
import { loadLibrary } from '@waxwing/library';
import fc from 'fast-check';

import { buildCatalog } from '../ladder/index.js';
import { DEMANDS } from '../movement/index.js';
import { kitCounts } from '../movement/kit.js';
import { fitNow, isOpen, isUp } from '../progress/index.js';
import { KIT, POOR_SLEEP, standing } from '../test/plans.js';
import { CLASS_LEVELS, classLevels, laneAtLevel, type LaneRequest } from './index.js';

const library = loadLibrary(join(import.meta.dirname, '../../../library/movements'));
const catalog = buildCatalog(library);
const byId = new Map(library.map((one) => [one.id, { ...one, level: catalog.ladder.levels.get(one.id) ?? 0 }]));

function asked(id: string, change: Partial<LaneRequest> = {}): LaneRequest {
  const movement = byId.get(id);
  if (!movement) throw new Error(`no ${id}`);
  return {
    clientId: '018f0000-0000-7000-8000-00000000c11e',
    movement,
    standing: standing({ trainingYears: 2 }),
    purpose: 'strength',
    kit: KIT,
    ladder: catalog.ladder,
    find: (one) => byId.get(one),
    sets: {},
    ...change,
  };
}

const at = '2030-01-01T10:00:00.000Z';
const set = (amount: number, effort: 'easy' | 'hard' | 'failed') => ({ amount, effort, clean: true, kg: null });
const after = (sets: LaneRequest['sets'], over: Partial<LaneRequest> = {}) =>
  classLevels(asked('push-up', { sets, ...over }));

test('follows what was done: too hard goes to 1, ready to 3, a rung above is past it, a rung below waits for its sign', () => {
  const { movements } = classLevels(asked('push-up'));
  const [below, above] = [movements[1] ?? '', movements[3] ?? ''];
  expect(classLevels(asked('push-up')).level).toBe(2);
  expect(after({ 'push-up': [{ at, sets: [set(2, 'failed')] }] }).level).toBe(1);
  const good = Array.from({ length: 6 }, (_, i) => ({
    at: `2030-01-0${i + 1}T10:00:00.000Z`,
    sets: [set(20, 'easy'), set(20, 'easy'), set(20, 'easy')],
  }));
  expect(after({ 'push-up': good }).level).toBe(3);
  expect(after({ 'push-up': good }, { standing: standing({ ease: POOR_SLEEP, trainingYears: 2 }) })).toMatchObject({
    level: 2,
    movements: { 3: null },
  });
  expect(after({ [above]: [{ at, sets: [set(8, 'hard')] }] }).level).toBe(3);
  expect(after({ [below]: [{ at, sets: [set(8, 'hard')] }] }).level).toBe(1);
});

test('somebody new begins one lower where the movement is no first rung', () => {
  expect(classLevels(asked('push-up', { standing: standing({ trainingYears: 0 }) })).level).toBe(1);
});

test('no level is closed, 3 is up and 1 is not, and a lane at a level is of its movement', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...library.map(({ id }) => id)),
      fc.array(fc.record({ demand: fc.constantFrom(...DEMANDS), allowed: fc.integer({ min: 0, max: 2 }) }), {
        maxLength: 3,
      }),
      fc.boolean(),
      (id, limits, tired) => {
        const over = { limits: limits.map((one) => ({ ...one, reason: 'why' })), ease: tired ? POOR_SLEEP : null };
        const request = asked(id, { standing: standing(over) });
        const { movements, level } = classLevels(request);
        for (const one of CLASS_LEVELS) {
          const movement = byId.get(movements[one] ?? '');
          expect(laneAtLevel(request, one)?.movementId ?? null).toBe(movements[one]);
          if (movement) expect(isOpen(fitNow(request.standing, kitCounts(KIT), movement))).toBe(true);
        }
        if (tired) expect(movements[3]).toBeNull();
        if (movements[3]) expect(isUp(catalog.ladder, id, movements[3])).toBe(true);
        if (movements[1]) expect(isUp(catalog.ladder, id, movements[1])).toBe(false);
        if (level !== null) expect(movements[level]).not.toBeNull();
        else expect(movements[2]).toBeNull();
      },
    ),
    { numRuns: 300 },
  );
});
