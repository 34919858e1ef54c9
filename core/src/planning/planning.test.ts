import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';

import { DAY_KINDS, type DayKind, type PastSession } from '../client/index.js';
import { type Load, loadsFor } from '../dosage/index.js';
import { buildLadder } from '../ladder/index.js';
import { type KitPiece, type MovementSummary, opennessFor, PATTERNS, PURPOSES } from '../movement/index.js';
import {
  clientId,
  contextOf,
  counting,
  KIT,
  limits,
  movement,
  NOW,
  plannable,
  planOver,
  POOR_SLEEP,
  standing,
  suggestClient,
} from '../test/plans.js';
import {
  type Balance,
  BALANCED,
  balanceOf,
  type Block,
  carryForward,
  checkPlan,
  coverageOf,
  emptyPlan,
  laneFor,
  lastVisit,
  loadSeconds,
  minuteWords,
  orderCost,
  orderPlan,
  orderProblem,
  type Plan,
  type PlanContext,
  secondsOf,
  SEGMENT_KINDS,
  sharesFor,
  shortagesOf,
  type SuggestClient,
  suggestSession,
  timelineOf,
  totalsOfPlan,
  turnsOf,
  type WarnContext,
  warningsOf,
} from './index.js';

const NO_LADDER = buildLadder([]);

const world = plannable(14).chain((movements) =>
  fc.record({
    movements: fc.constant(movements),
    plan: planOver(movements),
    context: fc.constant(contextOf(movements)),
  }),
);
const OPTIONS = { endOnFailure: true } as const;

const lane = (movementId: string, change: Partial<Plan['blocks'][0]['items'][0]['lanes'][0]> = {}) => ({
  clientId: clientId(0),
  movementId,
  withId: null,
  sets: 2,
  amount: 10,
  tempo: '1-0-1-0',
  rest: 30,
  load: null,
  why: [],
  ...change,
});

const newId = counting();
const block = (kind: Block['kind'], ...lanes: ReturnType<typeof lane>[]): Block => ({
  id: newId(),
  kind,
  rounds: 2,
  workSeconds: null,
  items: lanes.map((one) => ({ id: newId(), locked: false, tied: false, lanes: [one] })),
});

const planWith = (blocks: Block[], minutes = 60): Plan => ({ ...emptyPlan([clientId(0)], minutes), blocks });

const known = (...movements: MovementSummary[]): PlanContext => ({
  find: (id) => movements.find((one) => one.id === id),
  knows: () => true,
});

describe('a plan', () => {
  test('is refused with the path of what is wrong', () => {
    const good = planWith([block('strength', lane('squat'))]);
    expect(checkPlan(good).ok).toBe(true);
    const paths = (change: (plan: Plan) => void) => {
      const plan = structuredClone(good);
      change(plan);
      const checked = checkPlan(plan);
      return checked.ok ? [] : checked.problems.map(({ path }) => path);
    };
    const first = (plan: Plan) => (plan.blocks[0] as Block).items[0] as Block['items'][0];
    expect(paths((plan) => void (plan.minutes = 1500))).toEqual(['minutes']);
    expect(paths((plan) => void ((first(plan).lanes[0] as { amount: number }).amount = 0))).toEqual([
      'blocks[0].items[0].lanes[0].amount',
    ]);
    expect(paths((plan) => void ((first(plan).lanes[0] as { amount: number }).amount = -3))).toEqual([
      'blocks[0].items[0].lanes[0].amount',
    ]);
    expect(paths((plan) => void ((first(plan).lanes[0] as { tempo: string }).tempo = '3-x-1'))).toEqual([
      'blocks[0].items[0].lanes[0].tempo',
    ]);
    expect(paths((plan) => first(plan).lanes.push(structuredClone(first(plan).lanes[0] as never)))).toEqual([
      'blocks[0].items[0].lanes[1].clientId',
    ]);
    expect(paths((plan) => void (plan.clientIds = [clientId(1)]))).toEqual(['blocks[0].items[0].lanes[0].clientId']);
    expect(paths((plan) => plan.clientIds.push(clientId(0)))).toEqual(['clientIds[1]']);
    expect(paths((plan) => (plan.blocks[0] as Block).items.push(first(plan)))).toEqual(['blocks[0].items[1].id']);
  });
});

