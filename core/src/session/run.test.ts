import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';

import { type Block, emptyPlan, type PlanItem, rotationsOf, secondsOf, timelineOf } from '../planning/index.js';
import { CLIENT, itemAt, laneAt, lawfulEvents, SESSION, uuidAt } from '../test/generate.js';
import { contextOf, KIT, movement, plannable, planOver } from '../test/plans.js';
import {
  emptyLane,
  type EventOf,
  type EventType,
  fold,
  isPending,
  type Programme,
  type RunMovement,
  type RunStep,
  secondsLeft,
  type SessionEvent,
  shortened,
  stepNext,
  stepNow,
  stepsOf,
  trims,
} from './index.js';

const OTHER = uuidAt(0xc1);

const find = (id: string): RunMovement => ({
  id,
  name: id,
  sides: id.endsWith('1') ? 'each' : 'both',
  position: id.endsWith('2') ? 'supine' : 'standing',
  dose: { mode: 'reps', tempo: '2-0-1-0', windows: {} },
});

/** Everything was done before. */
const TIME = { find, knows: () => true };

const item = (n: number, clients = [CLIENT]): PlanItem => ({
  id: itemAt(n),
  locked: false,
  tied: false,
  lanes: clients.map((clientId) => ({ ...laneAt(n), clientId })),
});

const block = (kind: Block['kind'], ...items: PlanItem[]): Block => ({
  id: uuidAt(0xb00 + items.length),
  kind,
  rounds: 2,
  workSeconds: null,
  items,
});

const programme = (blocks: Block[], rotations: Programme['rotations'] = {}): Programme => ({
  planId: uuidAt(1),
  plan: { ...emptyPlan([CLIENT, OTHER], 60), blocks },
  rotations,
});

const TWO = programme([block('strength', item(0), item(1)), block('circuit', item(2), item(3))]);

/** A session that is written by hand, one event after the other. */
function session() {
  const events: SessionEvent[] = [];
  const record = <T extends EventType>(type: T, data: EventOf<T>['data'], clientId = CLIENT): string => {
    const n = events.length + 1;
    const at = new Date(Date.UTC(2030, 0, 1, 10, 0, n)).toISOString();
    const envelope = { id: uuidAt(0xe000 + n), sessionId: SESSION, clientId, counter: n, at };
    events.push({ ...envelope, type, data } as SessionEvent);
    return envelope.id;
  };
  const lane = (clientId = CLIENT) => {
    const found = fold(events, [CLIENT, OTHER]).lanes[clientId];
    if (!found) throw new Error('no lane');
    return found;
  };
  const steps = (of: Programme | null = TWO) => stepsOf(of, lane(), find);
  /** Does the set that is next, both sides of it. */
  const doNow = (of: Programme | null = TWO) => {
    const now = stepNow(steps(of));
    if (!now) throw new Error('nothing is left');
    const { movementId } = now.lane;
    const entryId = record('movement-started', { movementId, why: null, itemId: now.itemId });
    for (const side of find(movementId).sides === 'each' ? (['left', 'right'] as const) : (['both'] as const))
      record('set-done', { entryId, side, amount: 8, kg: null, loadLabel: null });
    return now;
  };
  return { record, lane, steps, doNow };
}

const words = (steps: readonly RunStep[]) => steps.map(({ itemId, set }) => `${parseInt(itemId.slice(-1), 16)}.${set}`);

