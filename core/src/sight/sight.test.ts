import { join } from 'node:path';

import { beforeAll, describe, expect, test } from '@jest/globals';
import { loadFaultKinds, loadFigures, loadLibrary } from '@waxwing/library';
import fc from 'fast-check';

import { type FigureLibrary, type Motion, motionOf } from '../body/index.js';
import type { FaultKind, Movement, View } from '../movement/index.js';
import {
  cleaned,
  countOf,
  emptySeries,
  placeOf,
  POINTS,
  readSeries,
  repsIn,
  type Series,
  seriesOf,
  type Shot,
  type Shown,
  standFrom,
  viewsOf,
} from './index.js';

const LIBRARY = join(import.meta.dirname, '../../../library');
let library: Movement[];
let figures: FigureLibrary;
let kinds: FaultKind[];
beforeAll(() => {
  library = loadLibrary(join(LIBRARY, 'movements'));
  figures = loadFigures(join(LIBRARY, 'figures'));
  kinds = loadFaultKinds(join(LIBRARY, 'fault-kinds.yaml')).filter(({ measure }) => measure);
});

const made = new Map<string, Motion>();
/** Made once: what a clean rep looks like is worked out once a motion. */
const motionFor = (movement: Movement, faults: Record<string, number> = {}): Motion => {
  const figure = figures.figures[movement.id];
  if (!figure) throw new Error(`${movement.id} is not drawn`);
  const key = `${movement.id} ${JSON.stringify(faults)}`;
  // How long something takes is not drawn: who drops has no time for it.
  const drops = movement.faults.some(({ id, kind }) => kind === 'drops' && faults[id]);
  const tempo = drops ? movement.dose.tempo.replace(/^[0-9.]+/, '0') : movement.dose.tempo;
  const moved = { ...movement, dose: { ...movement.dose, tempo } };
  const motion = made.get(key) ?? motionOf(figures, figure, moved, drops ? {} : faults);
  made.set(key, motion);
  return motion;
};
const find = (id: string): Movement => {
  const movement = library.find((one) => one.id === id);
  if (!movement) throw new Error(`no ${id}`);
  return movement;
};
const shownBy = (movement: Movement): Shown => ({
  motion: motionFor(movement),
  position: movement.position,
  tempo: movement.dose.tempo,
  usualTempo: movement.dose.tempo,
  faulty: (kind) => {
    const fault = movement.faults.find((one) => one.kind === kind && figures.figures[movement.id]?.faults[one.id]);
    return fault ? motionFor(movement, { [fault.id]: 1 }) : null;
  },
});
/** As it is asked for: of the faults that the movement has. */
const kindsOf = (movement: Movement): FaultKind[] =>
  kinds.filter(({ id }) => movement.faults.some(({ kind }) => kind === id));
const read = (movement: Movement, shot: Shot, faults: Record<string, number> = {}, asked = kindsOf(movement)) =>
  readSeries(seriesOf(motionFor(movement, faults), shot), shownBy(movement), asked);

/** Centimetres by which a landmark is off, the same every time. */
function tremble(spread: number, seed = 7): () => number {
  let state = seed;
  const next = () => {
    state = (Math.imul(state, 1103515245) + 12345) & 0x7fffffff;
    return (state + 1) / 0x80000000;
  };
  return () => spread * Math.sqrt(-2 * Math.log(next())) * Math.cos(2 * Math.PI * next());
}

/** Left and right named the wrong way round between two moments. */
function swapped(series: Series, from: number, to: number): Series {
  const changed = { ...series, flat: series.flat.slice(), deep: series.deep.slice() };
  for (let t = from; t < to; t += 1)
    for (const point of POINTS) {
      if (!point.startsWith('left.')) continue;
      const [a, b] = [point, point.replace('left.', 'right.') as typeof point].map(
        (one) => t * POINTS.length + placeOf(one),
      ) as [number, number];
      for (const [list, was, size] of [
        [changed.flat, series.flat, 2],
        [changed.deep, series.deep, 3],
      ] as const)
        for (let k = 0; k < size; k += 1) {
          list[a * size + k] = was[b * size + k] ?? NaN;
          list[b * size + k] = was[a * size + k] ?? NaN;
        }
    }
  return changed;
}