describe('time', () => {
  test('is the same on a pocket calculator', () => {
    const press = movement('press', {
      position: 'supine',
      sides: 'each',
      kit: [{ needs: [{ item: 'dumbbell', count: 1 }] }],
    });
    const [four, eight] = loadsFor(press.kit, KIT).filter(({ changeSeconds }) => changeSeconds === 0);
    const straight = block(
      'strength',
      lane('squat'),
      lane('press', { load: four ?? null, sets: 1 }),
      lane('press', { load: eight ?? null, sets: 1 }),
    );
    const segments = timelineOf({ blocks: [straight] }, known(movement('squat'), press));
    expect(segments.map(({ kind, seconds }) => [kind, seconds])).toEqual([
      ['work', 20],
      ['rest', 30],
      ['work', 20],
      ['rest', 30],
      ['position', 12],
      ['load', 10],
      ['work', 45],
      ['rest', 30],
      ['load', 10],
      ['work', 45],
    ]);
    expect(minuteWords(secondsOf(segments))).toBe('4 min 12 s');
    const circuit = { ...block('circuit', lane('squat'), lane('squat')), rounds: 3, workSeconds: 40 };
    expect(secondsOf(timelineOf({ blocks: [circuit] }, known(movement('squat'))))).toBe(6 * 40 + 5 * 30);
    expect(turnsOf(circuit).map(({ set }) => set)).toEqual([1, 1, 2, 2, 3, 3]);
  });

  test('has no gaps, and its parts add up', () => {
    fc.assert(
      fc.property(world, ({ plan, context }) => {
        const segments = timelineOf(plan, context);
        let now = 0;
        for (const { from, seconds } of segments) {
          expect(from).toBe(now);
          expect(Number.isInteger(seconds) && seconds > 0).toBe(true);
          now += seconds;
        }
        const totals = totalsOfPlan(plan, context);
        expect(totals.seconds).toBe(now);
        expect(SEGMENT_KINDS.reduce((sum, kind) => sum + totals.by[kind], 0)).toBe(now);
        expect(totals.over).toBe(Math.max(0, now - plan.minutes * 60));
        expect(totals.weightChanges).toBe(segments.filter(({ kind }) => kind === 'load').length);
      }),
      OPTIONS,
    );
  });

  test('a new movement is taught once, and each set stands in the timeline once', () => {
    fc.assert(
      fc.property(world, ({ plan, context }) => {
        const segments = timelineOf(plan, context);
        const turns = plan.blocks.flatMap(turnsOf);
        expect(segments.filter(({ kind }) => kind === 'work').length).toBe(turns.length);
        const fresh = new Set(
          turns
            .flatMap(({ lanes }) => lanes.map(({ movementId }) => movementId))
            .filter((id) => !context.knows('', id)),
        );
        expect(totalsOfPlan(plan, context).by.teach).toBe(fresh.size * 45);
      }),
      OPTIONS,
    );
  });
});

test('coverage counts sets once for each pattern, and both sides of each rep', () => {
  fc.assert(
    fc.property(world, ({ plan, context }) => {
      const one = coverageOf(plan, clientId(0), context);
      expect([...one.patterns.values()].reduce((sum, n) => sum + n, 0)).toBe(one.sets);
      const doubled = coverageOf({ blocks: [...plan.blocks, ...plan.blocks] }, clientId(0), context);
      expect(doubled.sets).toBe(2 * one.sets);
      expect(doubled.reps).toBe(2 * one.reps);
      expect(doubled.floorTrips).toBeGreaterThanOrEqual(one.floorTrips);
    }),
    OPTIONS,
  );
  const each = movement('row', { sides: 'each', position: 'prone' });
  expect(
    coverageOf(
      { blocks: [block('strength', lane('row'), lane('squat'), lane('row'))] },
      clientId(0),
      known(each, movement('squat')),
    ),
  ).toMatchObject({
    reps: 2 * 20 + 20 + 2 * 20,
    floorTrips: 2,
    sets: 6,
  });
});

describe('the best order of a plan', () => {
  test('keeps every item, every lock and the blocks, never costs more, and says what it saves', () => {
    fc.assert(
      fc.property(world, ({ plan, context }) => {
        const ordered = orderPlan(plan, context);
        expect(ordered.blocks.map(({ id }) => id)).toEqual(plan.blocks.map(({ id }) => id));
        plan.blocks.forEach((old, b) => {
          const items = ordered.blocks[b]?.items ?? [];
          expect(new Set(items)).toEqual(new Set(old.items));
          old.items.forEach((item, i) => item.locked && expect(items[i]).toBe(item));
          const before = ordered.blocks[b - 1]?.items.at(-1)?.lanes ?? [];
          const problem = orderProblem(old, before, context);
          const order = items.map((item) => old.items.indexOf(item));
          expect(orderCost(problem, order)).toBeLessThanOrEqual(orderCost(problem, [...old.items.keys()]));
        });
        const seconds =
          totalsOfPlan(plan, context).seconds - totalsOfPlan({ ...plan, blocks: ordered.blocks }, context).seconds;
        expect(ordered.saved.seconds).toBe(seconds);
        expect(orderPlan({ ...plan, blocks: ordered.blocks }, context).moved).toBe(false);
      }),
      OPTIONS,
    );
  });

  test('puts equal weights together and goes down to the floor once', () => {
    const kit = [{ needs: [{ item: 'dumbbell' as const, count: 1 }] }];
    const find = known(
      movement('press', { kit, muscles: { prime: ['chest'], assist: [] } }),
      movement('curl', { kit, muscles: { prime: ['biceps'], assist: [] } }),
      movement('bridge', { kit, position: 'supine', muscles: { prime: ['glutes'], assist: [] } }),
      movement('bug', { kit, position: 'supine', muscles: { prime: ['abs'], assist: [] } }),
    );
    const [four, eight] = loadsFor(kit, KIT).filter(({ changeSeconds }) => changeSeconds === 0);
    const mixed = planWith([
      block(
        'strength',
        lane('press', { load: four ?? null }),
        lane('bridge', { load: eight ?? null }),
        lane('curl', { load: four ?? null }),
        lane('bug', { load: eight ?? null }),
      ),
    ]);
    const ordered = orderPlan(mixed, find);
    expect(ordered.saved).toEqual({ weightChanges: 2, floorTrips: 1, seconds: 44 });
  });
});

test('in a circuit what is done with one weight stays together; in straight sets the same muscles rest between', () => {
  const movements = ['a', 'b', 'c', 'd'].map((id, i) =>
    movement(id, {
      kit: [{ needs: [{ item: 'dumbbell', count: 1 }] }],
      muscles: { prime: [i % 2 === 0 ? 'quads' : 'lats'], assist: [] },
    }),
  );
  const context = known(...movements);
  const [four, eight] = loadsFor(movements[0]?.kit ?? [], KIT).filter(({ changeSeconds }) => changeSeconds === 0);
  // The quads with one weight, the lats with another.
  const mixed = (kind: Block['kind']) =>
    planWith([
      {
        ...block(
          kind,
          lane('a', { load: four ?? null }),
          lane('b', { load: eight ?? null }),
          lane('c', { load: four ?? null }),
          lane('d', { load: eight ?? null }),
        ),
        rounds: 3,
      },
    ]);
  const order = (kind: Block['kind']) =>
    orderPlan(mixed(kind), context).blocks.flatMap(({ items }) => items.map(({ lanes }) => lanes[0]?.load?.label));
  const changes = (labels: readonly unknown[]) => labels.filter((label, i) => i > 0 && label !== labels[i - 1]).length;
  expect(changes(order('circuit'))).toBe(1);
  expect(changes(order('strength'))).toBe(3);
});