describe('the run of a session', () => {
  test('sets of a line follow one another, and items of a circuit take turns', () => {
    const { steps } = session();
    expect(words(steps())).toEqual(['0.1', '1.1', '1.2', '2.1', '3.1', '2.2', '3.2']);
    expect(stepNow(steps())).toMatchObject({ itemId: itemAt(0), set: 1 });
    expect(stepNext(steps())).toMatchObject({ itemId: itemAt(1), set: 1 });
  });

  test('whatever happened, there is one now while anything is left, and doing what is now comes to an end', () => {
    fc.assert(
      fc.property(lawfulEvents(40), (events) => {
        const all = [...events];
        const run = () => {
          const lane = fold(all, [CLIENT]).lanes[CLIENT];
          if (!lane) throw new Error('no lane');
          return stepsOf(TWO, lane, find);
        };
        for (let turns = 0; turns < 60; turns += 1) {
          const steps = run();
          const of = (state: string) => steps.filter((step) => step.state === state).length;
          const left = steps.filter(isPending).length;
          expect([of('now'), of('next')]).toEqual([Math.min(1, left), Math.min(1, Math.max(0, left - 1))]);
          const now = stepNow(steps);
          if (!now) return;
          const counter = Math.max(0, ...all.map((event) => event.counter)) + 1;
          const envelope = (n: number) => ({
            id: uuidAt(0xf0000 + all.length),
            sessionId: SESSION,
            clientId: CLIENT,
            counter: counter + n,
            at: '2030-01-01T11:00:00.000Z',
          });
          const { movementId } = now.lane;
          const started: SessionEvent = {
            ...envelope(0),
            type: 'movement-started',
            data: { movementId, why: null, itemId: now.itemId },
          };
          all.push(started);
          for (const side of find(movementId).sides === 'each' ? (['left', 'right'] as const) : (['both'] as const)) {
            const data = { entryId: started.id, side, amount: 8, kg: null, loadLabel: null };
            all.push({ ...envelope(all.length), type: 'set-done', data });
          }
          expect(run().filter(isPending)).toHaveLength(left - 1);
        }
        throw new Error('it never ends');
      }),
      { numRuns: 60 },
    );
  });

  test('left out, dropped, put in, done once more, and gone to: each changes only what it says', () => {
    const { record, steps, doNow } = session();
    record('step-skipped', { itemId: itemAt(1), set: 1 });
    record('item-dropped', { itemId: itemAt(3) });
    expect(words(steps())).toEqual(['0.1', '1.1', '1.2', '2.1', '2.2']);
    expect(steps().map(({ state }) => state)).toEqual(['now', 'skipped', 'next', 'later', 'later']);
    record('item-added', { itemId: itemAt(9), afterId: itemAt(1), lane: laneAt(4) });
    expect(words(steps())).toEqual(['0.1', '1.1', '1.2', '9.1', '9.2', '2.1', '2.2']);
    record('sets-changed', { itemId: itemAt(0), sets: 2 });
    record('gone-to', { itemId: itemAt(9), set: 1 });
    expect(doNow().itemId).toBe(itemAt(9));
    // Its other set comes before what was jumped over.
    expect(stepNow(steps())).toMatchObject({ itemId: itemAt(9), set: 2 });
    doNow();
    expect(stepNow(steps())).toMatchObject({ itemId: itemAt(0), set: 1 });
    expect(steps().filter(({ itemId }) => itemId === itemAt(0))).toHaveLength(2);
  });

  test('a swap keeps its place and its sets, and takes its own load; a changed dose holds for what is to come', () => {
    const { record, steps, doNow } = session();
    const load = { item: 'bell' as const, count: 1, kg: 8, label: '8 kg bell', changeSeconds: 0 };
    record('dose-changed', { itemId: itemAt(1), amount: 5, load, tempo: '4-0-1-0' });
    doNow();
    record('movement-started', { movementId: 'movement-4', why: 'easier', itemId: itemAt(1) });
    expect(stepNow(steps())?.lane).toMatchObject({ movementId: 'movement-4', amount: 5, load, tempo: '4-0-1-0' });
    record('movement-started', { movementId: 'movement-2', why: 'easier', itemId: itemAt(2) });
    expect(steps().find(({ itemId }) => itemId === itemAt(2))?.lane).toMatchObject({
      movementId: 'movement-2',
      amount: 8,
    });
  });

  test('at stations everybody goes round in turn, and nobody meets', () => {
    const people = [CLIENT, OTHER];
    const circuit = block('circuit', item(0, people), item(2, people), item(3, people));
    const stations = programme([circuit], {
      [circuit.id]: [
        [0, 1],
        [1, 2],
        [2, 0],
      ],
    });
    const { lane } = session();
    const runs = people.map((id) => stepsOf(stations, lane(id), find));
    expect(runs.map(words)).toEqual([
      ['0.1', '2.1', '3.1', '0.2', '2.2', '3.2'],
      ['2.1', '3.1', '0.1', '2.2', '3.2', '0.2'],
    ]);
    for (const step of runs[0] ?? [])
      expect(runs[1]?.find(({ turn }) => turn === step.turn)?.itemId).not.toBe(step.itemId);
  });

  test('a session from nothing has only what is put in', () => {
    const { record, steps, doNow } = session();
    expect(steps(null)).toEqual([]);
    record('item-added', { itemId: itemAt(5), afterId: null, lane: laneAt(0) });
    record('item-added', { itemId: itemAt(6), afterId: null, lane: laneAt(4) });
    expect(doNow(null)).toMatchObject({ itemId: itemAt(5), block: null });
    expect(stepNow(steps(null))).toMatchObject({ itemId: itemAt(6), set: 1 });
  });
});

