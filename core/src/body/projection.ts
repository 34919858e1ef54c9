/** Orthographic views: a point in the room → a place on the picture (centimetres, y down) and how near it is. */
import type { Position, View } from '../movement/vocabulary.js';
import type { Vec } from './rotation.js';

export interface Spot {
  x: number;
  y: number;
  /** Greater is nearer. */
  near: number;
}

/** Degrees round from the side at which the body faces right, and how far the eye is raised. */
export interface Eye {
  round: number;
  raised: number;
}

/** From a little above, so that the floor is a floor. */
export const EYES: Readonly<Record<View, Eye>> = {
  side: { round: 0, raised: 7 },
  front: { round: 90, raised: 7 },
  back: { round: -90, raised: 7 },
  oblique: { round: 42, raised: 12 },
};

/** From above, over somebody who lies: nobody is looked at from between the feet. */
const ABOVE: Eye = { round: 0, raised: 82 };
/** The side of a body that is up is seen from above; somebody on the side lies along the picture, the front to whoever looks. */
const EYES_LYING: Readonly<Partial<Record<Position, Readonly<Partial<Record<View, Eye>>>>>> = {
  supine: { front: ABOVE, oblique: { round: -42, raised: 24 } },
  prone: { back: ABOVE },
  'side-lying': {
    side: ABOVE,
    front: EYES.side,
    back: { round: 180, raised: 7 },
    oblique: { round: -32, raised: 30 },
  },
};

/** Where the eye is for a side of somebody in a position; the other end of somebody who lies is the head's end. */
export const eyeFor = (view: View | Eye, position?: Position): Eye => {
  if (typeof view !== 'string') return view;
  return (position && EYES_LYING[position]?.[view]) ?? EYES[view];
};

/** The directions of an eye in the room: to its right, up, and from what it sees back to it. */
export function eyeOf({ round, raised }: Eye): { right: Vec; up: Vec; back: Vec } {
  const [a, e] = [(round * Math.PI) / 180, (raised * Math.PI) / 180];
  const [c, s, ce, se] = [Math.cos(a), Math.sin(a), Math.cos(e), Math.sin(e)];
  return { right: [c, 0, -s], up: [-s * se, ce, -c * se], back: [s * ce, se, c * ce] };
}

/** How the room is looked at: directions of the picture, what is taken off every place first, and whether left and right change places. */
export interface Camera {
  right: Vec;
  up: Vec;
  back: Vec;
  shift: Vec;
  mirrored: boolean;
}

/** @param shift such as how far a travelling figure has come */
export function cameraOf(eye: Eye, mirrored = false, shift: Vec = [0, 0, 0]): Camera {
  const { right, up, back } = eyeOf(eye);
  const over = ([x, y, z]: Vec): Vec => [x, y, mirrored ? -z : z];
  return { right: over(right), up: over(up), back: over(back), shift, mirrored };
}

export type Project = (point: Vec) => Spot;

/** How a view sees points. Front: the viewer faces the person; side: the person faces right; oblique: between both. */
export function projectionOf(view: View | Eye, position?: Position): Project {
  const { right, up, back } = eyeOf(eyeFor(view, position));
  return ([x, y, z]) => ({
    x: x * right[0] + z * right[2],
    y: -(x * up[0] + y * up[1] + z * up[2]),
    near: x * back[0] + y * back[1] + z * back[2],
  });
}

/** Places as a camera sees them. */
export const seenBy = ({ right, up, back, shift }: Camera): Project => {
  const along = (axis: Vec, [x, y, z]: Vec): number =>
    (x - shift[0]) * axis[0] + y * axis[1] + (z - shift[2]) * axis[2];
  return (point) => ({ x: along(right, point), y: -along(up, point), near: along(back, point) });
};
