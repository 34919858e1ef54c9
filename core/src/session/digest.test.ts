import { describe as group, expect, test } from '@jest/globals';
import fc from 'fast-check';

import { openPains, type Visit } from '../client/index.js';
import { likelyFault } from '../coaching/index.js';
import { EFFORTS, type Movement } from '../movement/index.js';
import { CLIENT, eventsFrom, lawfulEvents, uuidAt } from '../test/generate.js';
import { lawfulMovement } from '../test/movements.js';
import {
  describe,
  digestOf,
  emptyLane,
  type Entry,
  faultLoadOf,
  fold,
  isSameEvent,
  type Lane,
  lastTap,
  movesOf,
  progressOf,
  recordOf,
  type SessionEvent,
  type SetRecord,
  setsOf,
  stamped,
  tallyFaults,
  totalsOf,
  trialsOf,
} from './index.js';

const laneOf = (events: readonly SessionEvent[]): Lane => {
  const lane = fold(events, [CLIENT]).lanes[CLIENT];
  if (!lane) throw new Error('no lane');
  return lane;
};

/** Movements as the generated sessions name them, with their three faults. */
const [drawn] = fc.sample(lawfulMovement('m'), { numRuns: 1, seed: 7 });
const known = (sides: Movement['sides'] = 'both') => {
  const faults = ['stop', 'fix', 'polish'].map((severity, i) => ({
    ...drawn?.faults[0],
    id: `fault-${i}`,
    name: `Fault ${i}`,
    severity,
  }));
  return (id: string): Movement => ({ ...drawn, id, name: `Name of ${id}`, sides, faults }) as Movement;
};

const sets: fc.Arbitrary<SetRecord[]> = fc.array(
  fc.record({
    id: fc.uuid(),
    side: fc.constantFrom('left' as const, 'right' as const),
    amount: fc.integer({ min: 0, max: 30 }),
    uncounted: fc.constant(false),
    pieces: fc.constant(null),
    parts: fc.constant(null),
    test: fc.constant(null),
    drops: fc.constant([]),
    kg: fc.constantFrom(8, 12, null),
    loadLabel: fc.constant(null),
    effort: fc.option(fc.constantFrom(...EFFORTS), { nil: null }),
    left: fc.constant(null),
    at: fc.constant('2030-01-01T10:00:00.000Z'),
    openFaults: fc.subarray(['fault-0', 'fault-1', 'fault-2']),
    despite: fc.constant(null),
    stood: fc.constant(null),
  }),
  { maxLength: 9 },
);

const entryOf = (done: SetRecord[], movementId = 'movement-0'): Entry => ({
  id: uuidAt(1),
  movementId,
  why: null,
  itemId: null,
  startedAt: '2030-01-01T10:00:00.000Z',
  sets: done,
  counted: { both: 0, left: 0, right: 0 },
  stood: null,
  faults: [],
  unplaced: [],
  causes: [],
  corrections: [],
  marked: null,
});

const lane = (...entries: Entry[]): Lane => ({ ...emptyLane(CLIENT), entries });