describe('warnings', () => {
  const warned = fc.record({ drawn: world, held: limits });
  const contextFor = (
    plan: Plan,
    movements: readonly MovementSummary[],
    context: PlanContext,
    held: Parameters<typeof opennessFor>[1],
  ): WarnContext => ({
    ...context,
    clients: plan.clientIds.map((id, i) => ({
      id,
      name: `Client ${i}`,
      sets: {},
      standing: standing({ limits: held }),
    })),
    ladder: buildLadder(movements),
    movements,
    kit: KIT,
    newId: counting(),
    instead: () => movements.find(({ demands }) => opennessFor(demands, held) === 'open'),
  });

  test('name every closed movement, and each fix leaves a lawful plan in which that matter is gone', () => {
    fc.assert(
      fc.property(warned, ({ drawn: { plan, movements, context }, held }) => {
        const around = contextFor(plan, movements, context, held);
        const warnings = warningsOf(plan, around);
        for (const { items } of plan.blocks)
          for (const item of items)
            for (const one of item.lanes) {
              const closed = [one.movementId, one.withId].some(
                (id) => id && opennessFor(context.find(id)?.demands ?? {}, held) === 'closed',
              );
              expect(warnings.some(({ id }) => id === `limit ${item.id} ${one.clientId}`)).toBe(closed);
            }
        for (const warning of warnings)
          for (const { blocks } of warning.fixes) {
            const mended = { ...plan, blocks };
            expect(checkPlan(mended)).toEqual(expect.objectContaining({ ok: true }));
            const left = warningsOf(mended, around).map(({ id }) => id);
            if (/^(limit|load|stretch|warm-up overhead|push-pull)/.test(warning.id))
              expect(left).not.toContain(warning.id);
            expect(left.filter((id) => id.startsWith('limit')).length).toBeLessThanOrEqual(
              warnings.filter(({ id }) => id.startsWith('limit')).length,
            );
          }
      }),
      { ...OPTIONS, numRuns: 60 },
    );
  });

  test('much pushing and little pulling comes with pulling to add, for whom it is missing', () => {
    const movements = [
      movement('press', { pattern: 'push' }),
      movement('row', { pattern: 'pull', muscles: { prime: ['lats'], assist: [] } }),
      // A curl is a pull by name, and no answer to a press.
      movement('arm-curl', { pattern: 'pull', level: 0, muscles: { prime: ['biceps'], assist: [] } }),
      movement('chin', { pattern: 'pull', level: 5 }),
    ];
    const context = {
      ...known(...movements),
      clients: [{ id: clientId(0), name: 'Ada', standing: standing(), sets: {} }],
      movements,
      ladder: NO_LADDER,
      kit: KIT,
      newId: counting(),
      instead: () => undefined,
    };
    const plan = planWith([block('strength', lane('press', { sets: 5 }))]);
    const warning = warningsOf(plan, context).find(({ id }) => id.startsWith('push-pull'));
    expect(warning?.fixes.map(({ does }) => does)).toEqual([
      { code: 'add', movementIds: ['row'] },
      { code: 'less-pushing', most: 2 },
    ]);
    const mended = { ...plan, blocks: warning?.fixes[0]?.blocks ?? [] };
    expect(warningsOf(mended, context).filter(({ id }) => id.startsWith('push-pull'))).toEqual([]);
    // More than one line of what is open to them can give: then only less pushing mends it.
    const far = planWith([block('strength', lane('press', { sets: 10 }))]);
    const left = warningsOf(far, context).find(({ id }) => id.startsWith('push-pull'))?.fixes ?? [];
    expect(left.map(({ does }) => does)).toEqual([{ code: 'less-pushing', most: 2 }]);
  });

  test('a plan that is too long is cut to its slot, a jump goes first, and a combination after its parts', () => {
    const jump = movement('jump', { demands: { impact: 3 }, role: 'power' });
    const context = {
      ...known(movement('squat'), jump),
      clients: [],
      movements: [],
      ladder: NO_LADDER,
      kit: KIT,
      newId,
      instead: () => undefined,
    };
    const long = planWith([block('strength', lane('squat', { sets: 6 }), lane('squat', { sets: 6 }))], 5);
    const over = warningsOf(long, context).find(({ id }) => id === 'over');
    expect(over?.wrong).toEqual({ code: 'over', seconds: 270, minutes: 5 });
    const cut = over?.fixes.find(({ does }) => does.code === 'take-off');
    expect(totalsOfPlan({ ...long, blocks: cut?.blocks ?? [] }, context).over).toBe(0);
    const late = planWith([block('strength', lane('squat'), lane('jump'))]);
    const tired = warningsOf(late, context).find(({ id }) => id.startsWith('fresh'));
    expect(tired?.fixes[0]?.blocks[0]?.items.map(({ lanes }) => lanes[0]?.movementId)).toEqual(['jump', 'squat']);
    const both = planWith([block('skill', lane('squat', { withId: 'jump' }), lane('squat'), lane('jump'))]);
    const early = warningsOf(both, context).find(({ id }) => id.startsWith('combination'));
    expect(early?.fixes[0]?.blocks[0]?.items.map(({ lanes }) => lanes[0]?.withId)).toEqual([null, null, 'jump']);
    expect(orderPlan(both, context).blocks[0]?.items.at(-1)?.lanes[0]?.withId).toBe('jump');
  });

  test('two people on one pair of eights, and a weight that cannot be made, get the nearest real ones', () => {
    const curl = movement('curl', { kit: [{ needs: [{ item: 'dumbbell', count: 2 }] }] });
    const load = loadsFor(curl.kit, KIT).find(({ kg, changeSeconds }) => kg === 16 && changeSeconds === 0) ?? null;
    const plan = planWith([block('strength', lane('curl', { load }))]);
    plan.clientIds.push(clientId(1));
    plan.blocks[0]?.items[0]?.lanes.push(lane('curl', { load, clientId: clientId(1) }));
    const clients = [0, 1].map((i) => ({
      id: clientId(i),
      name: i === 0 ? 'Ada' : 'Bo',
      sets: {},
      standing: standing(),
    }));
    const context = {
      ...known(curl),
      clients,
      movements: [],
      ladder: NO_LADDER,
      kit: KIT,
      newId,
      instead: () => undefined,
    };
    expect(shortagesOf(plan.blocks[0]?.items[0]?.lanes ?? [], KIT, context)).toMatchObject([{ wanted: 4, there: 2 }]);
    const [short] = warningsOf(plan, context);
    const both = [clientId(0), clientId(1)];
    expect(short?.wrong).toEqual({ code: 'short', clientIds: both, what: '2 × 8 kg', wanted: 4, there: 2 });
    for (const { blocks } of short?.fixes ?? [])
      expect(warningsOf({ ...plan, blocks }, context).map(({ id }) => id)).not.toContain(short?.id);
    expect(short?.fixes[0]?.does).toMatchObject({ code: 'load', to: '2 × 7 kg', clientId: clientId(1) });
    const gone = planWith([block('strength', lane('curl', { load: load && { ...load, kg: 18, label: '2 × 9 kg' } }))]);
    expect(warningsOf(gone, context)[0]?.fixes.map(({ does }) => does)).toMatchObject([
      { code: 'load', to: '2 × 8 kg' },
      { code: 'load', to: '2 × 10 kg' },
    ]);
  });
});

