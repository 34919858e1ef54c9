/** Planning with the real starter library: whatever limit somebody has, what is suggested is lawful, fits its slot and can be done with the kit. */
import { join } from 'node:path';

import { beforeAll, describe, expect, test } from '@jest/globals';
import { type Ease, limitsFromPain } from '@waxwing/core/client';
import { loadsFor } from '@waxwing/core/dosage';
import { buildLadder } from '@waxwing/core/ladder';
import {
  DEMANDS,
  kitCounts,
  type KitPiece,
  type Limit,
  type MovementSummary,
  opennessWith,
  REGIONS,
} from '@waxwing/core/movement';
import {
  checkPlan,
  emptyPlan,
  orderPlan,
  type Plan,
  shortagesOf,
  type SuggestClient,
  type SuggestReason,
  suggestSession,
  totalsOfPlan,
  type WarnContext,
  warningsOf,
} from '@waxwing/core/planning';
import { NOTHING_LEFT, standingOf } from '@waxwing/core/progress';
import { loadConditions, loadLibrary } from '@waxwing/library';
import { v7 as uuidv7 } from 'uuid';

const LIBRARY = join(import.meta.dirname, '../../../library');
const NOW = '2030-03-01T10:00:00.000Z';
const KIT: KitPiece[] = [
  ...[4, 6, 8, 10, 12.5, 15].map((kg): KitPiece => ({ item: 'dumbbell', count: 2, kg })),
  { item: 'bell', count: 1, kg: 12 },
  { item: 'bench', count: 1 },
  { item: 'chair', count: 2 },
  { item: 'mat', count: 4 },
  { item: 'step', count: 1 },
];

let movements: MovementSummary[];
let find: (id: string) => MovementSummary | undefined;
beforeAll(() => {
  const all = loadLibrary(join(LIBRARY, 'movements'));
  const { levels } = buildLadder(all);
  movements = all.map((movement) => ({ ...movement, level: levels.get(movement.id) ?? 0 }));
  const byId = new Map(movements.map((movement) => [movement.id, movement]));
  find = (id) => byId.get(id);
});

const client = (
  name: string,
  limits: readonly Limit[],
  change: Partial<SuggestClient> = {},
  ease: Ease | null = null,
): SuggestClient => ({
  id: uuidv7(),
  name,
  standing: standingOf({ limits, ease }, NOTHING_LEFT),
  sets: {},
  ...change,
});

function planFor(
  clients: readonly SuggestClient[],
  minutes: number,
  from: readonly MovementSummary[] = movements,
  kit: readonly KitPiece[] = KIT,
): { plan: Plan; reasons: SuggestReason[] } {
  const { blocks, reasons } = suggestSession({
    minutes,
    purpose: 'strength',
    clients,
    movements: from,
    kit,
    space: 'lane',
    wanted: [],
    without: [],
    blocks: [],
    notThese: [],
    now: NOW,
    newId: uuidv7,
  });
  const plan: Plan = {
    ...emptyPlan(
      clients.map(({ id }) => id),
      minutes,
    ),
    blocks,
  };
  return { plan, reasons };
}

const around = (clients: readonly SuggestClient[]): WarnContext => ({
  find,
  knows: (clientId, id) => (clients.find((one) => one.id === clientId)?.sets[id]?.length ?? 0) > 0,
  clients,
  movements,
  kit: KIT,
  ladder: buildLadder(movements),
  newId: uuidv7,
  instead: () => undefined,
});

const lanes = (plan: Plan) => plan.blocks.flatMap(({ items }) => items.flatMap((item) => item.lanes));

const openness = (movementId: string, limits: readonly Limit[]) =>
  opennessWith(
    find(movementId) ?? { id: movementId, demands: {}, kit: [], notFor: [], suits: [] },
    limits,
    kitCounts(KIT),
  );

