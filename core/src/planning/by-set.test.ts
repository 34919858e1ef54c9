/** Sets that are not all alike: parts, rounds that differ, weights that change. Every sum equals a count of single reps and seconds. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';

import { type Load, loadsFor, SIDE_CHANGE_SECONDS } from '../dosage/index.js';
import type { KitPiece } from '../movement/kit-schema.js';
import { parseTempo } from '../movement/tempo.js';
import { CLIENT, uuidAt } from '../test/generate.js';
import { movement } from '../test/plans.js';
import {
  type Block,
  checkPlan,
  coverageOf,
  emptyPlan,
  laneBySet,
  laneOfSet,
  movementsOf,
  type PatternFacts,
  patternOf,
  type PlanLane,
  ROUND_PATTERNS,
  roundsBy,
  roundsWords,
  secondsOf,
  shortagesOf,
  sumWords,
  timelineOf,
  underClock,
  withPattern,
  withSets,
} from './index.js';

const KIT: KitPiece[] = [4, 6, 8, 12, 16].map((kg) => ({ item: 'bell', count: 1, kg }));
const SWING = movement('swing', { kit: [{ needs: [{ item: 'bell', count: 1 }] }], progression: 'yes' });
const LOADS = loadsFor(SWING.kit, KIT);
const loadOf = (kg: number): Load => {
  const load = LOADS.find((one) => one.kg === kg);
  if (!load) throw new Error(`no ${kg} kg`);
  return load;
};

const lane = (change: Partial<PlanLane> = {}): PlanLane => ({
  clientId: CLIENT,
  movementId: 'swing',
  withId: null,
  sets: 3,
  amount: 15,
  tempo: '2-0-1-0',
  rest: 30,
  load: loadOf(12),
  why: [],
  ...change,
});

const facts = (change: Partial<PatternFacts> = {}): PatternFacts => ({
  rounds: 3,
  byClock: false,
  each: true,
  loads: LOADS,
  easier: { movementId: 'easy', amount: 12, tempo: '2-0-1-0', load: null },
  harder: { movementId: 'hard', amount: 8, tempo: '2-0-1-0', load: loadOf(8) },
  ...change,
});

const block = (change: Partial<Block>, ...lanes: PlanLane[]): Block => ({
  id: uuidAt(1),
  kind: 'strength',
  rounds: 3,
  workSeconds: null,
  items: lanes.map((one, i) => ({ id: uuidAt(10 + i), locked: false, tied: false, lanes: [one] })),
  ...change,
});

describe('rounds that differ', () => {
  test('each pattern is what a trainer means by it', () => {
    expect(roundsWords(withPattern(lane(), 'left-right-alternating', facts()), 3, String)).toEqual([
      'left, right, alternating',
    ]);
    expect(laneBySet(withPattern(lane(), 'descending', facts()), 3).map(({ amount }) => amount)).toEqual([15, 12, 9]);
    expect(laneBySet(withPattern(lane(), 'ascending', facts()), 3).map(({ amount }) => amount)).toEqual([9, 12, 15]);
    expect(laneBySet(withPattern(lane(), 'ramp', facts()), 3).map(({ load }) => load?.kg)).toEqual([6, 8, 12]);
    expect(laneBySet(withPattern(lane(), 'easier-same-harder', facts()), 3).map((one) => one.movementId)).toEqual([
      'easy',
      'swing',
      'hard',
    ]);
    const [top, ...after] = laneBySet(withPattern(lane({ amount: 5, load: loadOf(16) }), 'back-off', facts()), 3);
    expect(top).toMatchObject({ amount: 5, load: { kg: 16 } });
    for (const one of after) {
      expect(one.load?.kg).toBe(12);
      expect(one.amount).toBeGreaterThan(5);
    }
  });

  test('a pattern takes only weights that are here, never a heavier one than the line, and is known again', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...ROUND_PATTERNS),
        fc.constantFrom(...LOADS),
        fc.integer({ min: 1, max: 8 }),
        fc.integer({ min: 1, max: 30 }),
        (pattern, load, rounds, amount) => {
          const of = facts({ rounds, harder: null });
          const line = lane({ load, amount, sets: rounds });
          const made = roundsBy(pattern, line, of);
          if (!made) return;
          const whole = { ...line, bySet: made };
          expect(made.every(({ set }) => set >= 1 && set <= rounds)).toBe(true);
          for (const one of laneBySet(whole, rounds))
            if (one.load) {
              expect(LOADS).toContainEqual(one.load);
              expect(one.load.kg).toBeLessThanOrEqual(load.kg ?? 0);
            }
          const known = patternOf(withPattern(line, pattern, of), of);
          expect(known && roundsBy(known, line, of)).toEqual(made);
          expect(withSets(whole, 1).bySet?.every(({ set }) => set === 1)).toBe(true);
        },
      ),
    );
  });

  test('under a clock nobody counts: the side, the weight and the rung may differ, and nothing else is kept or said', () => {
    const clock = facts({ byClock: true });
    const offered = ROUND_PATTERNS.filter((pattern) => roundsBy(pattern, lane(), clock) !== null);
    expect(offered).toEqual(['same', 'left-right', 'left-right-alternating', 'easier-same-harder', 'ramp']);
    fc.assert(
      fc.property(fc.constantFrom(...ROUND_PATTERNS), (pattern) => {
        const before = withPattern(lane(), pattern, facts());
        const under = laneBySet(underClock(before), 3);
        expect(under.every(({ amount, asClean }) => amount === before.amount && !asClean)).toBe(true);
        expect(under.map(({ side, load, movementId }) => [side, load, movementId])).toEqual(
          laneBySet(before, 3).map(({ side, load, movementId }) => [side, load, movementId]),
        );
      }),
    );
  });

  test('what cannot be is not offered', () => {
    expect(roundsBy('left-right', lane(), facts({ each: false }))).toBeNull();
    expect(roundsBy('ramp', lane({ load: loadOf(4) }), facts())).toBeNull();
    expect(roundsBy('descending', lane({ amount: 2 }), facts())).toBeNull();
    expect(roundsBy('easier-same-harder', lane(), facts({ easier: null, harder: null }))).toBeNull();
    expect(roundsBy('left-right', lane(), facts({ rounds: 1 }))).toBeNull();
  });

  test('a variation has neither the parts nor the second movement of the line', () => {
    const line = lane({ withId: 'row', parts: [{ kind: 'reps', count: 15, tempo: null }], drops: [] });
    const varied = laneOfSet({ ...line, bySet: [{ set: 2, movementId: 'hard' }] }, 2);
    expect(varied).toMatchObject({ movementId: 'hard', withId: null });
    expect(varied.parts).toBeUndefined();
    expect(movementsOf({ ...line, bySet: [{ set: 2, movementId: 'hard' }] })).toEqual(['swing', 'row', 'hard']);
  });

  test('sums are said as a trainer says them', () => {
    const dose = { mode: 'reps', sides: 'each' } as const;
    expect(sumWords(lane({ amount: 12 }), 1, dose)).toBe('12 a side is 24');
    expect(sumWords(lane({ amount: 30 }), 3, { mode: 'reps', sides: 'both' })).toBe('3 rounds of 30 is 90');
    expect(sumWords(lane({ amount: 12 }), 2, dose)).toBe('12 a side is 24, 2 rounds of 24 is 48');
    expect(sumWords(withPattern(lane({ amount: 10 }), 'left-right-alternating', facts()), 3, dose)).toBe('40 in all');
    expect(sumWords(lane(), 1, { mode: 'reps', sides: 'both' })).toBeNull();
  });
});

describe('minutes and reps', () => {
  const find = (id: string) => movement(id, { sides: id === 'swing' ? 'each' : 'both' });
  const tempo = fc
    .tuple(...[1, 2, 3].map(() => fc.integer({ min: 0, max: 4 })))
    .map((beats) => [...beats, 1].join('-'));
  const side = fc.constantFrom('left', 'right', 'alternating', undefined);
  const changes = fc.array(
    fc.record({ amount: fc.option(fc.integer({ min: 1, max: 20 }), { nil: undefined }), side }),
    {
      minLength: 3,
      maxLength: 3,
    },
  );

  test('equal a count of single reps and seconds, whatever side, tempo, amount and lighter weight a round has', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('swing', 'both'),
        tempo,
        fc.integer({ min: 1, max: 20 }),
        changes,
        fc.boolean(),
        (id, beats, amount, rounds, dropping) => {
          const drops = [{ load: loadOf(8), amount: 4 }];
          const bySet = rounds.map((round, i) => ({
            set: i + 1,
            ...Object.fromEntries(Object.entries(round).filter(([, value]) => value !== undefined)),
          }));
          const line = lane({ movementId: id, tempo: beats, amount, bySet, ...(dropping && { drops }) });
          let [reps, seconds] = [0, 0];
          const rep = parseTempo(beats).reduce((sum, beat) => sum + beat, 0);
          rounds.forEach((round, i) => {
            const sides =
              id !== 'swing'
                ? ['x']
                : round.side === 'left' || round.side === 'right'
                  ? [round.side]
                  : ['left', 'right'];
            for (const _ of sides) {
              for (let n = 0; n < (round.amount ?? amount); n += 1) {
                reps += 1;
                seconds += rep;
              }
              if (dropping) {
                seconds += 10;
                for (let n = 0; n < 4; n += 1) {
                  reps += 1;
                  seconds += rep;
                }
              }
            }
            if (sides.length === 2 && round.side === undefined) seconds += SIDE_CHANGE_SECONDS;
            if (i < 2) seconds += line.rest;
          });
          const plan = { ...emptyPlan([CLIENT], 60), blocks: [block({}, line)] };
          const context = { find, knows: () => true };
          const work = timelineOf(plan, context).filter(({ kind }) => kind === 'work' || kind === 'rest');
          expect(work.reduce((sum, one) => sum + one.seconds, 0)).toBe(seconds);
          expect(coverageOf(plan, CLIENT, context).reps).toBe(reps);
          expect(secondsOf(timelineOf(plan, context))).toBeGreaterThanOrEqual(seconds);
        },
      ),
    );
  });
});

describe('what is refused', () => {
  const problems = (change: Partial<PlanLane>, of: Partial<Block> = {}): string[] => {
    const answer = checkPlan({ ...emptyPlan([CLIENT], 60), blocks: [block(of, lane(change))] });
    return answer.ok ? [] : answer.problems.map(({ path, message }) => `${path} ${message}`);
  };

  test.each<[string, Partial<PlanLane>, string]>([
    [
      'parts of zero',
      { amount: 1, parts: [{ kind: 'reps', count: 0, tempo: null }] },
      'parts[0].count must be 1 to 200',
    ],
    [
      'parts that do not add up',
      { parts: [{ kind: 'reps', count: 8, tempo: null }] },
      'parts add up to 8, but the amount is 15',
    ],
    ['a tempo that takes an hour', { tempo: '99-99-99-99' }, 'tempo must take at most 60 seconds a rep'],
    [
      'a set that takes an hour',
      { amount: 200, parts: [{ kind: 'reps', count: 200, tempo: '10-0-10-0' }] },
      'parts take 67 minutes: a set takes at most 30',
    ],
    ['a drop to more', { drops: [{ load: loadOf(16), amount: 5 }] }, 'drops[0].load must be lighter'],
    ['a round that is not there', { bySet: [{ set: 4, amount: 5 }] }, 'bySet[0].set is past the last of 3'],
    [
      'a round twice',
      {
        bySet: [
          { set: 1, amount: 5 },
          { set: 1, amount: 6 },
        ],
      },
      'bySet[1].set is there twice',
    ],
    ['rounds of nothing', { bySet: [{ set: 1, amount: 0 }] }, 'bySet[0].amount must be 1 to 3600'],
  ])('%s', (_, change, said) => {
    expect(problems(change).join('; ')).toContain(`lanes[0].${said}`);
  });

  test('all of it together is accepted', () => {
    expect(
      problems({
        amount: 11,
        parts: [
          { kind: 'reps', count: 8, tempo: null },
          { kind: 'reps', count: 3, tempo: '4-0-2-0' },
          { kind: 'hold', count: 8, at: 'bottom' },
        ],
        bySet: [
          { set: 2, side: 'left', load: loadOf(8), movementId: 'hard', tempo: '3-0-1-0', rest: 20, asClean: true },
        ],
        drops: [{ load: loadOf(8), amount: 6 }],
      }),
    ).toEqual([]);
  });
});

test('two people who want one weight in the same round are short of it, though not in the others', () => {
  const other = uuidAt(0xc2);
  const heavy = [{ set: 2, load: loadOf(16) }];
  const lanes = [lane({ load: loadOf(4), bySet: heavy }), lane({ clientId: other, load: loadOf(6), bySet: heavy })];
  const context = { find: () => SWING };
  expect(shortagesOf(lanes, KIT, context)).toEqual([
    { what: loadOf(16).label, wanted: 2, there: 1, clientIds: [CLIENT, other] },
  ]);
  expect(shortagesOf([lane({ load: loadOf(4) }), lane({ clientId: other, load: loadOf(6) })], KIT, context)).toEqual(
    [],
  );
});
