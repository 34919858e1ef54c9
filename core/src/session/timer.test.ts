import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';

import {
  clustersOf,
  elapsedOf,
  piecesOf,
  restSignals,
  signalsOf,
  steadyClock,
  tempoAt,
  tempoSignals,
  type Timer,
  timerAt,
  workedSeconds,
} from './index.js';

const START = Date.UTC(2030, 0, 1, 10);
const iso = (ms: number) => new Date(ms).toISOString();

const timer = (over: Partial<Timer> = {}): Timer => ({
  id: 't',
  entryId: 'e',
  blockId: null,
  side: 'both',
  work: 30,
  rest: 0,
  count: 1,
  startedAt: iso(START),
  pauses: [],
  extended: false,
  stoppedAt: null,
  ...over,
});

const times = fc.record({
  work: fc.integer({ min: 1, max: 90 }),
  rest: fc.integer({ min: 0, max: 60 }),
  count: fc.integer({ min: 1, max: 8 }),
  works: fc.option(fc.array(fc.integer({ min: 1, max: 90 }), { minLength: 2, maxLength: 8 }), { nil: undefined }),
});

/** Pieces of running and standing still, in milliseconds, one after the other. */
const pieces = fc.array(fc.tuple(fc.integer({ min: 0, max: 20_000 }), fc.integer({ min: 0, max: 20_000 })), {
  maxLength: 6,
});

describe('a timer', () => {
  test('adds up what ran between its pauses, whenever it is looked at and however often', () => {
    fc.assert(
      fc.property(pieces, fc.integer({ min: 0, max: 60_000 }), fc.boolean(), (runs, last, gone) => {
        let at = START;
        const pauses = runs.map(([ran, stood]) => {
          const from = at + ran;
          at = from + stood;
          return { from: iso(from), to: iso(at) };
        });
        const one = timer({ pauses });
        const ran = runs.reduce((sum, [ms]) => sum + ms, 0);
        expect(elapsedOf(one, at + last)).toBe(ran + last);
        // A pause that lasts still counts nothing.
        expect(elapsedOf(timer({ pauses: [...pauses, { from: iso(at + last), to: null }] }), at + last + 99_999)).toBe(
          ran + last,
        );
        const seconds = clustersOf(timer({ pauses, extended: gone, stoppedAt: iso(at + last) }), at + 999_999);
        expect(seconds).toHaveLength(runs.length + 1);
        const left = Math.max(0, Math.min(last, 30_000 - ran));
        expect(seconds).toEqual([
          ...runs.map(([ms]) => Math.floor(ms / 1000)),
          Math.floor((gone ? last : left) / 1000),
        ]);
      }),
    );
  });

  test('goes through work and rest by the clock alone: what is left and what has run make the whole', () => {
    fc.assert(
      fc.property(times, fc.integer({ min: 0, max: 1_300_000 }), (drawn, elapsed) => {
        const { work, rest, count, works = [] } = drawn;
        const each = Array.from({ length: count }, (_, i) => works[i] ?? work);
        const upTo = (piece: number) => each.slice(0, piece).reduce((sum, seconds) => sum + seconds + rest, 0) * 1000;
        const state = timerAt(timer(drawn), START + elapsed);
        const all = upTo(count) - rest * 1000;
        expect(state.elapsed).toBe(elapsed);
        if (elapsed >= all)
          return expect(state).toMatchObject({ phase: 'over', piece: count - 1, left: all - elapsed, running: false });
        const end = upTo(state.piece + 1) - (state.phase === 'work' ? rest * 1000 : 0);
        expect(end - state.left).toBe(elapsed);
        expect(state.left).toBeGreaterThan(0);
        const worked = workedSeconds(timer(drawn), START + elapsed);
        const within = state.phase === 'work' ? elapsed - upTo(state.piece) : (each[state.piece] ?? 0) * 1000;
        const before = each.slice(0, state.piece).reduce((sum, seconds) => sum + seconds, 0);
        expect(worked).toBe(before + Math.floor(within / 1000));
        // Gone on with, it is worked on beyond its length.
        if (count === 1)
          expect(workedSeconds(timer({ ...drawn, extended: true }), START + elapsed)).toBe(Math.floor(elapsed / 1000));
        return undefined;
      }),
    );
  });

  test('a time before its start is its start: clocks may be wrong', () => {
    expect(timerAt(timer(), START - 3_600_000)).toMatchObject({ phase: 'work', elapsed: 0, left: 30_000 });
  });
});