group('what a session teaches', () => {
  test('a trial for every correction with an outcome, of this client, with its style', () => {
    fc.assert(
      fc.property(lawfulEvents(50), (events) => {
        const one = laneOf(events);
        const trials = trialsOf(one, known());
        const answered = one.entries.flatMap((entry) => entry.corrections).filter(({ outcome }) => outcome !== null);
        expect(trials.map(({ outcome, at }) => [outcome, at])).toEqual(
          answered.map(({ outcome, at }) => [outcome, at]),
        );
        for (const trial of trials) {
          expect(trial).toMatchObject({ kind: 'say', focus: null });
          expect(trial.correction).toMatch(/^movement-\d\/fault-\d\/say-it$/);
        }
        expect(trialsOf(one, () => undefined)).toEqual([]);
      }),
    );
  });

  test('every set of a movement once, whether it was left and come back to or not', () => {
    fc.assert(
      fc.property(lawfulEvents(60), (events) => {
        const one = laneOf(events);
        const byMovement = setsOf(one, known());
        for (const id of new Set(one.entries.map(({ movementId }) => movementId))) {
          const entries = one.entries.filter(({ movementId }) => movementId === id);
          const amounts = entries.flatMap((entry) => entry.sets.map(({ amount }) => amount));
          expect((byMovement.get(id)?.sets ?? []).map(({ amount }) => amount)).toEqual(amounts);
          const first = entries.find((entry) => entry.sets.length > 0);
          expect(byMovement.get(id)?.at).toBe(first?.startedAt);
        }
      }),
    );
  });

  test('left and right make one set that is as good as its weaker side, and a side left over makes none', () => {
    fc.assert(
      fc.property(sets, (done) => {
        const pairs = setsOf(lane(entryOf(done)), known('each')).get('movement-0')?.sets ?? [];
        const left = done.filter(({ side }) => side === 'left');
        const right = done.filter(({ side }) => side === 'right');
        expect(pairs).toHaveLength(Math.min(left.length, right.length));
        pairs.forEach((pair, i) => {
          const both = [left[i], right[i]].flatMap((set) => set ?? []);
          expect(pair.amount).toBe(Math.min(...both.map(({ amount }) => amount)));
          expect(pair.clean).toBe(
            both.every(({ openFaults }) => !openFaults.includes('fault-0') && !openFaults.includes('fault-1')),
          );
          const efforts = both.flatMap(({ effort }) => (effort === null ? [] : [EFFORTS.indexOf(effort)]));
          expect(pair.effort).toBe(efforts.length < 2 ? null : EFFORTS[Math.max(...efforts)]);
        });
      }),
    );
  });

  test('a fault is counted at most once a set, and its chance lies between what was known and what was seen', () => {
    fc.assert(
      fc.property(lawfulEvents(60), (events) => {
        const { entries } = laneOf(events);
        const tallies = tallyFaults(entries, known());
        for (const [movementId, tally] of tallies)
          for (const fault of known()(movementId).faults) {
            const seen = tally.seen[fault.id] ?? 0;
            expect(seen).toBeLessThanOrEqual(tally.sets);
            const before = likelyFault(fault, undefined);
            const after = likelyFault(fault, tally);
            const share = tally.sets === 0 ? before : seen / tally.sets;
            expect(after).toBeGreaterThanOrEqual(Math.min(before, share) - 1e-12);
            expect(after).toBeLessThanOrEqual(Math.max(before, share) + 1e-12);
            const more = { seen: { [fault.id]: seen + 1 }, sets: tally.sets + 1 };
            expect(likelyFault(fault, more)).toBeGreaterThan(after);
          }
      }),
    );
  });
});

group('where a lane stands', () => {
  test('the sides never drift apart when the side that is named is done', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 12 }), (taps) => {
        const done: SetRecord[] = [];
        for (let tap = 0; tap < taps; tap += 1) {
          const { side, setNumber } = progressOf(entryOf(done), 'each');
          expect(setNumber).toBe(Math.floor(tap / 2) + 1);
          const set = {
            id: `${tap}`,
            side,
            amount: 10,
            uncounted: false,
            pieces: null,
            parts: null,
            test: null,
            drops: [],
            kg: null,
            loadLabel: null,
            effort: null,
            left: null,
            despite: null,
            stood: null,
            at: '',
            openFaults: [],
          };
          done.push(set);
        }
        const on = (side: string) => done.filter((set) => set.side === side).length;
        expect(Math.abs(on('left') - on('right'))).toBe(taps % 2);
      }),
    );
  });

  test('totals are the sum of their parts, to the rep and the kilogram', () => {
    fc.assert(
      fc.property(sets, (done) => {
        const { amount, left, right, volumeKg } = totalsOf(entryOf(done), 'each', 'reps');
        expect(left + right).toBe(amount);
        expect(amount).toBe(done.reduce((sum, set) => sum + set.amount, 0));
        expect(volumeKg).toBe(done.reduce((sum, set) => sum + set.amount * (set.kg ?? 0), 0));
      }),
    );
  });
});

