/** What a motion takes up on a picture. */
import type { View } from '../movement/vocabulary.js';
import type { Body } from './kinematics.js';
import { frameAt, type Motion } from './motion.js';
import { type Eye, eyeFor, projectionOf } from './projection.js';
import { add, minus, type Vec } from './rotation.js';
import { SIDES_OF_BODY } from './skeleton.js';
import { placeOf } from './things.js';

/** Centimetres on the picture, y down. */
export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Flesh round the joints, and what is held beyond the hands. */
const FLESH_CM = 13;
const HELD_CM = 18;
const BAR_HALF_CM = 72;
/** Moments of a round that are looked at for its bounds. */
const MOMENTS = 12;

/** The smallest frame round both. */
export function together(a: Box, b: Box): Box {
  const x = Math.min(a.x, b.x);
  const y = Math.min(a.y, b.y);
  return {
    x,
    y,
    width: Math.max(a.x + a.width, b.x + b.width) - x,
    height: Math.max(a.y + a.height, b.y + b.height) - y,
  };
}

/** What a motion's figure takes up in a view over a whole round, floor included; furniture and lines may run out of it. */
export function boundsOf(motion: Motion, view: View | Eye): Box {
  const see = projectionOf(view, motion.position);
  // From above there is no ground line to stop at.
  const lowest = eyeFor(view, motion.position).raised > 45 ? Infinity : 14;
  const bar = motion.figure.holds.some(({ item }) => item === 'barbell');
  const around = motion.figure.holds.some(({ in: where }) => where !== 'back') ? HELD_CM : FLESH_CM;
  let [left, right, top, bottom] = [Infinity, -Infinity, Infinity, 6];
  const take = (point: Vec, by: number, travelled: Vec): void => {
    const { x, y } = see(minus(point, [travelled[0], 0, travelled[2]]));
    left = Math.min(left, x - by);
    right = Math.max(right, x + by);
    top = Math.min(top, y - by);
    bottom = Math.max(bottom, Math.min(y + by, lowest));
  };
  // Of furniture its place is shown: a wall in full would leave little room for whoever leans on it.
  for (const { at } of motion.figure.props) {
    const [x, , z] = placeOf(motion, at).middle;
    take([x, 10, z], FLESH_CM, [0, 0, 0]);
  }
  const takeBody = (body: Body, travelled: Vec): void => {
    for (const point of [body.root, body.chest, body.nape, body.crown]) take(point, FLESH_CM, travelled);
    for (const side of SIDES_OF_BODY) {
      const { elbow, fingertip, knee, toe, heel, wrist } = body[side];
      for (const point of [elbow, knee, toe, heel]) take(point, FLESH_CM, travelled);
      for (const point of [wrist, fingertip]) take(point, around, travelled);
    }
  };
  if (motion.partner) takeBody(motion.partner, [0, 0, 0]);
  for (let i = 0; i < MOMENTS; i += 1) {
    const { body, travelled } = frameAt(motion, (motion.seconds * i) / MOMENTS);
    takeBody(body, travelled);
    for (const side of SIDES_OF_BODY) {
      const { wrist } = body[side];
      if (bar) take(add(wrist, [0, 0, side === 'right' ? BAR_HALF_CM : -BAR_HALF_CM]), HELD_CM, travelled);
    }
  }
  return { x: left, y: top, width: right - left, height: bottom - top };
}
