/** What is pointed at on a figure: the region of a fault, and the angle of the joint that tells the most. */
import type { Figure, FigureFault } from './figure.js';
import type { Body } from './kinematics.js';
import type { Frame } from './motion.js';
import type { Project, Spot } from './projection.js';
import { add, between, minus, turned, unit, type Vec } from './rotation.js';
import type { BodySide } from './skeleton.js';

type Place = FigureFault['mark'];

const MARKED: Readonly<Record<Place, (body: Body) => Vec[]>> = {
  head: ({ headBase, crown }) => [between(headBase, crown, 0.5)],
  neck: ({ nape, headBase }) => [between(nape, headBase, 0.5)],
  shoulders: ({ left, right }) => [left.shoulder, right.shoulder],
  elbows: ({ left, right }) => [left.elbow, right.elbow],
  wrists: ({ left, right }) => [left.wrist, right.wrist],
  'upper-back': ({ chest, thorax }) => [add(chest, turned(thorax, [-6, 12, 0]))],
  'low-back': ({ waist, lumbar }) => [add(waist, turned(lumbar, [-6, 6, 0]))],
  hips: ({ left, right }) => [left.hip, right.hip],
  knees: ({ left, right }) => [left.knee, right.knee],
  ankles: ({ left, right }) => [left.ankle, right.ankle],
};

/** Where a fault is pointed at: once where both sides lie behind one another. */
export function marksOf({ body }: Frame, see: Project, mark: Place): Spot[] {
  const spots = MARKED[mark](body).map(see);
  const [one, other] = spots;
  if (!one || !other || Math.hypot(one.x - other.x, one.y - other.y) > 18) return spots;
  return [one.near > other.near ? one : other];
}

export interface Arc {
  at: Spot;
  /** An SVG path from one bone to the other. */
  d: string;
  degrees: number;
}

/** The angle of the joint that tells the most, on the side that bends more: how far it is bent, or how far the trunk leans. */
export function arcOf({ body, pose }: Frame, see: Project, joint: NonNullable<Figure['joint']>): Arc {
  const side: BodySide =
    pose['left.knee.flex'] + pose['left.hip.flex'] > pose['right.knee.flex'] + pose['right.hip.flex'] + 5
      ? 'left'
      : 'right';
  const { hip, knee, ankle, ball, shoulder, elbow, wrist } = body[side];
  const ends: Readonly<Record<typeof joint, readonly [Vec, Vec, Vec, number]>> = {
    knee: [hip, knee, ankle, pose[`${side}.knee.flex`]],
    hip: [shoulder, hip, knee, pose[`${side}.hip.flex`]],
    elbow: [shoulder, elbow, wrist, pose[`${side}.elbow.flex`]],
    shoulder: [hip, shoulder, elbow, Math.max(pose[`${side}.shoulder.flex`], pose[`${side}.shoulder.out`])],
    ankle: [knee, ankle, ball, pose[`${side}.ankle.flex`]],
    trunk: [add(body.root, [0, 40, 0]), body.root, body.nape, leanOf(body)],
  };
  const [a, middle, b] = (ends[joint].slice(0, 3) as Vec[]).map(see) as [Spot, Spot, Spot];
  const end = (spot: Spot): readonly [number, number] => {
    const long = Math.hypot(spot.x - middle.x, spot.y - middle.y) || 1;
    return [middle.x + ((spot.x - middle.x) / long) * ARC_CM, middle.y + ((spot.y - middle.y) / long) * ARC_CM];
  };
  const [from, to] = [end(a), end(b)];
  const left = (from[0] - middle.x) * (to[1] - middle.y) - (from[1] - middle.y) * (to[0] - middle.x);
  const n = (value: number) => Math.round(value * 10) / 10;
  const d = `M${n(from[0])} ${n(from[1])}A${ARC_CM} ${ARC_CM} 0 0 ${left > 0 ? 1 : 0} ${n(to[0])} ${n(to[1])}`;
  return { at: middle, d, degrees: Math.round(ends[joint][3]) };
}

const ARC_CM = 17;

/** Degrees of the trunk from upright. */
function leanOf({ root, nape }: Body): number {
  const along = unit(minus(nape, root));
  return (Math.acos(Math.max(-1, Math.min(1, along[1]))) * 180) / Math.PI;
}