const furthest = (a: Float32Array, b: Float32Array): number =>
  a.reduce((most, x, i) => Math.max(most, Math.abs(x - (b[i] ?? NaN))), 0);

describe('a series of landmarks', () => {
  test('keeps what is still, bridges short gaps, leaves long ones open, and puts changed sides back', () => {
    const series = seriesOf(motionFor(find('goblet-squat')), { view: 'oblique', rounds: 2 });
    const clean = cleaned(series);
    expect(furthest(clean.flat, series.flat)).toBeLessThan(0.012);
    expect(furthest(cleaned(swapped(series, 20, 50)).flat, clean.flat)).toBeLessThan(1e-3);
    const gap = (moments: number) => {
      const seen = series.seen.slice();
      for (let t = 30; t < 30 + moments; t += 1) seen[t * POINTS.length + placeOf('left.knee')] = 0.1;
      return cleaned({ ...series, seen });
    };
    expect(furthest(gap(4).flat, clean.flat)).toBeLessThan(0.012);
    expect(gap(4).seen.every((one) => one > 0)).toBe(true);
    expect(gap(12).seen.filter((one) => one === 0)).toHaveLength(12);
  });

  test.each<[View, string]>([
    ['side', 'right'],
    ['front', ''],
    ['back', ''],
    ['oblique', 'right'],
  ])('says itself that it was taken from the %s', (view, near) => {
    for (const id of ['goblet-squat', 'split-squat', 'standing-curl', 'dumbbell-romanian-deadlift']) {
      const stand = standFrom(seriesOf(motionFor(find(id)), { view, rounds: 1, noise: tremble(1) }));
      expect([id, stand?.view]).toEqual([id, view]);
      if (near) expect(stand?.near).toBe(near);
    }
  });

  test('without a body, or of one moment, is no reading and no rep', () => {
    const squat = find('goblet-squat');
    const model = shownBy(squat);
    for (const moments of [0, 1, 40]) expect(readSeries(emptySeries(moments), model, kinds)).toBeNull();
    const { times, flat, deep, seen } = seriesOf(model.motion, { view: 'side', rounds: 1 });
    const one = {
      times: times.slice(0, 1),
      flat: flat.slice(0, POINTS.length * 2),
      deep: deep.slice(0, POINTS.length * 3),
      seen: seen.slice(0, POINTS.length),
    };
    const reading = readSeries(one, model, kinds);
    expect(reading?.reps).toEqual([]);
    // Of no rep nothing is said: it is neither seen nor clean.
    expect(reading?.answers.find(({ kind }) => kind === 'heels-lift')).toMatchObject({ judged: 0, cannot: 'no-reps' });
  });
});