group('undo and the running log', () => {
  test('taking back the last tap leaves the log that was before it', () => {
    fc.assert(
      fc.property(lawfulEvents(30), (events) => {
        const state = fold(events, [CLIENT]);
        const tap = lastTap(state);
        const ids = new Set(tap.map(({ id }) => id));
        const kept = state.log.filter(({ id }) => !ids.has(id));
        expect([...kept, ...tap.toReversed()]).toEqual(state.log);
        expect(new Set(tap.map(({ at, clientId }) => `${at} ${clientId}`)).size).toBe(Math.min(1, tap.length));
        const before = tap.at(-1);
        if (before && kept.length > 0) expect(kept.at(-1)?.at).not.toBe(before.at);
      }),
    );
  });

  test('every event is said in words that name what it is about', () => {
    const events = eventsFrom([
      [0, 1, 1],
      [1, 12, 1],
      [5, 0, 1],
      [2, 2, 1],
      [3, 2, 1],
      [4, 1, 1],
    ]);
    const log = fold(events, [CLIENT]).log;
    expect(events.map((event) => describe(event, log, known()))).toEqual([
      'Name of movement-1',
      'set: 12 reps',
      'felt medium',
      'fault: fault 2',
      expect.stringMatching(/^correction: ./),
      'outcome: fixed',
    ]);
    expect(events.slice(0, 4).map((event) => describe(event, log, () => undefined))).toEqual([
      'movement 1',
      'set: 12 reps',
      'felt medium',
      'fault: fault 2',
    ]);
    const envelope = { ...events[0], id: uuidAt(50) } as SessionEvent;
    const say = (type: SessionEvent['type'], data: object) =>
      describe({ ...envelope, type, data } as SessionEvent, log, known());
    expect(say('pain-reported', { region: 'low-back', quality: 'dull', entryId: null })).toBe('dull pain: low back');
    expect(say('note-written', { text: 'Slept badly' })).toBe('note: Slept badly');
    expect(say('session-finished', {})).toBe('session finished');
    expect(say('set-done', { entryId: envelope.id, side: 'left', amount: 30, kg: 11.34, loadLabel: '25 lb' })).toBe(
      'set: 30 reps left with 25 lb',
    );
  });
});

test('a pain stands until somebody calls it over; what was dull ends with a session without it, what was sharp by the same movement without it', () => {
  const pain = (n: number, region: 'knee' | 'wrist', quality: 'sharp' | 'dull', movementId: string | null) => ({
    ...{ id: uuidAt(n), at: `2030-01-0${n}T10:00:00.000Z`, region, quality, movementId },
  });
  const open = (visits: Visit[], over: number[] = []) =>
    openPains(
      visits,
      over.map((n) => ({ pain: uuidAt(n), on: '2030-01-09', by: 'a physiotherapist' })),
    ).map(({ id }) => id);
  const first: Visit = {
    pains: [pain(1, 'knee', 'sharp', 'lunge'), pain(2, 'wrist', 'dull', 'push-up'), pain(3, 'wrist', 'sharp', null)],
    painless: ['row'],
  };
  const [one, two, three] = [uuidAt(1), uuidAt(2), uuidAt(3)];
  expect(open([first])).toEqual([one, two, three]);
  expect(open([first, { pains: [], painless: ['row'] }])).toEqual([one, three]);
  // A visit in which nothing was done says nothing.
  expect(open([first, { pains: [], painless: [] }])).toEqual([one, two, three]);
  expect(open([first, { pains: [pain(4, 'wrist', 'dull', 'row')], painless: ['lunge'] }])).toEqual([
    two,
    three,
    uuidAt(4),
  ]);
  expect(open([first, { pains: [], painless: ['row'] }], [1, 3])).toEqual([]);
});