describe('a suggested session', () => {
  const asked = plannable(40).chain((movements) =>
    fc.record({
      movements: fc.constant(movements),
      clients: fc
        .integer({ min: 1, max: 3 })
        .chain((n) => fc.tuple(...Array.from({ length: n }, (_, i) => suggestClient(i, movements)))),
      minutes: fc.constantFrom(15, 30, 60),
      without: fc.subarray([...PATTERNS], { maxLength: 2 }),
    }),
  );

  test('bends no limit, brings back nothing that hurt, fits its slot, gives real weights, and says why', () => {
    fc.assert(
      fc.property(asked, ({ movements, clients, minutes, without }) => {
        const context = contextOf(movements);
        const request = {
          minutes,
          purpose: 'strength',
          clients,
          movements,
          kit: KIT,
          space: 'lane',
          wanted: [],
          without,
          blocks: [],
          notThese: [],
          now: NOW,
          newId: counting(),
        } as const;
        const { blocks, seconds } = suggestSession(request);
        const used = new Set<string>();
        for (const one of blocks.flatMap(({ items }) => items.flatMap(({ lanes }) => lanes))) {
          const client = clients.find(({ id }) => id === one.clientId);
          const chosen = context.find(one.movementId);
          expect(opennessFor(chosen?.demands ?? {}, client?.standing.limits ?? [])).not.toBe('closed');
          expect(client?.standing.hurtBefore).not.toContain(one.movementId);
          if (chosen && chosen.role === 'strength') expect(without).not.toContain(chosen.pattern);
          if (one.load) expect(loadsFor(chosen?.kit ?? [], KIT)).toContainEqual(one.load);
          // What eases off has one reason, everything else how it was picked as well.
          expect(one.why.length).toBeGreaterThan(one.why[0]?.code === 'picked' ? 1 : 0);
          expect(used.has(`${one.clientId} ${one.movementId}`)).toBe(false);
          used.add(`${one.clientId} ${one.movementId}`);
        }
        expect(seconds).toBeLessThanOrEqual(minutes * 60);
        expect(checkPlan({ ...planWith(blocks, minutes), clientIds: clients.map(({ id }) => id) }).ok).toBe(true);
        // What was locked stays, whatever else is chosen.
        const locked = blocks.map((one) => ({
          ...one,
          items: one.items.map((item, i) => ({ ...item, locked: i === 0 })),
        }));
        const again = suggestSession({
          ...request,
          blocks: locked,
          notThese: [...used].map((key) => key.split(' ')[1] ?? ''),
        });
        const kept = again.blocks.flatMap(({ items }) => items);
        for (const { items } of locked) if (items[0]) expect(kept).toContainEqual(items[0]);
      }),
      { ...OPTIONS, numRuns: 40 },
    );
  });

  test('says of a line that there is more of it for how somebody spends the day, and of no other', () => {
    const all = (['pull', 'push', 'hinge', 'squat', 'brace'] as const).map((pattern) => movement(pattern, { pattern }));
    const suggested = (day: 'sits' | 'lifts' | null) =>
      suggestFor(60, all, {}, [], day).blocks.flatMap(({ items }) => items.flatMap(({ lanes }) => lanes));
    const told = (day: 'sits' | 'lifts' | null) =>
      suggested(day).flatMap(({ movementId, why }) => (why.some(({ code }) => code === 'for-day') ? movementId : []));
    expect(told('sits').toSorted()).toEqual(expect.arrayContaining(['hinge', 'pull']));
    expect(told('sits')).not.toContain('push');
    expect(told('lifts')).not.toContain('pull');
    expect(told(null)).toEqual([]);
  });

  test('says which pattern a limit closes', () => {
    const squat = movement('squat', { demands: { 'deep-knee-bend': 2 } });
    const client = {
      id: clientId(0),
      name: 'Ada',
      standing: standing({ limits: [{ demand: 'deep-knee-bend', allowed: 0, reason: 'knee' }] }),
      sets: {},
    };
    const { reasons } = suggestSession({
      minutes: 20,
      purpose: 'strength',
      clients: [client],
      movements: [squat],
      kit: [],
      space: 'mat',
      wanted: ['squat'],
      without: [],
      blocks: [],
      notThese: [],
      now: NOW,
      newId,
    });
    expect(reasons).toContainEqual({
      code: 'left-out',
      clientId: clientId(0),
      pattern: 'squat',
      by: [expect.objectContaining({ code: 'limit', demand: 'deep-knee-bend', reason: 'knee' })],
    });
  });
});