describe('reps', () => {
  const half = (share: number): number => (1 - Math.cos(Math.PI * share)) / 2;
  /** Reps that ease in and out, with stays between, in pictures that come when they come. */
  const set = fc.record({
    reps: fc.integer({ min: 0, max: 12 }),
    there: fc.double({ min: 0.6, max: 4, noNaN: true }),
    stay: fc.double({ min: 0, max: 2, noNaN: true }),
    back: fc.double({ min: 0.6, max: 4, noNaN: true }),
    top: fc.double({ min: 0.2, max: 2, noNaN: true }),
    rate: fc.constantFrom(12, 15, 24, 30, 60),
    way: fc.constantFrom({ from: 5, to: 110 }, { from: 120, to: 20 }),
    seed: fc.integer({ min: 1, max: 1e6 }),
  });

  test('are counted exactly and timed to 0.15 s, whatever the tempo, the pictures a second and a tremble of two degrees', () => {
    fc.assert(
      fc.property(set, ({ reps, there, stay, back, top, rate, way, seed }) => {
        const round = there + stay + back + top;
        const off = tremble(1, seed);
        const times: number[] = [];
        for (let t = 0; t < 1 + reps * round; t += (1 + 0.3 * Math.sin(times.length)) / rate) times.push(t);
        const values = times.map((t) => {
          const at = t - 0.8;
          const into = at < 0 || at >= reps * round ? 0 : at % round;
          const share =
            into < there
              ? half(into / there)
              : into < there + stay
                ? 1
                : into < there + stay + back
                  ? half(1 - (into - there - stay) / back)
                  : 0;
          return way.from + share * (way.to - way.from) + off();
        });
        const found = repsIn(Float64Array.from(times), Float32Array.from(values), way);
        expect(found).toHaveLength(reps);
        expect(countOf(Float64Array.from(times), Float32Array.from(values), found, 2)).toBe('sure');
        for (const rep of found) {
          expect(Math.abs(rep.there - there)).toBeLessThan(0.15 + 0.1 * there);
          expect(Math.abs(rep.back - back)).toBeLessThan(0.15 + 0.1 * back);
          expect(rep.ends).toBeGreaterThan(rep.starts);
        }
      }),
    );
  });

  test('are about so many where the line does something else besides, one goes much less far, or nothing is seen for a while', () => {
    const way = { from: 0, to: 90 };
    const times = Float64Array.from({ length: 240 }, (_, t) => t / 15);
    // Four reps of four seconds.
    const at = (t: number): number => 45 * (1 - Math.cos((Math.PI * t) / 2));
    const counted = (value: (t: number) => number): string => {
      const values = Float32Array.from(times, value);
      return countOf(times, values, repsIn(times, values, way), 2);
    };
    expect(counted(at)).toBe('sure');
    expect(counted((t) => at(t) + (at(t) > 45 ? 20 * Math.sin(9 * t) : 0))).toBe('rough');
    expect(counted((t) => (t > 8 && t < 12 ? 0.5 : 1) * at(t))).toBe('uneven');
    expect(counted((t) => (t > 8 && t < 10 ? NaN : at(t)))).toBe('gap');
    // Somebody who comes into the picture, or leaves it, in the middle of a rep; and who does so between two.
    expect(counted((t) => (t < 1.5 ? NaN : at(t)))).toBe('gap');
    expect(counted((t) => (t > 14.2 ? NaN : at(t)))).toBe('gap');
    expect(counted((t) => (t < 4 ? NaN : at(t)))).toBe('sure');
  });

  test('of the figure are counted in every movement whose way can be seen from there, and never one more or less', () => {
    const wrong: string[] = [];
    let counted = 0;
    for (const [i, movement] of library.entries()) {
      if (i % 10 !== 0 || movement.dose.mode !== 'reps' || movement.sides === 'alternating') continue;
      if (figures.figures[movement.id]?.cycle) continue;
      for (const view of ['side', 'front'] as const) {
        const count = read(movement, { view, rounds: 5, rate: 12, noise: tremble(0.7) })?.reps.length ?? 0;
        if (count === 5) counted += 1;
        else if (count > 0) wrong.push(`${movement.id} from the ${view}: ${count}`);
      }
    }
    expect(wrong).toEqual([]);
    expect(counted).toBeGreaterThan(20);
  });

  test('of a clip that begins in the middle of one are the whole ones', () => {
    const squat = find('goblet-squat');
    const motion = motionFor(squat);
    const series = seriesOf(motion, { view: 'side', rounds: 4, still: 0 });
    const from = Math.round(motion.seconds * 0.35 * 15);
    const cut: Series = {
      times: series.times.slice(from),
      flat: series.flat.slice(from * POINTS.length * 2),
      deep: series.deep.slice(from * POINTS.length * 3),
      seen: series.seen.slice(from * POINTS.length),
    };
    const reading = readSeries(cut, shownBy(squat), kinds);
    expect(reading?.reps.length).toBe(3);
  });
});

