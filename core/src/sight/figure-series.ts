/** The figure as a camera would see it: what a clean rep looks like from here, and clips with a known truth. */
import { type Body, outward } from '../body/kinematics.js';
import { frameAt, type Motion } from '../body/motion.js';
import { type Eye, eyeFor, eyeOf } from '../body/projection.js';
import { add, between, dot, minus, times, turned, type Vec } from '../body/rotation.js';
import { SIDES_OF_BODY, STATURE_CM } from '../body/skeleton.js';
import type { View } from '../movement/vocabulary.js';
import { emptySeries, placeOf, type Point, POINTS, type Series } from './points.js';

/**
 * Where a landmark model sees what it names, measured on pictures of the figure: nose and ears below the middle of the head, the hip down
 * the thigh from its joint, heel and toe off the sole towards the ankle. Centimetres, and shares of the way to the next point.
 */
const NOSE_CM: Vec = [9, -3.7, 0];
const EAR_CM: Vec = [2, -3.5, 7];
const TOWARDS = { hip: 0.065, heel: 0.3, toe: 0.16 } as const;

function pointsOf(body: Body): Record<Point, Vec> {
  const middle = times(add(body.headBase, body.crown), 0.5);
  const points: Partial<Record<Point, Vec>> = { nose: add(middle, turned(body.head, NOSE_CM)) };
  for (const side of SIDES_OF_BODY) {
    const limbs = body[side];
    const [x, y, z] = EAR_CM;
    points[`${side}.ear`] = add(middle, turned(body.head, [x, y, outward(side) * z]));
    points[`${side}.hand`] = limbs.knuckles;
    for (const name of ['shoulder', 'elbow', 'wrist', 'knee', 'ankle'] as const)
      points[`${side}.${name}`] = limbs[name];
    points[`${side}.hip`] = between(limbs.hip, limbs.knee, TOWARDS.hip);
    for (const name of ['heel', 'toe'] as const)
      points[`${side}.${name}`] = between(limbs[name], limbs.ankle, TOWARDS[name]);
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
