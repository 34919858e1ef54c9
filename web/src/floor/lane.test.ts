/** What the floor decides for one client, with the real starter library: nothing that is computed here may talk a trainer into harm. */
import { beforeAll, describe, expect, jest, test } from '@jest/globals';
import {
  BLANK_CLIENT,
  type Client,
  type ClientRecord,
  type MovementPage,
  type MovementSummary,
  type Studio,
} from '@waxwing/core/formats';
import { buildCatalog, SWAP_REASONS, type Catalog } from '@waxwing/core/ladder';
import { fitFor, REGIONS, type Limit, type Movement } from '@waxwing/core/movement';
import { emptyLane, fold, type Lane, type SessionEvent } from '@waxwing/core/session';
import { loadLibrary } from '@waxwing/library';
import fc from 'fast-check';
import { join } from 'node:path';
import { loadsFor } from '@waxwing/core/dosage';
import { emptyPlan, type PlanLane } from '@waxwing/core/planning';
import {
  adviceFor,
  cuesFor,
  doseFor,
  fitNow,
  likelihood,
  logSet,
  logTurns,
  nextOther,
  nextUp,
  proposalFor,
  sinceLastTime,
  swapTo,
  unanswered,
  viewOf,
  type LaneParts,
  type LaneView,
} from './lane';

const NOW = '2030-01-01T10:30:00.000Z';
const CLIENT: Client = { ...BLANK_CLIENT, id: '018f0000-0000-7000-8000-00000000c11e', version: 1, name: 'Osei' };
const STUDIO: Studio = {
  version: 1,
  name: '',
  trainer: '',
  kit: [
    { item: 'dumbbell', count: 2, kg: 8 },
    { item: 'bell', count: 1, kg: 12 },
    { item: 'chair', count: 2 },
    { item: 'step', count: 1 },
    { item: 'mat', count: 2 },
    { item: 'bench', count: 1 },
  ],
  houseRules: {},
  emergencyText: '',
  emergencyPhone: '',
  clients: 1,
  movements: 0,
};
const EMPTY: ClientRecord = { trials: [], sets: {}, faults: {}, hurt: [], moves: [], faultLoads: [] };

let library: Movement[];
let catalog: Catalog;
let summaries: MovementSummary[];
beforeAll(() => {
  library = loadLibrary(join(import.meta.dirname, '../../../library/movements'));
  catalog = buildCatalog(library);
  summaries = library.map((movement) => ({ ...movement, level: catalog.ladder.levels.get(movement.id) ?? 0 }));
});

const find = (id: string): Movement => {
  const movement = library.find((one) => one.id === id);
  if (!movement) throw new Error(`no ${id}`);
  return movement;
};

function pageOf(id: string): MovementPage {
  const rung = catalog.ladder.rungs.get(id) ?? { easier: [], harder: [], sideways: [] };
  const named = (steps: typeof rung.easier) => steps.map((step) => ({ ...step, name: find(step.to).name }));
  return {
    movement: find(id),
    version: 1,
    updatedAt: NOW,
    author: '',
    archivedAt: null,
    level: catalog.ladder.levels.get(id) ?? 0,
    easier: named(rung.easier),
    harder: named(rung.harder),
    sideways: named(rung.sideways),
  };
}

type What = [type: SessionEvent['type'], data: object];

interface Over {
  limits?: Limit[];
  client?: Partial<Client>;
  record?: ClientRecord;
  studio?: Studio;
}

const ENTRY = '018f0000-0000-7000-8000-000000000001';

/** A lane at one movement after some taps; `entry` in their data stands for the movement in hand, and `item` for its line. */
function viewAt(movementId: string, taps: What[] = [], { limits = [], client, record, studio }: Over = {}): LaneView {
  const id = (n: number) => `018f0000-0000-7000-8000-${n.toString(16).padStart(12, '0')}`;
  const movement = summaries.find((one) => one.id === movementId);
  if (!movement) throw new Error(`no ${movementId}`);
  const parts = (lane: Lane): LaneView =>
    viewOf({
      lane,
      client: { ...CLIENT, limits, ...client },
      record: record ?? EMPTY,
      studio: studio ?? STUDIO,
      rules: [],
      movements: summaries,
      catalog,
      programme: null,
      clock: null,
      pageOf,
      day: NOW.slice(0, 10),
      tap: jest.fn(),
    });
  const dose = doseFor(parts(emptyLane(CLIENT.id)), movement);
  const whole: What[] = [
    ['item-added', { itemId: id(0xa), afterId: null, lane: dose }],
    ['movement-started', { movementId, why: null, itemId: id(0xa) }],
    ...taps,
  ];
  const events = whole.map(([type, data], i) => ({
    id: id(i),
    sessionId: id(999),
    clientId: CLIENT.id,
    counter: i + 1,
    at: NOW,
    type,
    data: JSON.parse(
      JSON.stringify(data)
        .replaceAll('"entry"', `"${ENTRY}"`)
        .replaceAll('"item"', `"${id(0xa)}"`),
    ) as object,
  })) as SessionEvent[];
  const lane = fold(events, [CLIENT.id]).lanes[CLIENT.id];
  if (!lane) throw new Error('no lane');
  return parts(lane);
}

