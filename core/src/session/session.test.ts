import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';

import { CLIENT, eventsFrom, lawfulEvents, SESSION, uuidAt } from '../test/generate.js';
import {
  believable,
  checkEvent,
  clustersOf,
  currentEntry,
  cutTo,
  emptyLane,
  fold,
  progressOf,
  type SessionEvent,
  totalsOf,
} from './index.js';

const state = (events: readonly SessionEvent[]) => fold(events, [CLIENT]);

describe('folding a session', () => {
  test('gives the same state in any order of arrival, with any repeats', () => {
    const anyArrival = lawfulEvents(40).chain((events) =>
      fc.tuple(
        fc.constant(events),
        fc.shuffledSubarray([...events, ...events], { minLength: 0 }).map((extra) => [...extra, ...events]),
        fc.shuffledSubarray(events, { minLength: events.length }),
      ),
    );
    fc.assert(
      fc.property(anyArrival, ([events, repeated, shuffled]) => {
        expect(state(shuffled)).toEqual(state(events));
        expect(state(repeated)).toEqual(state(events));
      }),
    );
  });

  test('undoing the last event gives the state before it; undoing the undo brings it back', () => {
    fc.assert(
      fc.property(lawfulEvents(30), (events) => {
        const last = events.findLast((event) => event.type !== 'undone');
        fc.pre(last !== undefined && events.at(-1) === last);
        if (!last) return;
        const envelope = { sessionId: SESSION, clientId: CLIENT, at: last.at };
        const undo: SessionEvent = {
          ...envelope,
          id: uuidAt(9001),
          counter: last.counter + 1,
          type: 'undone',
          data: { eventId: last.id },
        };
        const redo: SessionEvent = {
          ...envelope,
          id: uuidAt(9002),
          counter: last.counter + 2,
          type: 'undone',
          data: { eventId: undo.id },
        };
        const seen = ({ lanes, finishedAt, log }: ReturnType<typeof state>) => ({ lanes, finishedAt, log });
        expect(seen(state([...events, undo]))).toEqual(seen(state(events.slice(0, -1))));
        expect(seen(state([...events, undo, redo]))).toEqual(seen(state(events)));
      }),
    );
  });

  test('a fault is open from when it is seen until an outcome says fixed, and open again when it returns', () => {
    const draws = (...whats: number[]) => eventsFrom(whats.map((what) => [what, what === 4 ? 1 : 0, 1]));
    const faults = (events: SessionEvent[]) => currentEntry(state(events).lanes[CLIENT] ?? emptyLane(''))?.faults;
    expect(faults(draws(0, 2))).toEqual([{ faultId: 'fault-0', times: 1, open: true }]);
    expect(faults(draws(0, 2, 3, 4))).toEqual([{ faultId: 'fault-0', times: 1, open: false }]);
    expect(faults(draws(0, 2, 3, 4, 2))).toEqual([{ faultId: 'fault-0', times: 2, open: true }]);
  });
});

test('a hold that broke before somebody pressed is as long as it was held, and goes on from there', () => {
  const tap = (i: number, seconds: number, type: SessionEvent['type'], data: object) =>
    ({
      id: uuidAt(i),
      sessionId: SESSION,
      clientId: CLIENT,
      counter: i,
      at: new Date(Date.UTC(2030, 0, 1, 10, 0, seconds)).toISOString(),
      type,
      data,
    }) as SessionEvent;
  const times = { blockId: null, side: 'both', work: 30, rest: 0, count: 1 };
  const held = (cut?: number) => {
    const events = [
      tap(1, 0, 'movement-started', { movementId: 'plank', why: null }),
      tap(2, 0, 'timer-started', { entryId: uuidAt(1), ...times }),
      tap(3, 12, 'timer-paused', { timerId: uuidAt(2) }),
      tap(4, 20, 'timer-resumed', { timerId: uuidAt(2), ...(cut !== undefined && { cut }) }),
      tap(5, 28, 'timer-stopped', { timerId: uuidAt(2) }),
    ];
    const timer = state(events).lanes[CLIENT]?.timers[0];
    return timer && clustersOf(timer, Date.UTC(2030, 0, 1, 10, 1));
  };
  expect(held()).toEqual([12, 8]);
  expect(held(2)).toEqual([10, 8]);
  // Nothing is taken off a piece that came before.
  expect(held(60)).toEqual([0, 8]);
  expect(cutTo([10, 12], 20)).toEqual([10, 10]);
  expect(cutTo([10, 12], 25)).toBeNull();
  expect(cutTo([10, 12], 10)).toBeNull();
});

