import { join } from 'node:path';

import { beforeAll, describe, expect, test } from '@jest/globals';
import { type FigureLibrary, frameAt, keyTimes, type Motion, motionOf, otherSide } from '@waxwing/core/body';
import type { Movement } from '@waxwing/core/movement';
import { loadFigures, loadLibrary } from '@waxwing/library';

import { motionIn } from './use-motion';

const ROOT = join(import.meta.dirname, '../../../library');

let figures: FigureLibrary;
let movements: Movement[];
beforeAll(() => {
  figures = loadFigures(join(ROOT, 'figures'));
  movements = loadLibrary(join(ROOT, 'movements'));
});

const find = (id: string): Movement => {
  const movement = movements.find((one) => one.id === id);
  if (!movement) throw new Error(id);
  return movement;
};
const motion = (id: string): Motion => {
  const found = motionIn(figures, find(id));
  if (!found) throw new Error(`${id} has no figure`);
  return found;
};

describe('the key postures', () => {
  test('of a rep are its start, the middle of its way and its end', () => {
    const squat = motion('goblet-squat');
    const [start, way, end] = keyTimes(squat).map((seconds) => frameAt(squat, seconds + 1e-6).body.root[1]);
    expect(start).toBeGreaterThan(way ?? NaN);
    expect(way).toBeGreaterThan(end ?? NaN);
    expect(keyTimes(squat)).toHaveLength(3);
  });

  test('of a hold is one, of a round each of its steps', () => {
    expect(keyTimes(motion('forearm-plank'))).toEqual([0]);
    expect(keyTimes(motion('march-on-the-spot'))).toHaveLength(4);
  });

  test('are moments of the round, in order, for every figure', () => {
    for (const id of Object.keys(figures.figures)) {
      const one = motion(id);
      const times = keyTimes(one);
      expect(times).toEqual(times.toSorted((a, b) => a - b));
      for (const seconds of times) expect(seconds).toBeLessThan(one.seconds);
    }
  });
});

describe('sides', () => {
  const sides = (id: string, rounds: number) => {
    const one = motion(id);
    return Array.from({ length: rounds }, (_, i) => otherSide(one, (i + 0.5) * one.seconds));
  };

  test('take turns where the dose says so, and come one after the other where it says that', () => {
    expect(find('dead-bug').sides).toBe('alternating');
    expect(sides('dead-bug', 4)).toEqual([false, true, false, true]);
    expect(find('split-squat').sides).toBe('each');
    expect(sides('split-squat', 8)).toEqual([false, false, false, true, true, true, false, false]);
    expect(sides('goblet-squat', 4)).toEqual([false, false, false, false]);
  });

  test('stay as they are in a round that has both in it', () => {
    expect(sides('march-on-the-spot', 6)).toEqual(Array.from({ length: 6 }, () => false));
  });
});

test('a movement without a figure has none, and a fault that is not drawn changes nothing', () => {
  expect(motionIn(figures, { ...find('goblet-squat'), id: 'mast-squat' })).toBeNull();
  expect(motionIn(figures, { ...find('goblet-squat'), id: 'mast-squat', drawnAs: 'goblet-squat' })).not.toBeNull();
  const squat = find('goblet-squat');
  const figure = figures.figures['goblet-squat'];
  if (!figure) throw new Error('no figure');
  const clean = motionOf(figures, figure, squat);
  const same = motionIn(figures, squat, 'no-such-fault');
  expect(same && frameAt(same, 3.5).pose['left.knee.flex']).toBeCloseTo(frameAt(clean, 3.5).pose['left.knee.flex'], 6);
});
