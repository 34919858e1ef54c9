import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Movement } from '../movement/index.js';
import { HEALTH_WEIGHT, type HealthKind, libraryHealth } from './index.js';
import { lawfulMovement, lawfulMovements } from '../test/movements.js';

const [drawn] = fc.sample(lawfulMovement('low'), { numRuns: 1, seed: 11 });
if (!drawn) throw new Error('no movement drawn');
const step = (to: string) => ({ to, direction: 'harder' as const, lever: 'load' as const });
const fault = {
  ...drawn.faults[0],
  views: { front: 0.9, side: 0, back: 0, oblique: 0 },
  corrections: [
    { id: 'a', kind: 'say', say: 'Say', causes: [] },
    { id: 'b', kind: 'show', do: 'Show', causes: [] },
  ],
} as Movement['faults'][0];
/** Two movements in which nothing is missing. */
const low: Movement = {
  ...drawn,
  role: 'strength',
  families: ['squat'],
  kit: [],
  demands: { 'deep-knee-bend': 1 },
  name: 'Low one',
  aliases: [],
  cues: drawn.cues.map((cue) => ({ ...cue, focus: 'outward' })),
  faults: [fault],
  links: [step('high')],
};
const high: Movement = { ...low, id: 'high', name: 'Tall other', demands: { 'deep-knee-bend': 2 }, links: [] };
const kinds = (...movements: Movement[]): HealthKind[] => libraryHealth(movements).gaps.map((gap) => gap.kind);

test('a library in which nothing is missing has no gaps and a full score', () => {
  expect(libraryHealth([low, high])).toEqual({
    gaps: [],
    families: [{ family: 'squat', movements: 2, gaps: 0, score: 100 }],
  });
});

test.each<[HealthKind, Movement[]]>([
  ['cycle', [low, { ...high, links: [step('low')] }]],
  ['off-ladder', [{ ...low, links: [] }]],
  [
    'no-easier',
    [
      { ...low, demands: { 'deep-knee-bend': 2 } },
      { ...high, demands: { 'deep-knee-bend': 1 } },
    ],
  ],
  [
    'dead-end-without-kit',
    [low, high].map((m) => ({ ...m, kit: [{ needs: [{ item: 'barbell' as const, count: 1 }] }] })),
  ],
  ['demands-missing', [{ ...low, demands: {} }, high]],
  ['no-cues', [{ ...low, cues: [] }, high]],
  ['no-faults', [{ ...low, faults: [] }, high]],
  ['only-inward-cues', [{ ...low, cues: low.cues.map((cue) => ({ ...cue, focus: 'inward' as const })) }, high]],
  ['fault-only-words', [{ ...low, faults: [{ ...fault, corrections: fault.corrections.slice(0, 1) }] }, high]],
  ['fault-unseen', [{ ...low, faults: [{ ...fault, views: { front: 0.3, side: 0, back: 0, oblique: 0 } }] }, high]],
  [
    'unreachable-readiness',
    [
      {
        ...low,
        links: [
          { ...step('high'), readyWhen: { reps: 50, sets: 2, clean: true, effortAtMost: 'medium', sessions: 1 } },
        ],
      },
      high,
    ],
  ],
  ['near-duplicate', [low, { ...high, name: 'One low' }]],
])('%s is seen, alone, and mending it leaves nothing', (kind, broken) =>
  expect([...new Set(kinds(...broken))]).toEqual([kind]),
);

test('gaps come worst first, and taking a movement away never leaves a gap that names it', () => {
  fc.assert(
    fc.property(lawfulMovements(6), (movements) => {
      const { gaps, families } = libraryHealth(movements);
      gaps.slice(1).forEach((gap, i) => {
        const before = gaps[i];
        if (before) expect(HEALTH_WEIGHT[before.kind].points).toBeGreaterThanOrEqual(HEALTH_WEIGHT[gap.kind].points);
      });
      for (const { score } of families) expect(score).toBeLessThanOrEqual(100);
      const fewer = libraryHealth(movements.slice(1));
      expect(fewer.gaps.some((gap) => gap.movementId === movements[0]?.id)).toBe(false);
    }),
  );
});