const seen = (faultId: string): What => ['fault-seen', { entryId: 'entry', faultId }];
const pain = (region: string, quality: string): What => ['pain-reported', { entryId: 'entry', region, quality }];
const set = (effort?: string): What[] => [
  ['set-done', { entryId: 'entry', side: 'both', amount: 12, kg: 8, loadLabel: '8 kg' }],
  ...(effort ? ([['effort-felt', { setId: '018f0000-0000-7000-8000-000000000002', effort }]] as What[]) : []),
];
/** Any movement that has a harder one. */
const climbable = () => library.filter(({ id }) => (catalog.ladder.rungs.get(id)?.harder.length ?? 0) > 0);

describe('going up', () => {
  test('is held back while a stop or fix fault of any movement is open, and names it; polish does not hold', () => {
    for (const movement of climbable())
      for (const fault of movement.faults) {
        const { held } = nextUp(viewAt(movement.id, [seen(fault.id)]));
        expect(held).toBe(fault.severity === 'polish' ? null : `first solve: ${fault.name.toLowerCase()}`);
      }
  });

  test('is held back after any pain and after a failed set', () => {
    for (const region of REGIONS)
      for (const quality of ['sharp', 'dull'])
        expect(nextUp(viewAt('goblet-squat', [pain(region, quality)])).held).toBe('not after pain today');
    expect(nextUp(viewAt('goblet-squat', set('failed'))).held).toBe('not after a failed set');
    expect(nextUp(viewAt('goblet-squat', set('hard'))).held).toBeNull();
  });

  test('is called ready when the record meets the sign, and not a session earlier', () => {
    const harder = nextUp(viewAt('bodyweight-squat')).best;
    const sign = pageOf('bodyweight-squat').harder.find(({ to }) => to === harder?.id)?.readyWhen;
    if (!sign) throw new Error('no sign to meet');
    const good = { amount: sign.reps ?? sign.seconds ?? 0, effort: 'easy' as const, clean: true };
    const after = (sessions: number) =>
      nextUp(
        viewAt('bodyweight-squat', [], {
          record: {
            ...EMPTY,
            sets: {
              'bodyweight-squat': Array.from({ length: sessions }, (_, i) => ({
                at: `2029-12-0${i + 1}`,
                sets: Array.from({ length: sign.sets }, () => good),
              })),
            },
          },
        }),
      ).ready;
    expect(after(sign.sessions - 1)).toBeNull();
    expect(after(sign.sessions)).toMatch(/^ready: /);
  });
});