test('a hold is read in its pieces, and somebody who never takes the posture has none', () => {
  const plank = find('forearm-plank');
  const series = seriesOf(motionFor(plank), { view: 'side', rounds: 5, noise: tremble(0.7) });
  const whole = readSeries(series, shownBy(plank), []);
  expect(whole?.holds).toBe(true);
  expect(whole?.reps).toHaveLength(1);
  const length = whole?.reps[0]?.stay ?? 0;
  expect(length).toBeGreaterThan(15);
  // Two seconds out of sight in the middle are a break.
  const seen = series.seen.map((one, i) =>
    Math.abs((series.times[Math.floor(i / POINTS.length)] ?? 0) - 10) < 1 ? 0 : one,
  );
  const pieces = readSeries({ ...series, seen }, shownBy(plank), [])?.reps ?? [];
  expect(pieces).toHaveLength(2);
  expect(pieces.reduce((sum, { stay }) => sum + stay, 0)).toBeCloseTo(length - 2, 0);
  const standing = seriesOf(motionFor(find('standing-curl')), { view: 'side', rounds: 3 });
  expect(readSeries(standing, shownBy(plank), [])?.reps).toEqual([]);
});

describe('faults', () => {
  test('that the figure shows are seen in nine of ten reps, and clean reps are called clean', () => {
    const tally = new Map<string, { hits: number; misses: number; false: number; clean: number }>();
    const of = (kind: string) => {
      const known = tally.get(kind) ?? { hits: 0, misses: 0, false: 0, clean: 0 };
      tally.set(kind, known);
      return known;
    };
    // Three that can be told of each kind; all of them are tried in the bench.
    const left = new Map(kinds.map(({ id }) => [id, 3]));
    for (const movement of library) {
      if (figures.figures[movement.id]?.cycle || motionFor(movement).still) continue;
      for (const { id, kind = '' } of movement.faults) {
        const measure = kinds.find((one) => one.id === kind)?.measure;
        const wanted = left.get(kind) ?? 0;
        if (wanted === 0 || !measure?.positions.includes(movement.position)) continue;
        if (!figures.figures[movement.id]?.faults[id]) continue;
        const view = viewsOf(measure.of).includes('side') ? 'side' : 'front';
        const shot: Shot = { view, rounds: 2, rate: 12, noise: tremble(0.7) };
        const answer = read(movement, shot, { [id]: 1 })?.answers.find((one) => one.kind === kind);
        if (!answer || answer.cannot === 'view' || answer.cannot === 'position') continue;
        left.set(kind, wanted - 1);
        of(kind).hits += answer.seen.length;
        of(kind).misses += answer.judged - answer.seen.length;
        for (const clean of read(movement, shot)?.answers ?? []) {
          of(clean.kind).false += clean.seen.length;
          of(clean.kind).clean += clean.judged - clean.seen.length;
        }
      }
    }
    for (const { id } of kinds) {
      const { hits, misses, false: wrong, clean } = of(id);
      expect([id, hits >= 0.9 * (hits + misses), hits > 0]).toEqual([id, true, true]);
      expect([id, wrong <= 0.02 * (wrong + clean)]).toEqual([id, true]);
    }
  });

  test('are not told of from where they do not show, nor with the body otherwise, nor near the border', () => {
    const squat = find('goblet-squat');
    const cannot = (view: View, faults: Record<string, number> = {}) =>
      new Map(
        read(squat, { view, rounds: 3, noise: tremble(0.3) }, faults, kinds)?.answers.map(
          ({ kind, cannot: why, seen }) => [kind, why ?? seen.length],
        ),
      );
    expect(cannot('side').get('knees-in')).toBe('view');
    expect(cannot('front').get('heels-lift')).toBe('view');
    expect(cannot('side').get('hips-sag')).toBe('position');
    const fault = squat.faults.find(({ kind }) => kind === 'knees-in');
    if (!fault) throw new Error('the squat has no knees that fall in');
    // From none of it to all of it: not seen, then nobody can say, then seen.
    const path = [0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.8, 1].map((amount) =>
      cannot('front', { [fault.id]: amount }).get('knees-in'),
    );
    expect(path[0]).toBe(0);
    expect(path.at(-1)).toBe(3);
    const sure = path.filter((one) => one === 0 || one === 3);
    expect(sure).toEqual(sure.toSorted((a, b) => Number(a) - Number(b)));
  });
});
