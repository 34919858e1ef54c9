/** Circuits by a clock: their minutes are those of the clock, and what does not go into a turn is said with an amount that does. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';

import { CLIENT, uuidAt } from '../test/generate.js';
import { movement } from '../test/plans.js';
import {
  type Block,
  checkPlan,
  emptyPlan,
  parseWork,
  type PlanLane,
  secondsOf,
  timelineOf,
  turnWarnings,
  workEach,
  workEachWords,
} from './index.js';

const lane = (amount: number, tempo = '2-0-1-0'): PlanLane => ({
  clientId: CLIENT,
  movementId: 'step',
  withId: null,
  sets: 1,
  amount,
  tempo,
  rest: 45,
  load: null,
  why: [],
});

const circuit = (change: Partial<Block>, ...amounts: number[]): Block => ({
  id: uuidAt(1),
  kind: 'circuit',
  rounds: 3,
  workSeconds: null,
  items: amounts.map((amount, i) => ({ id: uuidAt(10 + i), locked: false, tied: false, lanes: [lane(amount)] })),
  ...change,
});

const context = { find: (id: string) => movement(id), knows: () => true };
const minutes = (block: Block) => secondsOf(timelineOf({ blocks: [block] }, context));
const problems = (block: Block): string[] => {
  const answer = checkPlan({ ...emptyPlan([CLIENT], 60), blocks: [block] });
  return answer.ok ? [] : answer.problems.map(({ path, message }) => `${path} ${message}`);
};

describe('a turn every so many seconds', () => {
  test('takes its seconds for every turn, whatever is done in them', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 20, max: 600 }),
        fc.integer({ min: 1, max: 20 }),
        fc.array(fc.integer({ min: 1, max: 30 }), { minLength: 1, maxLength: 6 }),
        (seconds, rounds, amounts) => {
          const block = circuit({ rounds, clock: { mode: 'every', seconds } }, ...amounts);
          expect(minutes(block)).toBe(seconds * rounds * amounts.length);
        },
      ),
    );
  });

  test('says what does not go into it, and the amount that it offers does', () => {
    fc.assert(
      fc.property(fc.integer({ min: 20, max: 120 }), fc.integer({ min: 1, max: 60 }), (seconds, amount) => {
        const block = circuit({ clock: { mode: 'every', seconds } }, amount);
        const plan = { ...emptyPlan([CLIENT], 60), blocks: [block] };
        const found = turnWarnings(plan, context);
        expect(found).toHaveLength(amount * 3 > seconds ? 1 : 0);
        for (const { fixes } of found)
          for (const { blocks } of fixes) expect(turnWarnings({ ...plan, blocks }, context)).toEqual([]);
      }),
    );
  });
});

const seconds = fc.integer({ min: 5, max: 600 });

describe('work and rest', () => {
  test('takes the seconds of each round, and its rest between all turns', () => {
    fc.assert(
      fc.property(
        fc.array(seconds, { minLength: 1, maxLength: 6 }),
        fc.integer({ min: 1, max: 8 }),
        fc.integer({ min: 1, max: 4 }),
        ([workSeconds = 5, ...then], rounds, lines) => {
          const block = circuit(
            { rounds, workSeconds, ...(then.length > 0 && { workThen: then }) },
            ...Array.from({ length: lines }, () => 8),
          );
          let all = -45;
          for (let round = 0; round < rounds; round += 1)
            for (let line = 0; line < lines; line += 1)
              all += ([workSeconds, ...then][round] ?? then.at(-1) ?? workSeconds) + 45;
          expect(minutes(block)).toBe(all);
          expect(problems(block)).toEqual([]);
        },
      ),
    );
  });

  test('is read back as it is said', () => {
    fc.assert(
      fc.property(fc.array(seconds, { minLength: 1, maxLength: 20 }), ([workSeconds = 5, ...then]) => {
        const block = { workSeconds, ...(then.length > 0 && { workThen: then }) };
        expect(parseWork(workEach(block).join(', '))).toEqual(block);
      }),
    );
    expect(workEachWords({ workSeconds: 40, workThen: [30, 20] })).toBe('40, 30, 20 s round by round');
    expect(workEachWords({ workSeconds: 40 })).toBe('40 s');
  });

  test('says what cannot be: no seconds, too few or many, rounds without end, other seconds without a clock', () => {
    for (const typed of ['', '4', '40, 3', '40, x', '601', '30.5', '1e2'])
      expect(parseWork(typed)).toMatchObject({ wrong: expect.stringContaining('whole seconds from 5 to 600') });
    expect(parseWork('30 '.repeat(21))).toEqual({ wrong: 'has at most 20 rounds' });
    expect(problems(circuit({ workThen: [30] }, 8))).toEqual([
      'blocks[0].workThen is for a circuit with seconds of work',
    ]);
    expect(problems(circuit({ workSeconds: 40, workThen: [] }, 8))).toEqual([
      'blocks[0].workThen needs seconds for at least one round',
    ]);
  });
});

describe('as many rounds as go into a time', () => {
  test('take that time, however many are expected', () => {
    for (const rounds of [1, 5, 20])
      expect(minutes(circuit({ rounds, clock: { mode: 'rounds-in', seconds: 600 } }, 10, 10, 10))).toBe(600);
  });
});

test('a clock is for a circuit that has no seconds of work, and has a length', () => {
  expect(problems(circuit({ clock: { mode: 'every', seconds: 60 } }, 8))).toEqual([]);
  expect(problems(circuit({ clock: { mode: 'every', seconds: 5 } }, 8))).toEqual([
    'blocks[0].clock.seconds must be 20 to 600',
  ]);
  expect(problems(circuit({ workSeconds: 40, clock: { mode: 'every', seconds: 60 } }, 8))[0]).toContain(
    'blocks[0].clock',
  );
  expect(problems({ ...circuit({ clock: { mode: 'rounds-in', seconds: 600 } }, 8), kind: 'strength' })[0]).toContain(
    'blocks[0].clock',
  );
});
