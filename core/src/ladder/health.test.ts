import { expect, test } from '@jest/globals';
import fc from 'fast-check';

import type { Proven } from '../body/proven-demands.js';
import type { FaultKind, Movement } from '../movement/index.js';
import { lawfulMovement, lawfulMovements } from '../test/movements.js';
import { HEALTH_KINDS, HEALTH_WEIGHT, type HealthKind, libraryHealth } from './index.js';

const [drawn] = fc.sample(lawfulMovement('low'), { numRuns: 1, seed: 11 });
if (!drawn) throw new Error('no movement drawn');
const step = (to: string) => ({
  to,
  direction: 'harder' as const,
  lever: 'load' as const,
  backWhen: { repsBelow: 5, faultsAtLeast: 'fix' as const, sets: 2 },
});
const fault = {
  ...drawn.faults[0],
  id: 'knees',
  kind: 'knees-in',
  looksLike: 'The knees come together.',
  severity: 'fix',
  views: { front: 0.9, side: 0, back: 0, oblique: 0.5 },
  corrections: [
    { id: 'a', kind: 'say', cueId: 'knees', causes: [] },
    { id: 'b', kind: 'show', do: 'Show the knee over the foot.', causes: [] },
  ],
} as Movement['faults'][0];
const KNEES = { id: 'knees-in', severity: 'fix' } as FaultKind;
const cue = {
  ...drawn.cues[0],
  id: 'knees',
  text: 'Push the floor apart',
  addresses: ['knees'],
} as Movement['cues'][0];
const HOW = 'Stand with your feet apart. Sit down as if to a chair, and stand up again.';
/** Two movements in which nothing is missing. */
const low: Movement = {
  ...drawn,
  role: 'strength',
  progression: 'yes',
  families: ['squat'],
  kit: [],
  demands: { 'deep-knee-bend': 1 },
  name: 'Low one',
  aliases: [],
  cues: [cue, { ...cue, id: 'tall', addresses: [] }].map((one) => ({ ...one, focus: 'outward' })),
  breath: 'In on the way down, out on the way up.',
  how: HOW,
  feel: { expected: 'The thighs.', stop: 'Pain in a knee.' },
  cautions: ['Leave it out on a day when a knee hurts.'],
  faults: [fault],
  links: [step('high')],
};
const high: Movement = { ...low, id: 'high', name: 'Tall other', demands: { 'deep-knee-bend': 2 }, links: [] };
const kinds = (...movements: Movement[]): HealthKind[] =>
  libraryHealth(movements, kindOf, shown).gaps.map((gap) => gap.kind);
/** One figure of all is deep. */
const shown = ({ drawnAs }: Movement): Proven => (drawnAs === 'deep' ? { 'deep-knee-bend': 3 } : {});
const kindOf = ({ kind }: { kind?: string }) => (kind === KNEES.id ? KNEES : undefined);
const answered = (...corrections: Partial<Movement['faults'][0]['corrections'][0]>[]) => ({
  ...fault,
  corrections: [
    ...fault.corrections,
    ...corrections.map((one, i) => ({ id: `c${i}`, kind: 'slow' as const, causes: [], ...one })),
  ],
});

test('a library in which nothing is missing has no gaps and a full score', () => {
  expect(libraryHealth([low, high], kindOf)).toEqual({
    gaps: [],
    families: [{ family: 'squat', movements: 2, gaps: 0, score: 100 }],
  });
});