describe('what is offered', () => {
  const limit = fc.record({
    demand: fc.constantFrom('deep-knee-bend', 'weight-on-wrist', 'impact', 'overhead', 'lying-on-back'),
    allowed: fc.integer({ min: 0, max: 2 }),
    reason: fc.constant('why'),
  }) as fc.Arbitrary<Limit>;

  test('no swap, for any movement, reason and pain, is closed for the client or comes back to what hurt', () => {
    fc.assert(
      fc.property(
        fc.nat(),
        fc.array(limit, { maxLength: 3 }),
        fc.option(fc.constantFrom(...REGIONS), { nil: null }),
        fc.constantFrom(...SWAP_REASONS),
        (n, limits, region, reason) => {
          const { id } = library[n % library.length] ?? { id: 'goblet-squat' };
          const view = viewAt(id, region ? [pain(region, 'sharp')] : [], { limits });
          for (const { id: offered } of view.swaps(reason, region ?? 'knee').ranked) {
            const summary = summaries.find((one) => one.id === offered);
            if (!summary) throw new Error(offered);
            expect(fitNow(view, summary).status).not.toBe('closed');
            expect(view.hurt).not.toContain(offered);
          }
        },
      ),
      { numRuns: 150 },
    );
  });

  test('a movement that hurt, one over a limit and one without kit are closed, each with its reason', () => {
    const summary = (id: string) => summaries.find((one) => one.id === id) as MovementSummary;
    const hurt = viewAt('goblet-squat', [pain('knee', 'sharp')]);
    expect(fitNow(hurt, summary('goblet-squat'))).toEqual({ status: 'closed', because: ['hurt today'] });
    const held = viewAt('wall-sit', [], { limits: [{ demand: 'weight-on-wrist', allowed: 0, reason: 'sore wrist' }] });
    expect(fitNow(held, summary('push-up')).because.join()).toContain('sore wrist');
    expect(fitNow(held, summary('barbell-back-squat'))).toEqual({ status: 'closed', because: ['kit is missing'] });
    expect(fitFor(summary('push-up').demands, []).status).not.toBe('closed');
  });

  test('a correction by touch only with consent on file, and a swap only to what is open', () => {
    const onlyTouch = find('goblet-squat').faults.map((fault) => ({
      ...fault,
      severity: 'fix' as const,
      corrections: [{ id: 'guide', kind: 'touch' as const, text: 'Guide it.', causes: [] }],
    }));
    const guided = (touchConsentOn: string | null) => {
      const view = viewAt('goblet-squat', [seen(onlyTouch[0]?.id ?? '')], { client: { touchConsentOn } });
      const page = { ...pageOf('goblet-squat'), movement: { ...find('goblet-squat'), faults: onlyTouch } };
      return adviceFor({ ...view, page }, NOW).kind;
    };
    expect([guided(null), guided('2029-12-01')]).toEqual(['leave', 'correct']);
    for (const movement of library)
      for (const fault of movement.faults) {
        const view = viewAt(movement.id, [seen(fault.id)]);
        const advice = adviceFor(view, NOW);
        if (advice.kind !== 'correct') continue;
        const offered = [advice.primary, advice.next].flatMap((one) => one?.correction ?? []);
        for (const { kind, swapTo } of offered) {
          expect(kind).not.toBe('touch');
          const target = summaries.find(({ id }) => id === swapTo);
          if (target) expect(fitNow(view, target).status).not.toBe('closed');
        }
      }
  });
});

describe('what to say', () => {
  test('with nothing seen is one cue a phase, in the order of the phases', () => {
    for (const { id } of library) {
      const view = viewAt(id);
      expect(adviceFor(view, NOW).kind).toBe('clear');
      // Without house rules: what belongs to a school is not said.
      const movement = view.page?.movement ?? find(id);
      const phases = cuesFor(view, NOW).map(({ cue }) => cue.phase);
      expect(phases).toEqual(movement.phases.filter((phase) => movement.cues.some((cue) => cue.phase === phase)));
    }
  });

  test('with a fault seen is an answer for every fault of the library, a stop for every stop', () => {
    for (const movement of library)
      for (const fault of movement.faults) {
        const advice = adviceFor(viewAt(movement.id, [seen(fault.id)]), NOW);
        // A polish fault whose lightest correction costs more than it is worth may be left; nothing else may.
        const kinds = { stop: ['stop'], fix: ['correct'], polish: ['correct', 'leave'] }[fault.severity];
        expect(kinds).toContain(advice.kind);
        if (advice.kind === 'stop') expect(advice.correction).not.toBeNull();
      }
  });

  test('with nothing in hand is nothing', () => {
    const view = { ...viewAt('wall-sit'), entry: undefined, page: undefined, movement: undefined };
    expect(adviceFor(view, NOW)).toEqual({ kind: 'clear' });
    expect(cuesFor(view, NOW)).toEqual([]);
    expect(nextUp({ ...view, swaps: () => ({ ranked: [], ruledOut: [] }) })).toEqual({
      best: undefined,
      held: null,
      ready: null,
    });
  });

  test('a fault that this client shows often is the likelier one', () => {
    const [often, never] = find('goblet-squat').faults.filter(({ severity }) => severity === 'fix');
    if (!often || !never) throw new Error('two faults are needed');
    const faults = {
      [`goblet-squat/${often.id}`]: { seen: 9, sets: 10 },
      [`goblet-squat/${never.id}`]: { seen: 0, sets: 10 },
    };
    const chance = likelihood(viewAt('goblet-squat', [], { record: { ...EMPTY, faults } }));
    expect(chance(often)).toBeGreaterThan(0.6);
    expect(chance(never)).toBeLessThan(0.2);
  });
});