test('a movement that hurt sharply stays so until it was done later without it, whatever else was done and in whichever order sessions come', () => {
  const visit = fc.record({
    day: fc.integer({ min: 1, max: 28 }),
    done: fc.subarray(['movement-0', 'movement-1', 'movement-2']),
    hurts: fc.subarray(['movement-0', 'movement-1', 'movement-2']),
    quality: fc.constantFrom('sharp' as const, 'dull' as const),
  });
  fc.assert(
    fc.property(fc.uniqueArray(visit, { selector: ({ day }) => day, maxLength: 6 }), fc.boolean(), (visits, turned) => {
      const at = (day: number) => `2030-01-${String(day).padStart(2, '0')}T10:00:00.000Z`;
      const one: SetRecord = {
        id: uuidAt(9),
        side: 'both',
        amount: 8,
        uncounted: false,
        pieces: null,
        parts: null,
        test: null,
        drops: [],
        kg: null,
        loadLabel: null,
        effort: null,
        left: null,
        at: at(1),
        openFaults: [],
        despite: null,
        stood: null,
      };
      const lanes = visits.map(({ day, done, hurts, quality }): Lane => ({
        ...emptyLane(CLIENT),
        entries: done.map((id) => ({ ...entryOf([one], id), startedAt: at(day) })),
        pains: hurts.map((movementId) => ({ id: uuidAt(8), region: 'knee', quality, movementId, at: at(day) })),
      }));
      const digests = lanes.map((one) => digestOf(one, known()));
      const { hurt } = recordOf(turned ? digests.toReversed() : digests, {});
      const found = hurt.map(({ movementId }) => movementId);
      for (const id of ['movement-0', 'movement-1', 'movement-2']) {
        const last = visits
          .toSorted((a, b) => a.day - b.day)
          .findLast(({ done, hurts, quality }) =>
            hurts.length > 0 ? quality === 'sharp' && hurts.includes(id) : done.includes(id),
          );
        expect(found.includes(id)).toBe(last?.quality === 'sharp' && last.hurts.includes(id));
      }
    }),
    { endOnFailure: true },
  );
});

test('the swaps of a line are told in order, from what to what; another line, or coming back to the same, is none', () => {
  const at = (n: number) => `2030-01-01T10:0${n}:00.000Z`;
  const stay = (n: number, movementId: string, itemId: string | null, why: string | null = null): Entry => ({
    ...entryOf([], movementId),
    itemId,
    why,
    startedAt: at(n),
  });
  const went = lane(
    stay(0, 'movement-0', uuidAt(1)),
    stay(1, 'movement-1', uuidAt(1), 'too hard'),
    stay(2, 'movement-2', uuidAt(2)),
    stay(3, 'movement-1', uuidAt(1)),
    stay(4, 'movement-3', null),
    stay(5, 'movement-0', uuidAt(1), 'too easy'),
    stay(6, 'movement-2', null),
    stay(7, 'movement-1', null, 'too hard'),
    { ...stay(8, 'movement-5', uuidAt(2), 'kit is taken'), aside: true },
    // What was left comes in again as a line of its own.
    stay(9, 'movement-2', uuidAt(3)),
  );
  expect(movesOf(went)).toEqual([
    { from: 'movement-0', to: 'movement-1', why: 'too hard', at: at(1) },
    { from: 'movement-1', to: 'movement-0', why: 'too easy', at: at(5) },
    { from: 'movement-2', to: 'movement-1', why: 'too hard', at: at(7) },
    { from: 'movement-2', to: 'movement-5', why: 'kit is taken', at: at(8), aside: true },
    { from: 'movement-5', to: 'movement-2', why: null, at: at(9) },
  ]);
});

test('the load of faults counts every marking and every set, and nothing where nothing was done', () => {
  fc.assert(
    fc.property(lawfulEvents(40), (events) => {
      const all = fold(events, [CLIENT]);
      const own = all.lanes[CLIENT] ?? emptyLane(CLIENT);
      const count = (type: SessionEvent['type']) => all.log.filter((event) => event.type === type).length;
      const load = faultLoadOf(own);
      const entries = new Set(own.entries.map(({ id }) => id));
      const done = all.log.filter((event) => event.type === 'set-done' && entries.has(event.data.entryId)).length;
      if (done === 0) expect(load).toBeNull();
      else expect(load).toMatchObject({ at: own.entries[0]?.startedAt, sets: done });
      if (load) expect(load.faults).toBeLessThanOrEqual(count('fault-seen'));
    }),
  );
  const seen = { ...entryOf([]), faults: [{ faultId: 'fault-0', times: 3, open: true }] };
  expect(faultLoadOf(lane(seen))).toBeNull();
});