const BROKEN: [HealthKind, Movement[]][] = [
  ['cycle', [low, { ...high, demands: low.demands, links: [step('low')] }]],
  ['off-ladder', [{ ...low, links: [] }]],
  [
    'no-easier',
    [
      { ...low, demands: { standing: 2 } },
      { ...high, demands: { standing: 1 } },
    ],
  ],
  [
    'dead-end-without-kit',
    [low, high].map((m) => ({ ...m, kit: [{ needs: [{ item: 'barbell' as const, count: 1 }] }] })),
  ],
  ['demands-missing', [{ ...low, demands: {} }, high]],
  ['no-cues', [{ ...low, cues: [] }, high]],
  ['no-faults', [{ ...low, faults: [] }, high]],
  [
    'only-inward-cues',
    [
      { ...low, cues: low.cues.map((cue) => ({ ...cue, text: 'Turn your knees out', focus: 'inward' as const })) },
      high,
    ],
  ],
  ['fault-only-words', [{ ...low, faults: [{ ...fault, corrections: fault.corrections.slice(0, 1) }] }, high]],
  ['fault-unseen', [{ ...low, faults: [{ ...fault, views: { front: 0.3, side: 0, back: 0, oblique: 0.3 } }] }, high]],
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
  ['figure-shows-more', [{ ...low, drawnAs: 'deep' }, high]],
  [
    'swap-asks-more',
    [{ ...low, faults: [answered({ kind: 'swap', do: 'Change to the harder one.', swapTo: 'high' })] }, high],
  ],
  ['touch', [{ ...low, faults: [answered({ do: 'With your hand on the knee, guide it.' })] }, high]],
  ['severity', [{ ...low, faults: [{ ...fault, severity: 'polish' }] }, high]],
  [
    'demand-falls',
    [
      { ...low, demands: { ...low.demands, 'loaded-shoulder': 2 } },
      { ...high, demands: { ...high.demands, impact: 1 } },
    ],
  ],
  ['how', [{ ...low, how: 'Sit.' }, high]],
  ['how', [{ ...low, how: `${HOW} ${HOW} Rest.` }, high]],
  [
    'how',
    [{ ...low, how: 'Initiate simultaneous triplanar articulation deliberately. Subsequently decelerate.' }, high],
  ],
  ['how', [{ ...low, how: '' }, high]],
  ['feel', [{ ...low, feel: undefined }, high]],
  ['caution', [{ ...low, cautions: ['Dull is right.'] }, high]],
  ['views', [{ ...low, faults: [{ ...fault, views: { ...fault.views, oblique: 0 } }] }, high]],
  ['kind', [{ ...low, faults: [{ ...fault, kind: undefined }] }, high]],
  ['spoken-cue', [{ ...low, faults: [{ ...fault, corrections: fault.corrections.slice(1) }] }, high]],
  ['link-both-ways', [{ ...low, cues: low.cues.map((one) => ({ ...one, addresses: [] })) }, high]],
  ['speakable', [{ ...low, faults: [answered({ kind: 'say', say: 'Fern.' })] }, high]],
  ['speakable', [{ ...low, faults: [answered({ kind: 'say', say: 'Ask for slower reps from them.' })] }, high]],
  ['telegram', [{ ...low, faults: [answered({ do: 'Hair.' })] }, high]],
  ['telegram', [{ ...low, faults: [{ ...fault, looksLike: 'Knees in.' }] }, high]],
  ['jargon', [{ ...low, breath: 'Engage and breathe.' }, high]],
  [
    'focus',
    [{ ...low, cues: low.cues.map((one) => ({ ...one, focus: 'outward', text: 'Elbow under the shoulder' })) }, high],
  ],
  [
    'count',
    [{ ...low, dose: { ...low.dose, mode: 'reps', tempo: '2-0-1-0' }, how: `${HOW} Rest for three seconds.` }, high],
  ],
  ['sign-back', [{ ...low, links: [{ ...step('high'), backWhen: undefined }] }, high]],
];

test('legs that work while the rest sits may ask for nothing, arms may not', () => {
  const seated = (prime: Movement['muscles']['prime']): Movement => ({
    ...low,
    demands: {},
    position: 'seated',
    muscles: { prime, assist: [] },
  });
  expect(kinds(seated(['quads', 'calves']), high)).toEqual([]);
  expect(kinds(seated(['quads', 'triceps']), high)).toEqual(['demands-missing']);
});

test('every kind of gap is tried', () => {
  expect(new Set(BROKEN.map(([kind]) => kind))).toEqual(new Set(HEALTH_KINDS));
});

test.each(BROKEN)('%s is seen, alone, and mending it leaves nothing', (kind, broken) =>
  expect([...new Set(kinds(...broken))]).toEqual([kind]),
);

test('gaps come worst first, and taking a movement away never leaves a gap that names it', () => {
  fc.assert(
    fc.property(lawfulMovements(6), (movements) => {
      const { gaps, families } = libraryHealth(movements, kindOf);
      gaps.slice(1).forEach((gap, i) => {
        const before = gaps[i];
        if (before) expect(HEALTH_WEIGHT[before.kind].points).toBeGreaterThanOrEqual(HEALTH_WEIGHT[gap.kind].points);
      });
      for (const { score } of families) expect(score).toBeLessThanOrEqual(100);
      const fewer = libraryHealth(movements.slice(1), kindOf);
      expect(fewer.gaps.some((gap) => gap.movementId === movements[0]?.id)).toBe(false);
    }),
  );
});