describe('a session from the starter library', () => {
  test.each(DEMANDS)('for somebody who may do nothing of %s is whole, lawful and in time', (demand) => {
    const one = client('Ada', [{ demand, allowed: 0, reason: 'not at all' }]);
    const { plan, reasons } = planFor([one], 45);
    expect(checkPlan(plan).ok).toBe(true);
    // Some are open only with some of their kit, such as on a chair.
    for (const { movementId } of lanes(plan))
      expect([movementId, openness(movementId, one.standing.limits)]).not.toEqual([movementId, 'closed']);
    const warnings = warningsOf(plan, around([one]));
    expect(warnings.filter(({ severity, wrong }) => severity !== 'polish' || wrong.code === 'push-pull')).toEqual([]);
    const { seconds, over } = totalsOfPlan(plan, around([one]));
    expect(over).toBe(0);
    // Either there is a real session, or it is said what is closed.
    expect(seconds > 25 * 60 || reasons.some((reason) => reason.code === 'left-out' && reason.by.length > 0)).toBe(
      true,
    );
  });

  test('gives the time of what a condition closes to what is open, with nothing that the legs must do in a wheelchair', () => {
    const kit: KitPiece[] = [...KIT, { item: 'band', count: 1 }, { item: 'anchor', count: 1 }];
    for (const { id, name, limits } of loadConditions(join(LIBRARY, 'conditions.yaml'))) {
      const one = client(
        'Ada',
        limits.map((limit) => ({ ...limit, reason: name })),
      );
      const { plan } = planFor([one], 45, movements, kit);
      const strength = plan.blocks.filter(({ kind }) => kind === 'strength').flatMap(({ items }) => items);
      expect([id, strength.length >= 4]).toEqual([id, true]);
      expect([id, totalsOfPlan(plan, around([one])).seconds >= 38 * 60]).toEqual([id, true]);
      if (id === 'wheelchair')
        for (const { movementId } of lanes(plan)) expect(find(movementId)?.demands['leg-drive'] ?? 0).toBe(0);
    }
  });

  test('takes for a pull what bends the arm, and where there are weights what they can make heavier', () => {
    const { plan } = planFor([client('Ada', [])], 45);
    const mains = plan.blocks.filter(({ kind }) => kind === 'strength').flatMap(({ items }) => items);
    const ofPattern = (pattern: string) =>
      mains.flatMap((item) => item.lanes).filter(({ movementId }) => find(movementId)?.pattern === pattern);
    for (const { movementId } of ofPattern('pull'))
      expect(['lats', 'mid-back', 'upper-back']).toContain(find(movementId)?.muscles.prime[0]);
    for (const { load } of ofPattern('pull')) expect(load).not.toBeNull();
  });

  test('for a short visit is three movements, and where little is there no curl stands in for a pull', () => {
    const mains = (minutes: number, kit: KitPiece[], years: number) => {
      const one = client('Ada', []);
      const trained = { ...one, standing: { ...one.standing, trainingYears: years } };
      const { plan } = planFor([trained], minutes, movements, kit);
      const of = (kind: string) =>
        plan.blocks
          .filter((block) => block.kind === kind)
          .flatMap(({ items }) => items.flatMap((item) => item.lanes))
          .flatMap(({ movementId }) => find(movementId) ?? []);
      return { strength: of('strength'), trunk: of('trunk') };
    };
    const hotel = mains(20, [{ item: 'chair', count: 1 }], 3).strength;
    expect(new Set(hotel.map(({ pattern }) => pattern)).size).toBeGreaterThanOrEqual(3);
    const park: KitPiece[] = [
      { item: 'bar', count: 1 },
      { item: 'band', count: 1 },
      { item: 'step', count: 1 },
    ];
    for (const { pattern, muscles } of mains(45, park, 2).strength)
      if (pattern === 'pull') expect(muscles.prime).toEqual(expect.arrayContaining(['mid-back']));
    // Years of training have outgrown one's own weight, and want a trunk that works.
    for (const years of [0, 1, 3, 8]) {
      const { strength, trunk } = mains(60, KIT, years);
      for (const { muscles } of trunk) expect(['abs', 'obliques', 'deep-trunk']).toContain(muscles.prime[0]);
      if (years < 3) continue;
      for (const { pattern, kit, dose } of strength)
        if (pattern === 'push') expect([dose.mode, loadsFor(kit, KIT).length > 0]).toEqual(['reps', true]);
    }
  });

  test('begins nothing before what comes before it, but trusts years of training', () => {
    const early = (one: SuggestClient) =>
      [20, 45, 60]
        .flatMap((minutes) => lanes(planFor([one], minutes).plan))
        .flatMap(({ movementId }) =>
          (find(movementId)?.precursors ?? []).map((before) => `${movementId} before ${before}`),
        );
    const newcomer = client('Ada', []);
    expect(early(newcomer)).toEqual([]);
    const trained = { ...newcomer, standing: { ...newcomer.standing, trainingYears: 5 } };
    expect(early(trained)).not.toEqual([]);
  });

  test('does not choose its work by what prepares or eases off', () => {
    const strength = (some: typeof movements) => {
      const { plan } = planFor([client('Ada', [])], 10, some);
      return plan.blocks
        .filter(({ kind }) => kind === 'strength')
        .flatMap(({ items }) => items.map(({ lanes }) => lanes[0]?.movementId));
    };
    expect(strength(movements)).toEqual(strength(movements.filter(({ role }) => role === 'strength')));
  });

  test('for two who are alike leaves nobody without their weight', () => {
    const two = ['Ada', 'Bo'].map((name) => client(name, []));
    for (const minutes of [20, 45, 60]) {
      const { plan } = planFor(two, minutes);
      expect(warningsOf(plan, around(two)).filter(({ severity }) => severity !== 'polish')).toEqual([]);
    }
  });

  test.each(REGIONS)('with sharp pain at the %s loads nothing there', (region) => {
    const one = client('Ada', limitsFromPain([{ region, quality: 'sharp' }]));
    const { plan } = planFor([one], 30);
    for (const { movementId } of lanes(plan)) expect(openness(movementId, one.standing.limits)).not.toBe('closed');
    expect(plan.blocks.length).toBeGreaterThan(1);
  });

  test('for four people has real weights for everybody, no two on one piece, and its best order already', () => {
    const four = ['Ada', 'Bo', 'Cy', 'Di'].map((name, i) =>
      client(name, i === 2 ? [{ demand: 'weight-on-wrist', allowed: 0, reason: 'wrist' }] : []),
    );
    const { plan } = planFor(four, 60);
    const context = around(four);
    for (const lane of lanes(plan))
      if (lane.load) expect(loadsFor(find(lane.movementId)?.kit ?? [], KIT)).toContainEqual(lane.load);
    const short = plan.blocks.flatMap(({ items }) =>
      items.filter((item) => shortagesOf(item.lanes, KIT, context).length > 0),
    );
    // What cannot be shared is named, with another real weight to take where there is one.
    const named = warningsOf(plan, context).filter(({ id }) => id.startsWith('short'));
    expect(new Set(named.map(({ itemId }) => itemId))).toEqual(new Set(short.map(({ id }) => id)));
    expect(orderPlan(plan, context).moved).toBe(false);
    expect(totalsOfPlan(plan, context).over).toBe(0);
    for (const block of plan.blocks)
      for (const item of block.items)
        expect(new Set(item.lanes.map(({ clientId }) => clientId)).size).toBe(item.lanes.length);
  });

  test('goes on with what was begun, a rung up where it is earned, and not heavier on a bad day', () => {
    const sets = {
      'bodyweight-squat': [1, 4].map((days) => ({
        at: new Date(Date.parse(NOW) - days * 86_400_000).toISOString(),
        sets: [1, 2, 3].map(() => ({ amount: 15, effort: 'easy' as const, clean: true, kg: null })),
      })),
      'bent-over-row': [
        {
          at: '2030-02-27T10:00:00.000Z',
          sets: [1, 2, 3].map(() => ({ amount: 12, effort: 'easy' as const, clean: true, kg: 20 })),
        },
      ],
    };
    const fresh = lanes(planFor([client('Ada', [], { sets })], 60).plan);
    const harder =
      buildLadder(movements)
        .rungs.get('bodyweight-squat')
        ?.harder.map(({ to }) => to) ?? [];
    expect(fresh.filter(({ movementId }) => harder.includes(movementId))).toHaveLength(1);
    expect(fresh.find(({ movementId }) => harder.includes(movementId))?.why[0]).toEqual({
      code: 'picked',
      how: 'rung-ready',
      care: false,
    });
    expect(fresh.map(({ movementId }) => movementId)).not.toContain('bodyweight-squat');
    const tired = lanes(
      planFor([client('Ada', [], { sets }, { code: 'today', sleep: true, energy: false, sore: [] })], 60).plan,
    );
    const row = tired.find(({ movementId }) => movementId === 'bent-over-row');
    expect(tired.map(({ movementId }) => movementId)).toContain('bodyweight-squat');
    expect([row?.load?.kg, row?.amount]).toEqual([20, 12]);
    expect(tired.filter(({ load }) => (load?.kg ?? 0) > 20)).toEqual([]);
  });
});