group('a fault belongs to the set that it was seen in', () => {
  const at = (n: number) => new Date(Date.UTC(2030, 0, 1, 10, 0, n)).toISOString();
  /** Two sets, with a fault marked somewhere; clean or not, set by set. */
  const cleanOf = (mark: number, setId?: string) => {
    const events = [
      ['movement-started', { movementId: 'movement-0', why: null }],
      ['set-done', { entryId: uuidAt(0), side: 'both', amount: 8, kg: null, loadLabel: null }],
      ['set-done', { entryId: uuidAt(0), side: 'both', amount: 8, kg: null, loadLabel: null }],
    ].map(([type, data], i) => ({ id: uuidAt(i), counter: (i + 1) * 10, at: at(i), type, data }));
    const data = { entryId: uuidAt(0), faultId: 'fault-1', ...(setId ? { setId } : {}) };
    const marked = { id: uuidAt(99), counter: mark, at: at(mark), type: 'fault-seen', data };
    const all = [...events, marked].map((one) => ({ ...one, sessionId: uuidAt(7), clientId: CLIENT }) as SessionEvent);
    return digestOf(laneOf(all), known()).sets['movement-0']?.sets.map(({ clean, faults }) => [clean, faults]);
  };
  const clean = [true, undefined];
  const unclean = [false, ['fault-1']];

  test('marked between two sets without a word it is of the next; after the last set, of the last', () => {
    expect(cleanOf(25)).toEqual([clean, unclean]);
    expect(cleanOf(35)).toEqual([clean, unclean]);
    expect(cleanOf(15)).toEqual([unclean, unclean]);
  });

  test('marked for the set just done it is of that one, also when another is on the screen', () => {
    expect(cleanOf(25, uuidAt(1))).toEqual([unclean, unclean]);
    expect(cleanOf(35, uuidAt(2))).toEqual([clean, unclean]);
    expect(cleanOf(35, uuidAt(1))).toEqual([unclean, clean]);
  });
});

test('a time that cannot be is replaced by the time it came in, and the same event is known again by either', () => {
  const event = { ...(fc.sample(lawfulEvents(5), { numRuns: 1, seed: 3 })[0]?.[0] as SessionEvent) };
  const now = Date.UTC(2030, 0, 1, 12);
  const started = '2030-01-01T11:00:00.000Z';
  const near = { ...event, at: '2030-01-01T11:30:00.000Z' };
  expect(stamped(near, started, now)).toEqual(near);
  const ahead = { ...event, at: '2030-01-03T12:00:00.000Z' };
  const stored = stamped(ahead, started, now);
  expect(stored).toEqual({ ...ahead, at: '2030-01-01T12:00:00.000Z', deviceAt: ahead.at });
  expect(isSameEvent(ahead, stored)).toBe(true);
  expect(isSameEvent(stored, stored)).toBe(false);
  expect(isSameEvent({ ...ahead, counter: ahead.counter + 1 }, stored)).toBe(false);
});

test('sharp pain stops what runs in the lane; dull pain does not', () => {
  const running = (quality: 'sharp' | 'dull') => {
    const events = [
      ['movement-started', { movementId: 'movement-0', why: null }],
      ['timer-started', { entryId: uuidAt(0), blockId: null, side: 'both', work: 40, rest: 0, count: 1 }],
      ['pain-reported', { entryId: uuidAt(0), region: 'knee', quality, side: 'left' }],
    ].map(([type, data], i) => ({
      id: uuidAt(i),
      sessionId: uuidAt(7),
      clientId: CLIENT,
      counter: i + 1,
      at: `2030-01-01T10:00:0${i}.000Z`,
      type,
      data,
    })) as SessionEvent[];
    return laneOf(events).timers.at(-1)?.stoppedAt;
  };
  expect(running('sharp')).toBe('2030-01-01T10:00:02.000Z');
  expect(running('dull')).toBeNull();
});