test('the last visit carried forward goes up where its sign is met, holds on a bad day, and drops what is closed', () => {
  const up = movement('front', { level: 1, families: ['squat'], demands: { impact: 1 } });
  const squat = movement('squat', {
    links: [
      {
        to: 'front',
        direction: 'harder',
        lever: 'load',
        readyWhen: { reps: 10, sets: 1, clean: true, effortAtMost: 'medium', sessions: 1 },
      },
    ],
  });
  const sets = {
    squat: [
      { at: '2030-02-25T10:10:00.000Z', sets: [{ amount: 12, effort: 'medium' as const, clean: true, kg: null }] },
    ],
    row: [{ at: '2030-02-25T10:00:00.000Z', sets: [{ amount: 9, effort: 'easy' as const, clean: true, kg: null }] }],
    old: [{ at: '2030-02-01T10:00:00.000Z', sets: [] }],
  };
  expect(lastVisit(sets)).toEqual(['row', 'squat']);
  const client = { id: clientId(0), name: 'Ada', standing: standing(), sets };
  const next = (change: Partial<SuggestClient> = {}) =>
    carryForward({
      clients: [{ ...client, ...change }],
      movements: [squat, up, movement('row', { families: ['row'] })],
      kit: [],
      purpose: 'strength',
      newId,
    }).blocks[0]?.items.map(({ lanes }) => [lanes[0]?.movementId, lanes[0]?.amount]);
  expect(next()).toEqual([
    ['row', 11],
    ['front', 8],
  ]);
  expect(next({ standing: standing({ ease: POOR_SLEEP }) })).toEqual([
    ['row', 9],
    ['squat', 12],
  ]);
  expect(next({ standing: standing({ limits: [{ demand: 'impact', allowed: 0, reason: 'knee' }] }) })?.[1]?.[0]).toBe(
    'squat',
  );
  // Swapped on the floor: the rung that was gone to is the one to go on with, until it is left again.
  const swap = (from: string, to: string, at: string) => ({ from, to, why: 'wobbly', at });
  const left = swap('squat', 'row', '2030-02-25T10:00:00.000Z');
  expect(next({ moves: [left] })?.map(([id]) => id)).toEqual(['row']);
  expect(next({ moves: [left, swap('row', 'squat', '2030-02-25T10:10:00.000Z')] })?.map(([id]) => id)).toEqual([
    'front',
  ]);
  expect(next({ moves: [swap('squat', 'elsewhere', '2030-02-25T10:00:00.000Z')] })).toEqual(next());
  // Too hard last time, with nothing lighter to take: a rung down.
  const failed = {
    front: [
      { at: '2030-02-25T10:00:00.000Z', sets: [{ amount: 2, effort: 'failed' as const, clean: true, kg: null }] },
    ],
  };
  expect(next({ sets: failed })).toEqual([['squat', 8]]);
});

/** A suggestion for one client of whom nothing is known but what they did. */
const lanesIn = (blocks: readonly Block[]) => blocks.flatMap(({ items }) => items.flatMap(({ lanes }) => lanes));

const suggestFor = (
  minutes: number,
  movements: readonly MovementSummary[],
  sets: SuggestClient['sets'] = {},
  moves: SuggestClient['moves'] = [],
  day: DayKind | null = null,
) =>
  suggestSession({
    minutes,
    purpose: 'strength',
    clients: [{ id: clientId(0), name: 'Ada', standing: standing(), sets, moves, day }],
    movements,
    kit: KIT,
    space: 'lane',
    wanted: [],
    without: [],
    blocks: [],
    notThese: [],
    now: NOW,
    newId: counting(),
  });