/** Two lines for one client, and the recorder of what a tap says. */
function planned(taps: What[] = [], over: Partial<LaneParts> = {}) {
  const id = (n: number) => `018f0000-0000-7000-8000-${n.toString(16).padStart(12, '0')}`;
  const lane = (movementId: string, load: PlanLane['load'] = null): PlanLane => ({
    clientId: CLIENT.id,
    movementId,
    withId: null,
    sets: 2,
    amount: 8,
    tempo: '2-0-1-0',
    rest: 45,
    load,
    why: '',
  });
  const item = (n: number, one: PlanLane) => ({ id: id(n), locked: false, tied: false, lanes: [one] });
  const blocks = [
    {
      id: id(0xb),
      kind: 'circuit' as const,
      rounds: 2,
      workSeconds: null,
      items: [item(0xa, lane('split-squat')), item(0xc, lane('goblet-squat'))],
    },
  ];
  const events = taps.map(([type, data], i) => ({
    id: id(i + 1),
    sessionId: id(999),
    clientId: CLIENT.id,
    counter: i + 1,
    at: new Date(Date.parse(NOW) + i * 1000).toISOString(),
    type,
    data,
  })) as SessionEvent[];
  const said: What[] = [];
  const view = viewOf({
    lane: fold(events, [CLIENT.id]).lanes[CLIENT.id] ?? emptyLane(CLIENT.id),
    client: CLIENT,
    record: EMPTY,
    studio: STUDIO,
    rules: [],
    movements: summaries,
    catalog,
    programme: { planId: id(1), plan: { ...emptyPlan([CLIENT.id], 30), blocks }, rotations: {} },
    clock: null,
    pageOf,
    day: NOW.slice(0, 10),
    tap: (say) =>
      say((type, data) => {
        said.push([type, data]);
        return id(0xff);
      }),
    ...over,
  });
  return { view, said, id };
}

describe('a tap', () => {
  test('begins the stay at what is planned with the first thing that is recorded of it', () => {
    const { view, said, id } = planned();
    expect(view).toMatchObject({ movement: { id: 'split-squat' }, entry: undefined, step: { set: 1, of: 2 } });
    logSet(view, 8, null);
    expect(said).toEqual([
      ['movement-started', { movementId: 'split-squat', why: null, itemId: id(0xa) }],
      ['set-done', { entryId: id(0xff), side: 'left', amount: 8, kg: null, loadLabel: null }],
    ]);
  });

  test('that logs the second side goes to the other line, asks how both felt, and lets the rest begin', () => {
    const set = (side: string): What => [
      'set-done',
      { entryId: '018f0000-0000-7000-8000-000000000001', side, amount: 8, kg: null, loadLabel: null },
    ];
    const started: What = ['movement-started', { movementId: 'split-squat', why: null, itemId: planned().id(0xa) }];
    const half = planned([started, set('left')]).view;
    expect([half.movement?.id, unanswered(half), half.rest]).toEqual(['split-squat', null, null]);
    const whole = planned([started, set('left'), set('right')]).view;
    expect(whole.movement?.id).toBe('goblet-squat');
    expect(unanswered(whole)).toMatchObject({ name: 'Split squat', sets: [{ side: 'left' }, { side: 'right' }] });
    expect(whole.rest).toEqual({ from: new Date(Date.parse(NOW) + 2000).toISOString(), seconds: 45 });
    expect(nextOther(whole)?.lane.movementId).toBe('split-squat');
  });

  test('that swaps keeps the line, says why, and brings a dose of its own', () => {
    const { view, said, id } = planned();
    swapTo(view, 'bodyweight-squat', 'too hard');
    expect(said.map(([type]) => type)).toEqual(['movement-started', 'dose-changed']);
    expect(said[0]?.[1]).toEqual({ movementId: 'bodyweight-squat', why: 'too hard', itemId: id(0xa) });
    expect(said[1]?.[1]).toMatchObject({ itemId: id(0xa), load: null });
  });

  test('goes by the clock of a block: its turn says what is now, and who has none waits', () => {
    const at = (turn: number) => planned([], { clock: { blockId: planned().id(0xb), turn } }).view;
    expect(at(1).movement?.id).toBe('goblet-squat');
    expect(at(2)).toMatchObject({ movement: { id: 'split-squat' }, step: { set: 2 }, waits: false });
    expect(at(9)).toMatchObject({ movement: undefined, waits: true });
  });
});

test('turns that are over are logged with one stay for each line, both sides where each has its own, or the one that is missing', () => {
  const { view, said, id } = planned();
  logTurns(view, view.steps, 30);
  const starts = said.filter(([type]) => type === 'movement-started').map(([, data]) => data);
  expect(starts).toEqual([
    { movementId: 'split-squat', why: null, itemId: id(0xa) },
    { movementId: 'goblet-squat', why: null, itemId: id(0xc) },
  ]);
  const sides = (all: What[]) =>
    all.flatMap(([type, data]) => (type === 'set-done' ? [(data as { side: string; amount: number }).side] : []));
  expect(sides(said)).toEqual(['left', 'right', 'both', 'left', 'right', 'both']);
  const begun: What[] = [
    ['movement-started', { movementId: 'split-squat', why: null, itemId: id(0xa) }],
    ['set-done', { entryId: id(1), side: 'left', amount: 8, kg: null, loadLabel: null }],
  ];
  const half = planned(begun);
  logTurns(half.view, half.view.steps.slice(0, 1), 30);
  expect(sides(half.said)).toEqual(['right']);
  expect(half.said.map(([type]) => type)).toEqual(['set-done']);
});