describe('the clock of a session', () => {
  test('never goes back, keeps pace through a clock set back, and goes on over a sleep', () => {
    const passes = fc.array(
      fc.record({
        ticks: fc.integer({ min: 0, max: 60_000 }),
        asleep: fc.integer({ min: 0, max: 600_000 }),
        back: fc.constantFrom(0, 0, 0, 3_600_000, 60_000),
      }),
      { maxLength: 20 },
    );
    fc.assert(
      fc.property(passes, (all) => {
        let [wall, ticks, back] = [START, 0, 0];
        const clock = steadyClock(
          () => wall,
          () => ticks,
        );
        let before = clock.now();
        const first = before;
        let passed = 0;
        for (const pass of all) {
          ticks += pass.ticks;
          wall += pass.ticks + pass.asleep - pass.back;
          back += pass.back;
          const now = clock.now();
          expect(now).toBeGreaterThanOrEqual(before + pass.ticks);
          passed += pass.ticks + pass.asleep;
          expect(now - first).toBeLessThanOrEqual(passed);
          before = now;
        }
        if (back === 0) expect(before - first).toBe(passed);
      }),
    );
  });

  test('set back by an hour while it runs it is not a second off, and after a reload it goes on from the last tap', () => {
    let [wall, ticks] = [START, 0];
    const clock = steadyClock(
      () => wall,
      () => ticks,
    );
    clock.now();
    for (const step of [10_000, 10_000]) {
      ticks += step;
      wall += step;
    }
    wall -= 3_600_000;
    expect(clock.now()).toBe(START + 20_000);
    wall += 5_000;
    ticks += 5_000;
    expect(clock.now()).toBe(START + 25_000);
    const anew = steadyClock(
      () => wall,
      () => ticks,
    );
    anew.atLeast(START + 25_000);
    wall += 1_000;
    ticks += 1_000;
    expect(anew.now()).toBe(START + 26_000);
  });
});

describe('signals', () => {
  test('come in order, one beginning and one end for each piece, and a countdown before each change', () => {
    fc.assert(
      fc.property(times, fc.boolean(), (drawn, halves) => {
        const signals = signalsOf(drawn, halves);
        const of = (kind: string) => signals.filter((signal) => signal.kind === kind).length;
        expect(of('begin')).toBe(drawn.count);
        expect(of('end')).toBe(drawn.count);
        expect(of('side')).toBe(halves ? drawn.count : 0);
        const end = piecesOf(drawn).reduce((sum, { work }) => sum + work, (drawn.count - 1) * drawn.rest * 1000);
        expect(signals.at(-1)?.at).toBe(end);
        expect(signals.every(({ at }, i) => at >= (signals[i - 1]?.at ?? 0))).toBe(true);
      }),
    );
  });

  test('a rest is counted down from three', () => {
    expect(restSignals(60).map(({ at, kind }) => `${at / 1000} ${kind}`)).toEqual([
      '57 count',
      '58 count',
      '59 count',
      '60 begin',
    ]);
  });

  test('the beat of a tempo falls on every second of it, and says the phase where one begins', () => {
    const tempo = fc.tuple(...Array.from({ length: 4 }, () => fc.integer({ min: 0, max: 5 })));
    fc.assert(
      fc.property(tempo, fc.integer({ min: 1, max: 12 }), fc.constantFrom('lower', 'rise'), (parts, reps, begins) => {
        const whole = parts.reduce((sum, n) => sum + n, 0);
        fc.pre(whole > 0);
        const signals = tempoSignals(parts.join('-'), reps, begins);
        expect(signals.map(({ at }) => at)).toEqual(Array.from({ length: reps * whole + 1 }, (_, i) => i * 1000));
        signals.slice(0, -1).forEach(({ at, kind }) => {
          const state = tempoAt(parts.join('-'), at, begins);
          expect(state?.rep).toBe(Math.floor(at / 1000 / whole) + 1);
          expect(kind === 'count').toBe((state?.second ?? 0) > 1);
        });
      }),
    );
    expect(tempoAt('0-0-0-0', 10, 'lower')).toBeNull();
    const beats = (begins: 'lower' | 'rise') =>
      tempoSignals('3-0-2-1', 1, begins).flatMap(({ at, kind }) => (kind === 'count' ? [] : [`${at / 1000} ${kind}`]));
    expect(beats('lower')).toEqual(['0 lower', '3 rise', '5 hold', '6 end']);
    expect(beats('rise')).toEqual(['0 rise', '2 hold', '3 lower', '6 end']);
  });
});