test('what lags behind its counterpart for weeks is asked for first, also in a short session, and says by how much', () => {
  const patterns = ['squat', 'hinge', 'push', 'pull'] as const;
  const movements = patterns.map((pattern) => movement(pattern, { pattern }));
  const find = (id: string) => movements.find((one) => one.id === id);
  const day = (ago: number) => new Date(Date.parse(NOW) - ago * 86_400_000).toISOString();
  const set = { amount: 10, effort: 'medium' as const, clean: true, kg: null };
  const month = (sets: number) =>
    [3, 10, 17].map((ago) => ({ at: day(ago), sets: Array.from({ length: sets }, () => set) }));
  const sets = { squat: month(3), hinge: month(3), push: month(6), pull: [{ at: day(3), sets: [set] }] };
  const of = (done: Record<string, PastSession[]>, dayMostly: DayKind | null = null) =>
    balanceOf({ people: [{ sets: done, day: dayMostly }], aim: 'strength', find, now: NOW });
  const pull = (balance: Balance) => balance.patterns.find((part) => part.of === 'pull');
  expect(pull(of(sets))).toMatchObject({ sets: 1, short: true });
  expect(pull(of(sets))?.wanted).toBeCloseTo(0.18 * 37);
  // Who sits all day wants more of it.
  expect(pull(of(sets, 'sits'))?.wanted).toBeGreaterThan(pull(of(sets))?.wanted ?? Infinity);
  const { reasons, blocks } = suggestFor(20, movements, sets);
  expect(
    blocks.flatMap(({ items }) => items.flatMap(({ lanes }) => lanes.map(({ movementId }) => movementId))),
  ).toContain('pull');
  expect(reasons).toContainEqual({ code: 'short', pattern: 'pull', sets: 1, wanted: 7 });
  // What was done long ago, or hardly, makes nothing short.
  const seven = Array.from({ length: 7 }, () => set);
  for (const [ago, some] of [
    [40, [...seven, ...seven]],
    [4, seven],
  ] as const)
    expect(of({ push: [{ at: day(ago), sets: some }] }).patterns.filter(({ short }) => short)).toEqual([]);
});

test('the shares of a balance make a whole, whatever the aim and the day, and what was done as wanted is short of nothing', () => {
  for (const aim of PURPOSES)
    for (const dayMostly of [null, ...DAY_KINDS]) {
      const shares = sharesFor(aim, dayMostly);
      expect([...shares.values()].reduce((sum, share) => sum + share, 0)).toBeCloseTo(1);
      const movements = BALANCED.map((pattern) => movement(pattern, { pattern, planes: ['sagittal'] }));
      const done = { amount: 8, effort: 'medium' as const, clean: true };
      const sets = Object.fromEntries(
        BALANCED.map((pattern): [string, PastSession[]] => [
          pattern,
          [{ at: NOW, sets: Array.from({ length: Math.round(100 * (shares.get(pattern) ?? 0)) }, () => done) }],
        ]),
      );
      const find = (id: string) => movements.find((one) => one.id === id);
      const { patterns } = balanceOf({ people: [{ sets, day: dayMostly }], aim, find, now: NOW });
      expect(patterns.filter(({ short }) => short)).toEqual([]);
    }
});

test('every warning of balance has a fix that mends it', () => {
  fc.assert(
    fc.property(world, ({ movements, plan, context: bare }) => {
      const context: WarnContext = {
        ...bare,
        clients: plan.clientIds.map((id) => ({ id, name: id, standing: standing(), sets: {} })),
        movements,
        kit: KIT,
        newId: counting(),
        ladder: buildLadder(movements),
        instead: () => undefined,
      };
      for (const { id, fixes } of warningsOf(plan, context).filter((one) => one.id.startsWith('push-pull'))) {
        expect(fixes).not.toEqual([]);
        for (const { blocks } of fixes)
          expect(warningsOf({ ...plan, blocks }, context).map((one) => one.id)).not.toContain(id);
      }
    }),
    OPTIONS,
  );
});

test('what was left for the next time is carried forward after what was done, and named', () => {
  const movements = ['squat', 'row'].map((id) => movement(id));
  const done = [{ at: NOW, sets: [{ amount: 10, effort: 'medium' as const, clean: true }] }];
  const client = { id: clientId(0), name: 'Ada', standing: standing(), sets: { squat: done }, left: ['row', 'squat'] };
  const { blocks } = carryForward({ clients: [client], movements, kit: KIT, purpose: 'strength', newId: counting() });
  const lanes = blocks.flatMap(({ items }) => items.flatMap((item) => item.lanes));
  expect(lanes.map(({ movementId }) => movementId)).toEqual(['squat', 'row']);
  expect(lanes[1]?.why[0]).toEqual({ code: 'kept-from-last-time' });
  expect(lanes[0]?.why[0]?.code).not.toBe('kept-from-last-time');
});

test('one and two of the same weight are one thing in the hands; another handle still has to be set', () => {
  const load = (count: number, each: number, changeSeconds = 0): Load => ({
    item: 'dumbbell',
    count,
    kg: count * each,
    label: `${count} × ${each} kg`,
    changeSeconds,
  });
  expect(loadSeconds(load(1, 12), load(2, 12))).toBe(0);
  expect(loadSeconds(load(2, 12), load(1, 12))).toBe(0);
  expect(loadSeconds(load(1, 12), load(1, 10))).toBeGreaterThan(0);
  // A pair of sixes is not a twelve.
  expect(loadSeconds(load(2, 6), load(1, 12))).toBeGreaterThan(0);
  expect(loadSeconds(load(2, 12, 30), load(1, 12, 30))).toBe(0);
  expect(loadSeconds(load(1, 12, 30), load(2, 12, 30))).toBe(30);
  expect(loadSeconds({ ...load(1, 12), item: 'bell' }, load(1, 12))).toBeGreaterThan(0);
});

test('rests get shorter before a line is left out, and never below two thirds of the usual', () => {
  const window = { low: 8, high: 12, sets: [2, 4] as [number, number], rest: 240 };
  const movements = (['squat', 'push', 'pull', 'hinge'] as const).map((pattern) =>
    movement(pattern, { pattern, dose: { mode: 'reps', tempo: '2-0-2-0', windows: { strength: window } } }),
  );
  const ask = (minutes: number) => suggestFor(minutes, movements);
  const [lines, rests] = [
    (minutes: number) => ask(minutes).blocks.flatMap(({ items }) => items),
    (minutes: number) => lines(minutes).flatMap(({ lanes }) => lanes.map(({ rest }) => rest)),
  ];
  const tight = Array.from({ length: 30 }, (_, i) => 15 + i).filter((minutes) =>
    ask(minutes).reasons.some(({ code }) => code === 'shorter-rests'),
  );
  expect(tight.length).toBeGreaterThan(0);
  for (const minutes of tight) {
    expect(ask(minutes).seconds).toBeLessThanOrEqual(minutes * 60);
    expect(Math.min(...rests(minutes))).toBeGreaterThanOrEqual(160);
    // Whoever lost a line had no rest left to give.
    if (ask(minutes).reasons.some(({ code }) => code === 'fewer-lines'))
      for (const rest of rests(minutes)) expect(rest).toBe(160);
  }
});