describe('minutes that are left', () => {
  test('by hand: work, rests and changes of what is still to do, to the second', () => {
    const { steps, doNow } = session();
    // 0: 24. 1: each side 24, 5 to change, twice with 30 between. Down to the floor 12. 2: 24, up 12, 3: 24, and again.
    const all = 24 + 30 + 53 + 30 + 53 + 30 + 12 + 24 + 30 + 12 + 24 + 30 + 12 + 24 + 30 + 12 + 24;
    expect(secondsLeft([steps()], TIME)).toBe(all);
    doNow();
    expect(secondsLeft([steps()], TIME)).toBe(all - 24 - 30);
  });

  test('are those of the plan before anything is done, for everybody together, by the clock and at stations too', () => {
    const worlds = plannable(10).chain((movements) =>
      fc.record({ movements: fc.constant(movements), plan: planOver(movements, 3) }),
    );
    fc.assert(
      fc.property(worlds, fc.boolean(), ({ movements, plan }, short) => {
        // Enough of everything, or one of each piece: then a circuit is gone round as stations.
        const kit = KIT.map((piece) => ({ ...piece, count: short ? piece.count : 9 }));
        const context = { ...contextOf(movements), kit };
        const of: Programme = { planId: uuidAt(1), plan, rotations: rotationsOf(plan, kit, context) };
        const left = secondsLeft(
          plan.clientIds.map((id) => stepsOf(of, emptyLane(id), context.find)),
          context,
        );
        expect(left).toBe(secondsOf(timelineOf(plan, context)));
      }),
    );
  });

  test('what a trim says it saves is what is saved, and enough comes before too little', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(0, 1, 2, 3), { minLength: 1, maxLength: 4 }),
        fc.integer({ min: 1, max: 400 }),
        (ns, over) => {
          const kinds = ['strength', 'circuit'] as const;
          const blocks = [...new Set(ns)].map((n): Block => ({
            ...block(kinds[n % 2] ?? 'strength', item(n)),
            id: uuidAt(0xb00 + n),
            rounds: 3,
          }));
          const { record, steps } = session();
          const of = programme(blocks);
          const before = secondsLeft([steps(of)], TIME);
          const found = trims([steps(of)], over, TIME);
          const enough = found.map(({ saves }) => saves >= over);
          expect(enough).toEqual([...enough].sort((a, b) => Number(b) - Number(a)));
          const [first] = found;
          if (!first) return;
          for (const change of shortened(steps(of), first.itemIds)) record('sets-changed', change);
          expect(before - secondsLeft([steps(of)], TIME)).toBe(first.saves);
          expect(steps(of).filter(({ itemId }) => first.itemIds.includes(itemId)).length).toBeGreaterThan(0);
        },
      ),
    );
  });
});