describe('the next dose', () => {
  test('never goes up over an open fault, after pain or on a day that asks for ease, for any movement', () => {
    fc.assert(
      fc.property(
        fc.nat(),
        fc.integer({ min: 1, max: 30 }),
        fc.constantFrom('easy', 'medium', 'hard', 'failed'),
        fc.constantFrom('fault', 'pain', 'ease', 'none'),
        fc.option(fc.integer({ min: 0, max: 8 }), { nil: undefined }),
        (n, amount, effort, trouble, left) => {
          const movement = library[n % library.length] ?? find('goblet-squat');
          const fault = movement.faults.find(({ severity }) => severity === 'fix');
          fc.pre(trouble !== 'fault' || fault !== undefined);
          const loads = loadsFor(movement.kit, STUDIO.kit);
          const load = loads[n % Math.max(1, loads.length)] ?? null;
          const sides = movement.sides === 'each' ? ['left', 'right'] : ['both'];
          const taps: What[] = [
            ...(trouble === 'fault' && fault ? [seen(fault.id)] : []),
            ...(trouble === 'pain' ? [pain('neck', 'dull')] : []),
          ];
          const from = taps.length + 2;
          const id = (k: number) => `018f0000-0000-7000-8000-${k.toString(16).padStart(12, '0')}`;
          sides.forEach((side) =>
            taps.push([
              'set-done',
              { entryId: 'entry', side, amount, kg: load?.kg ?? null, loadLabel: load?.label ?? null },
            ]),
          );
          sides.forEach((_, i) =>
            taps.push(['effort-felt', { setId: id(from + i), effort, ...(left === undefined ? {} : { left }) }]),
          );
          const readiness = { on: '2030-01-01', yes: ['heart' as const], clearedOn: null, clearedBy: '' };
          const view = viewAt(movement.id, taps, trouble === 'ease' ? { client: { readiness } } : {});
          const proposal = proposalFor(view);
          // Nothing is proposed when the line is done.
          if (!view.step) return;
          expect(proposal).not.toBeNull();
          if (!proposal) return;
          if (trouble !== 'none') expect(['hold', 'down', 'swap', 'stop']).toContain(proposal.kind);
          if (proposal.load) expect([...loads, load]).toContainEqual(proposal.load);
          if (proposal.kind === 'down' && load?.kg && proposal.load?.kg) expect(proposal.load.kg).toBeLessThan(load.kg);
          expect(proposal.why).not.toBe('');
        },
      ),
      { numRuns: 300 },
    );
  });

  test('once taken is the dose in hand, and is not proposed again', () => {
    const felt: What = ['effort-felt', { setId: '018f0000-0000-7000-8000-000000000002', effort: 'easy' }];
    const done: What = ['set-done', { entryId: 'entry', side: 'both', amount: 12, kg: null, loadLabel: null }];
    const proposal = proposalFor(viewAt('bodyweight-squat', [done, felt]));
    expect(proposal).toMatchObject({ changes: true });
    const taken: What = [
      'dose-changed',
      { itemId: 'item', amount: proposal?.amount, load: null, tempo: proposal?.tempo },
    ];
    const after = viewAt('bodyweight-squat', [done, felt, taken]);
    expect(after.step?.lane.amount).toBe(proposal?.amount);
    expect(proposalFor(after)).toMatchObject({ changes: false });
  });
});

test('what is new, or another rung than last time, is told; the same at the same weight is not', () => {
  const past = (id: string, kg: number | null) => ({
    ...EMPTY,
    sets: { [id]: [{ at: '2029-12-01', sets: [{ amount: 8, effort: 'medium' as const, clean: true, kg }] }] },
  });
  expect(sinceLastTime(viewAt('goblet-squat'))).toBe('new to this client');
  expect(sinceLastTime(viewAt('goblet-squat', [], { record: past('bodyweight-squat', null) }))).toBe(
    'last time bodyweight squat, now goblet squat',
  );
  const again = viewAt('bodyweight-squat', [], { record: past('bodyweight-squat', null) });
  expect(sinceLastTime(again)).toBeNull();
});