test('what asks for a spotter is done no heavier than last time; elsewhere the next weight is taken', () => {
  const sets = [{ amount: 18, effort: 'easy' as const, clean: true, kg: 16 }];
  const dose = (change: Partial<MovementSummary>, over: Parameters<typeof standing>[0] = {}) =>
    laneFor({
      clientId: clientId(0),
      standing: standing(over),
      movement: movement('press', { kit: [{ needs: [{ item: 'dumbbell', count: 2 }] }], ...change }),
      purpose: 'strength',
      sets: { press: [{ at: NOW, sets }] },
      kit: KIT,
      ladder: NO_LADDER,
      find: () => undefined,
    });
  expect(dose({})).toMatchObject({ step: { change: 'up' }, lane: { load: { kg: 20 }, amount: 8 } });
  const spotted = dose({ demands: { 'spotter-needed': 2 } });
  expect(spotted).toMatchObject({ step: { change: 'slower' }, lane: { load: { kg: 16 }, tempo: '3-0-1-0' } });
  // Somebody alone has nobody to take a weight off them.
  const alone = { limits: [{ demand: 'spotter-needed', allowed: 0, reason: 'trains alone' } as const] };
  const lying = { pattern: 'push' as const, demands: { 'lying-on-back': 1 } };
  expect(dose(lying).lane.load?.kg).toBeGreaterThan(16);
  expect(dose(lying, alone)).toMatchObject({ step: { change: 'slower' }, lane: { load: { kg: 16 } } });
  expect(spotted.lane.why).toMatchObject([{ code: 'no-spotter', kg: 16 }]);
});

describe('what is wanted at once', () => {
  /** A lane of somebody with one of the loads that the kit can make. */
  const wants = (who: number, load: Load | undefined) => lane('curl', { clientId: clientId(who), load: load ?? null });
  const curl = movement('curl', {
    kit: [{ needs: [{ item: 'dumbbell', count: 1 }] }, { needs: [{ item: 'dumbbell', count: 2 }] }],
  });
  const loads = loadsFor(curl.kit, KIT);
  const picked = fc.array(fc.nat(loads.length - 1), { minLength: 1, maxLength: 4 });

  test('is short exactly where hands for it are more than pieces, whatever weight a handle is set to', () => {
    fc.assert(
      fc.property(picked, (which) => {
        const lanes = which.map((n, who) => wants(who, loads[n]));
        // By what is in hand: how many of each fixed weight, and how many handles that can be set.
        const hands = new Map<string, number>();
        for (const n of which) {
          const load = loads[n] as Load;
          const piece = load.changeSeconds > 0 ? 'handles' : String((load.kg ?? 0) / load.count);
          hands.set(piece, (hands.get(piece) ?? 0) + load.count);
        }
        const short = [...hands].filter(([, count]) => count > 2).map(([, count]) => count);
        const found = shortagesOf(lanes, KIT, known(curl));
        expect(found.map(({ wanted }) => wanted).toSorted()).toEqual(short.toSorted());
        for (const { there } of found) expect(there).toBe(2);
      }),
      OPTIONS,
    );
  });

  test('a bag that is filled up is there once, whatever it is filled to', () => {
    const bags: KitPiece[] = [{ item: 'backpack', count: 1, kg: 8 }];
    const squat = movement('squat', { kit: [{ needs: [{ item: 'backpack', count: 1 }] }] });
    const filled = loadsFor(squat.kit, bags);
    expect(filled.length).toBeGreaterThan(5);
    for (const load of filled) {
      const both = [load, filled[0]].map((one, who) => wants(who, one));
      expect(shortagesOf(both.slice(0, 1), bags, known(squat))).toEqual([]);
      expect(shortagesOf(both, bags, known(squat))).toMatchObject([{ wanted: 2, there: 1 }]);
    }
  });

  test('a bench for two, and bands of one strength, are short as well', () => {
    const press = movement('press', { kit: [{ needs: [{ item: 'bench', count: 1 }] }] });
    const two = [0, 1].map((who) => lane('press', { clientId: clientId(who) }));
    expect(shortagesOf(two, KIT, known(press))).toMatchObject([{ what: 'bench', wanted: 2, there: 1 }]);
    const bands = ['green', 'blue'].map((label, i) => ({ item: 'band', count: 1, label, order: i + 1 }) as const);
    const pull = movement('pull', { kit: [{ needs: [{ item: 'band', count: 1 }] }] });
    const [green, blue] = loadsFor(pull.kit, bands);
    const both = (a: Load | undefined, b: Load | undefined) => [
      lane('pull', { load: a ?? null }),
      lane('pull', { load: b ?? null, clientId: clientId(1) }),
    ];
    expect(shortagesOf(both(green, blue), bands, known(pull))).toEqual([]);
    expect(shortagesOf(both(green, green), bands, known(pull))).toHaveLength(1);
  });
});