describe('sets that are not all alike', () => {
  const bell = (kg: number) => ({ item: 'bell' as const, count: 1, kg, label: `${kg} kg`, changeSeconds: 0 });
  const one = (change: Partial<PlanItem['lanes'][number]>, n = 1): Programme =>
    programme([block('strength', { ...item(n), lanes: [{ ...laneAt(n), sets: 3, load: bell(12), ...change }] })]);
  const log = (
    { record }: ReturnType<typeof session>,
    movementId: string,
    side: 'left' | 'right' | 'both',
    amount: number,
  ): string => {
    const entryId = record('movement-started', { movementId, why: null, itemId: itemAt(1) });
    return record('set-done', { entryId, side, amount, kg: 12, loadLabel: '12 kg' });
  };

  test('a round of one side is done by that side alone, and one in turn by both together', () => {
    const sided = one({
      bySet: [
        { set: 1, side: 'left' },
        { set: 2, side: 'right' },
        { set: 3, side: 'alternating' },
      ],
    });
    const now = session();
    const states = () => now.steps(sided).map(({ state }) => state);
    log(now, 'movement-1', 'left', 8);
    expect(states()).toEqual(['done', 'now', 'next']);
    log(now, 'movement-1', 'right', 8);
    expect(states()).toEqual(['done', 'done', 'now']);
    log(now, 'movement-1', 'both', 16);
    expect(states()).toEqual(['done', 'done', 'done']);
  });

  test('a round with a movement of its own is no swap, and a swap ends what rounds did otherwise', () => {
    const varied = one({ bySet: [{ set: 2, movementId: 'movement-4', load: null }] }, 2);
    const now = session();
    const asked = () => now.steps(varied).map(({ lane }) => `${lane.movementId} ${lane.load?.label ?? '-'}`);
    expect(asked()).toEqual(['movement-2 12 kg', 'movement-4 -', 'movement-2 12 kg']);
    const start = (movementId: string) => now.record('movement-started', { movementId, why: null, itemId: itemAt(2) });
    start('movement-4');
    expect(asked()).toEqual(['movement-2 12 kg', 'movement-4 -', 'movement-2 12 kg']);
    start('movement-0');
    expect(asked()).toEqual(['movement-0 -', 'movement-0 -', 'movement-0 -']);
  });

  test('a dose that is changed for one set leaves the others, and another amount is no composed set', () => {
    const parts = [{ kind: 'reps' as const, count: 8, tempo: null }];
    const composed = one({ parts, amount: 8, bySet: [{ set: 3, load: bell(16) }] });
    const now = session();
    now.record('dose-changed', { itemId: itemAt(1), amount: 8, load: bell(20), tempo: '2-0-1-0', set: 3 });
    expect(now.steps(composed).map(({ lane, own }) => [lane.load?.kg, lane.parts?.length, own])).toEqual([
      [12, 1, false],
      [12, 1, false],
      [20, 1, true],
    ]);
    now.record('dose-changed', { itemId: itemAt(1), amount: 6, load: bell(8), tempo: '2-0-1-0' });
    expect(now.steps(composed).map(({ lane }) => [lane.load?.kg, lane.amount, lane.parts?.length])).toEqual([
      [8, 6, undefined],
      [8, 6, undefined],
      // Its own amount is still that of its parts.
      [20, 8, 1],
    ]);
  });

  test('as many as went clean are asked for in the next round', () => {
    const clean = one(
      {
        bySet: [
          { set: 2, asClean: true },
          { set: 3, asClean: true },
        ],
      },
      2,
    );
    const now = session();
    const entryId = now.record('movement-started', { movementId: 'movement-2', why: null, itemId: itemAt(2) });
    now.record('set-done', { entryId, side: 'both', amount: 11, kg: 12, loadLabel: '12 kg' });
    expect(stepNow(now.steps(clean))?.lane.amount).toBe(11);
  });

  test('what is left of it is reckoned as the plan reckons it', () => {
    const hard = one({
      bySet: [
        { set: 1, side: 'left', rest: 10 },
        { set: 2, side: 'right', amount: 12 },
        { set: 3, side: 'alternating', tempo: '3-0-1-0' },
      ],
      drops: [{ load: bell(8), amount: 4 }],
    });
    const { steps } = session();
    const segments = timelineOf(hard.plan, { find: (id) => movement(id, find(id)), knows: () => true });
    expect(secondsLeft([steps(hard)], TIME)).toBe(secondsOf(segments));
  });
});
