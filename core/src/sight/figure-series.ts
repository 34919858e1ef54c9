/** The figure as a camera would see it: what a clean rep looks like from here, and clips with a known truth. */
import { frameAt, type Motion } from '../body/motion.js';
import { eyeFor, eyeOf, type Eye } from '../body/projection.js';
import { add, dot, minus, times, turned, type Vec } from '../body/rotation.js';
import { outward, type Body } from '../body/kinematics.js';
import { SIDES_OF_BODY, STATURE_CM } from '../body/skeleton.js';
import type { View } from '../movement/vocabulary.js';
import { emptySeries, placeOf, POINTS, type Point, type Series } from './points.js';

/** Of the head, in centimetres: how far the nose lies before its middle, and an ear beside it. */
const NOSE_CM = 9;
const EAR_CM = 7;

function pointsOf(body: Body): Record<Point, Vec> {
  const middle = times(add(body.headBase, body.crown), 0.5);
  const points: Partial<Record<Point, Vec>> = { nose: add(middle, turned(body.head, [NOSE_CM, 0, 0])) };
  for (const side of SIDES_OF_BODY) {
    const limbs = body[side];
    points[`${side}.ear`] = add(middle, turned(body.head, [0, 0, outward(side) * EAR_CM]));
    points[`${side}.hand`] = limbs.knuckles;
    for (const name of ['shoulder', 'elbow', 'wrist', 'hip', 'knee', 'ankle', 'heel', 'toe'] as const)
      points[`${side}.${name}`] = limbs[name];
  }
  return points as Record<Point, Vec>;
}

export interface Shot {
  view: View | Eye;
  /** Rounds of the motion. */
  rounds: number;
  /** Pictures a second. */
  rate?: number;
  /** Seconds of standing at the start and the end. */
  still?: number;
  /** By how much each number is off: takes nothing and returns centimetres. */
  noise?: () => number;
}

/** Heights of the picture to a body's height. */
const BODY_SHARE = 0.6;

export function seriesOf(motion: Motion, { view, rounds, rate = 15, still = 0.6, noise = () => 0 }: Shot): Series {
  const { right, up, back } = eyeOf(eyeFor(view));
  const length = motion.seconds * rounds + 2 * still;
  const series = emptySeries(Math.floor(length * rate) + 1);
  const scale = BODY_SHARE / STATURE_CM;
  for (let t = 0; t < series.times.length; t += 1) {
    const seconds = t / rate;
    series.times[t] = seconds;
    const inside = Math.max(0, Math.min(motion.seconds * rounds - 1e-6, seconds - still));
    const { body } = frameAt(motion, inside);
    const points = pointsOf(body);
    const { root } = body;
    for (const point of POINTS) {
      const i = t * POINTS.length + placeOf(point);
      const at = points[point];
      const round = minus(at, root);
      series.flat[i * 2] = 0.5 + (dot(right, at) + noise()) * scale;
      series.flat[i * 2 + 1] = 0.9 - (dot(up, at) + noise()) * scale;
      series.deep[i * 3] = (dot(right, round) + noise()) / 100;
      series.deep[i * 3 + 1] = -(dot(up, round) + noise()) / 100;
      series.deep[i * 3 + 2] = -(dot(back, round) + noise()) / 100;
      series.seen[i] = 1;
    }
  }
  return series;
}