test('what hurt last time is named and never offered, and what carrying forward leaves out is told', () => {
  const press = movement('press', { pattern: 'push' });
  const row = movement('row', { pattern: 'pull', demands: { 'hard-grip': 2 } });
  const past = (at: string) => [{ at, sets: [{ amount: 8, effort: 'easy' as const, clean: true, kg: null }] }];
  const client: SuggestClient = {
    id: clientId(0),
    name: 'Ada',
    standing: standing({ limits: [{ demand: 'hard-grip', allowed: 0, reason: 'thumb' }], hurtBefore: ['press'] }),
    sets: { press: past('2030-02-25T10:00:00.000Z'), row: past('2030-02-25T10:10:00.000Z') },
  };
  const { blocks, leftOut } = carryForward({
    clients: [client],
    movements: [press, row],
    kit: [],
    purpose: 'strength',
    newId,
  });
  expect(blocks).toEqual([]);
  // What is kept says which limit, and not why somebody has it.
  const by = [[{ code: 'hurt-before' }], [{ code: 'limit', demand: 'hard-grip', asked: 2 }]];
  expect(leftOut).toMatchObject(
    ['press', 'row'].map((movementId, i) => ({
      clientId: client.id,
      movementId,
      why: [{ code: 'closed', by: by[i] }],
    })),
  );
  expect(leftOut[1]?.closedBy).toMatchObject([{ demand: 'hard-grip', reason: 'thumb' }]);
  expect(JSON.stringify(leftOut[1]?.why)).not.toContain('thumb');
  const around = {
    ...known(press, row),
    clients: [client],
    movements: [press, row],
    ladder: NO_LADDER,
    kit: KIT,
    newId,
    instead: () => undefined,
  };
  const plan = planWith([block('strength', lane('press'), lane('row'))]);
  const warnings = warningsOf(plan, around).filter(({ severity }) => severity === 'stop');
  expect(warnings.map(({ id }) => id.split(' ')[0])).toEqual(['limit', 'pain']);
  const left = warnings[1]?.fixes[0]?.blocks ?? [];
  expect(warningsOf({ ...plan, blocks: left }, around).map(({ id }) => id.split(' ')[0])).not.toContain('pain');
});

test('locked lines stay in the block they stand in, and new blocks come where they belong', () => {
  const stretch = movement('stretch', { role: 'stretch', pattern: 'mobilise' });
  const swing = movement('swing', { role: 'mobility', pattern: 'mobilise' });
  const squat = movement('squat');
  const locked = (kind: Block['kind'], rounds: number) => {
    const one = block(kind, lane('squat'));
    return { ...one, rounds, items: one.items.map((item) => ({ ...item, locked: true })) };
  };
  const given = [locked('superset', 2), locked('superset', 5), locked('finisher', 1)];
  const client: SuggestClient = { id: clientId(0), name: 'Ada', standing: standing(), sets: {} };
  const { blocks } = suggestSession({
    minutes: 120,
    purpose: 'strength',
    clients: [client],
    movements: [squat, swing, stretch],
    kit: [],
    space: 'lane',
    wanted: [],
    without: [],
    blocks: given,
    notThese: [],
    now: NOW,
    newId,
  });
  expect(blocks.map(({ kind, rounds }) => [kind, rounds])).toEqual([
    ['warm-up', 2],
    ['superset', 2],
    ['superset', 5],
    ['finisher', 1],
    ['stretch', 2],
  ]);
  for (const one of given) expect(blocks).toContainEqual(one);
});

test('a suggestion never warns of its own pushing: pulling comes in where it can, else pushing is cut', () => {
  const push = movement('push', { pattern: 'push', muscles: { prime: ['chest'], assist: [] } });
  const pull = movement('pull', { pattern: 'pull', muscles: { prime: ['lats'], assist: [] } });
  const rest = (['squat', 'hinge'] as const).map((pattern) => movement(pattern, { pattern }));
  const setsIn = (blocks: readonly Block[], id: string) =>
    lanesIn(blocks)
      .filter(({ movementId }) => movementId === id)
      .reduce((sum, { sets }) => sum + sets, 0);
  const whole = suggestFor(30, [...rest, push, pull]);
  expect(setsIn(whole.blocks, 'pull')).toBeGreaterThan(0);
  expect(setsIn(suggestFor(45, [...rest, push]).blocks, 'push')).toBe(2);
});

test('a carry comes last of what is otherwise equal', () => {
  const all = ['carry', 'squat', 'hinge'] as const;
  const movements = all.map((pattern) => movement(pattern, { pattern, muscles: { prime: [], assist: [] } }));
  const plan = planWith([block('strength', ...all.map((id) => lane(id)))]);
  const ordered = orderPlan(plan, known(...movements));
  expect(ordered.blocks[0]?.items.at(-1)?.lanes[0]?.movementId).toBe('carry');
  expect(ordered.better).toEqual(['tires']);
});

test('what was gone down from on the floor waits for its sign, and is then come back to', () => {
  const sign = { sets: 1, reps: 12, clean: true, effortAtMost: 'medium' as const, sessions: 1 };
  const high = movement('high', { families: ['f'], level: 2 });
  const low = movement('low', {
    families: ['f'],
    level: 1,
    links: [{ to: 'high', direction: 'harder', lever: 'load', readyWhen: sign }],
  });
  const session = (at: string, amount: number): PastSession => ({
    at,
    sets: [{ amount, effort: 'medium', clean: true, kg: null }],
  });
  const after = (amount: number) => {
    const sets = {
      high: [session('2030-02-20T10:00:00.000Z', 6)],
      low: [session('2030-02-20T10:20:00.000Z', amount)],
    };
    const moves = [{ from: 'high', to: 'low', why: 'too hard', at: '2030-02-20T10:15:00.000Z' }];
    return lanesIn(suggestFor(20, [low, high], sets, moves).blocks);
  };
  expect(after(9).map(({ movementId }) => movementId)).toEqual(['low']);
  expect(after(12).map(({ movementId }) => movementId)).toEqual(['high']);
});