describe('sets and sides', () => {
  const sets = (...sides: ('left' | 'right' | 'both')[]) => ({
    id: 'e',
    movementId: 'm',
    why: null,
    itemId: null,
    counted: { both: 0, left: 0, right: 0 },
    stood: null,
    startedAt: '',
    faults: [],
    unplaced: [],
    causes: [],
    corrections: [],
    marked: null,
    sets: sides.map((side, i) => ({
      id: `${i}`,
      side,
      amount: 10,
      uncounted: false,
      pieces: null,
      parts: null,
      test: null,
      drops: [],
      kg: 8,
      loadLabel: null,
      effort: null,
      left: null,
      at: '',
      openFaults: [],
      despite: null,
      stood: null,
    })),
  });

  test('a movement done a side at a time counts a set when both sides are done and always names the side that lags', () => {
    expect(progressOf(sets(), 'each')).toEqual({ done: 0, setNumber: 1, side: 'left', half: false });
    expect(progressOf(sets('left'), 'each')).toEqual({ done: 0, setNumber: 1, side: 'right', half: true });
    // The second set begins where the first one ended.
    expect(progressOf(sets('left', 'right'), 'each')).toEqual({ done: 1, setNumber: 2, side: 'right', half: false });
    expect(progressOf(sets('left', 'right', 'right'), 'each')).toMatchObject({ side: 'left', half: true });
    expect(progressOf(sets('both', 'both'), 'both')).toEqual({ done: 2, setNumber: 3, side: 'both', half: false });
  });

  test('ten a side is twenty, with the load on both', () => {
    expect(totalsOf(sets('left', 'right'), 'each', 'reps')).toEqual({
      sets: 1,
      amount: 20,
      left: 10,
      right: 10,
      pulses: 0,
      held: 0,
      volumeKg: 160,
    });
    // Metres and seconds with a weight are no kilograms moved.
    for (const mode of ['time', 'distance'] as const)
      expect(totalsOf(sets('left', 'right'), 'each', mode)).toMatchObject({ amount: 20, volumeKg: 0 });
  });
});

describe('incoming events', () => {
  const frame = {
    sessionId: SESSION,
    clientIds: [CLIENT],
    startedAt: '2030-01-01T10:00:00.000Z',
    now: '2030-01-01T10:30:00.000Z',
  };
  const good = {
    id: uuidAt(1),
    sessionId: SESSION,
    clientId: CLIENT,
    counter: 1,
    at: '2030-01-01T10:05:00.000Z',
    type: 'note-written',
    data: { text: 'fine' },
  };
  const problem = (change: object) => {
    const checked = checkEvent({ ...good, ...change }, frame);
    return checked.ok ? null : checked.problems[0]?.path;
  };

  test.each<[string, object, string | null]>([
    ['a good one', {}, null],
    ['one of another session', { sessionId: uuidAt(77) }, 'sessionId'],
    ['one of a stranger', { clientId: uuidAt(78) }, 'clientId'],
    ['an unknown type', { type: 'somersault' }, 'type'],
    ['a year that nobody lives in', { at: '9999-01-01T10:00:00.000Z' }, 'at'],
    ['a day that no calendar has', { at: '2030-02-30T10:00:00.000Z' }, 'at'],
    ['a counter from nowhere', { counter: 10_000_001 }, 'counter'],
    ['a stray field', { shoe: 1 }, 'shoe'],
    ['a stray field inside', { data: { text: 'x', shoe: 1 } }, 'data.shoe'],
  ])('%s', (_, change, path) => expect(problem(change)).toBe(path));

  test('a clock a few hours off is believed', () => {
    expect(believable('2030-01-01T05:00:00.000Z', frame.startedAt, frame.now)).toBe(true);
  });
});
