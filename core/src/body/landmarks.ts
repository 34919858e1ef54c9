/**
 * Named points on a moving body, as a camera with good eyes would give them, and the joint angles read back from such points.
 * Beside the joints there are markers on the front of each trunk segment and on the inner side of knees, elbows, wrists and ankles:
 * a bone's turn about its own length cannot be seen in its two ends.
 */
import type { Position, View } from '../movement/vocabulary.js';
import { type Body, type Limbs, outward } from './kinematics.js';
import { frameAt, type Motion } from './motion.js';
import { projectionOf, type Spot } from './projection.js';
import {
  add,
  after,
  asYZX,
  asZXY,
  cross,
  degrees,
  dot,
  frameOf,
  inverse,
  length,
  minus,
  times,
  type Turn,
  turned,
  unit,
  type Vec,
} from './rotation.js';
import { type Angle, type BodySide, SIDES_OF_BODY } from './skeleton.js';

const JOINTS = [
  'clavicle',
  'shoulder',
  'elbow',
  'wrist',
  'knuckles',
  'hip',
  'knee',
  'ankle',
  'heel',
  'ball',
  'toe',
] as const;
/** Markers that show how a bone is turned: on the inner side of the joint at its end. */
const INNER = {
  elbow: 'upperArm',
  wrist: 'forearm',
  knuckles: 'hand',
  knee: 'thigh',
  ankle: 'shank',
  ball: 'foot',
} as const;
const MIDDLE = ['root', 'waist', 'chest', 'nape', 'headBase', 'crown'] as const;
const FRONT = { waist: 'pelvis', chest: 'lumbar', nape: 'thorax', crown: 'head' } as const;

export type LandmarkName =
  | (typeof MIDDLE)[number]
  | `${keyof typeof FRONT}.front`
  | `${BodySide}.${(typeof JOINTS)[number]}`
  | `${BodySide}.${keyof typeof INNER}.inner`;

export interface Landmark {
  /** Centimetres in the room. */
  at: Vec;
  /** Where it is on the picture. */
  spot: Spot;
  /** 0–1: how sure one can be to see it from here. */
  seen: number;
}

export type Landmarks = Readonly<Record<LandmarkName, Landmark>>;

const MARKER_CM = 6;

function pointsOf(body: Body): Record<LandmarkName, Vec> {
  const points: Record<string, Vec> = {};
  for (const name of MIDDLE) points[name] = body[name];
  for (const [name, part] of Object.entries(FRONT) as [keyof typeof FRONT, (typeof FRONT)[keyof typeof FRONT]][])
    points[`${name}.front`] = add(body[name], turned(body[part], [MARKER_CM, 0, 0]));
  for (const side of SIDES_OF_BODY) {
    const limbs = body[side];
    for (const name of JOINTS) points[`${side}.${name}`] = limbs[name];
    for (const [name, part] of Object.entries(INNER) as [keyof typeof INNER, keyof Limbs][])
      points[`${side}.${name}.inner`] = add(
        limbs[name],
        turned(limbs[part] as Turn, [0, 0, -outward(side) * MARKER_CM]),
      );
  }
  return points;
}

/** How far round the trunk's middle hides what is behind it. */
const TRUNK_HIDES_CM = 13;
const HIDDEN = 0.2;
const FAR_SIDE = 0.6;

function seenFrom(name: LandmarkName, spot: Spot, trunk: readonly Spot[]): number {
  const hidden = trunk.some(
    (part) =>
      spot.near < part.near - TRUNK_HIDES_CM / 2 && Math.hypot(spot.x - part.x, spot.y - part.y) < TRUNK_HIDES_CM,
  );
  if (hidden) return HIDDEN;
  const [first, last] = [trunk[0], trunk.at(-1)];
  const middle = ((first?.near ?? 0) + (last?.near ?? 0)) / 2;
  return /^(left|right)\./.test(name) && spot.near < middle - 4 ? FAR_SIDE : 1;
}

/** Every landmark of a motion at a time in seconds, seen from one side. Faults are those that the motion was made with. */
export const landmarksAt = (motion: Motion, seconds: number, view: View): Landmarks =>
  landmarksOf(frameAt(motion, seconds).body, view, motion.position);

/** Every landmark of a body, seen from one side. */
export function landmarksOf(body: Body, view: View, position?: Position): Landmarks {
  const see = projectionOf(view, position);
  const trunk = [body.root, body.waist, body.chest, body.nape].map(see);
  return Object.fromEntries(
    Object.entries(pointsOf(body)).map(([name, at]) => {
      const spot = see(at);
      return [name, { at, spot, seen: seenFrom(name as LandmarkName, spot, trunk) }];
    }),
  ) as Landmarks;
}

/** The frame with y along a bone and z towards where a marker is (or away from it). */
function frame(along: Vec, aside: Vec): Turn {
  const y = unit(along);
  const z = unit(minus(aside, times(y, dot(aside, y))), [0, 0, 1]);
  return frameOf(cross(y, z), y, z);
}

/** The frame with y along a trunk segment and x to its front. */
function frontFrame(along: Vec, front: Vec): Turn {
  const y = unit(along);
  const x = unit(minus(front, times(y, dot(front, y))), [1, 0, 0]);
  return frameOf(x, y, cross(x, y));
}

/** Joint angles in degrees from the places of landmarks; the lift of a heel is no joint's and is not among them. */
export function anglesFrom(
  landmarks: Readonly<Record<LandmarkName, Pick<Landmark, 'at'>>>,
): Partial<Record<Angle, number>> {
  const p = (name: LandmarkName): Vec => landmarks[name].at;
  const pelvis = frontFrame(minus(p('waist'), p('root')), minus(p('waist.front'), p('waist')));
  const lumbar = frontFrame(minus(p('chest'), p('waist')), minus(p('chest.front'), p('chest')));
  const thorax = frontFrame(minus(p('nape'), p('chest')), minus(p('nape.front'), p('nape')));
  const head = frontFrame(minus(p('crown'), p('headBase')), minus(p('crown.front'), p('crown')));
  const angles: Partial<Record<Angle, number>> = {};
  const root = asYZX(pelvis);
  angles['pelvis.turn'] = root.y;
  angles['pelvis.tilt'] = -root.z;
  angles['pelvis.list'] = root.x;
  const parts: readonly [name: 'lumbar' | 'thorax' | 'neck', above: Turn, below: Turn][] = [
    ['lumbar', lumbar, pelvis],
    ['thorax', thorax, lumbar],
    ['neck', head, thorax],
  ];
  for (const [name, above, below] of parts) {
    const { y, z, x } = asYZX(after(inverse(below), above));
    angles[`${name}.twist`] = y;
    angles[`${name}.flex`] = -z;
    angles[`${name}.side`] = x;
  }
  for (const side of SIDES_OF_BODY) Object.assign(angles, limbAngles(p, side, pelvis, thorax));
  return angles;
}

function limbAngles(
  p: (name: LandmarkName) => Vec,
  side: BodySide,
  pelvis: Turn,
  thorax: Turn,
): Partial<Record<Angle, number>> {
  const out = outward(side);
  const bone = (from: (typeof JOINTS)[number], to: keyof typeof INNER): Turn =>
    frame(
      minus(p(`${side}.${from}`), p(`${side}.${to}`)),
      times(minus(p(`${side}.${to}.inner`), p(`${side}.${to}`)), -out),
    );
  const upperArm = bone('shoulder', 'elbow');
  const forearm = bone('elbow', 'wrist');
  const hand = bone('wrist', 'knuckles');
  const thigh = bone('hip', 'knee');
  const shank = bone('knee', 'ankle');
  // The foot's own forward axis is the line from heel to ball.
  const forward = unit(minus(p(`${side}.ball`), p(`${side}.heel`)));
  const right = times(minus(p(`${side}.ball.inner`), p(`${side}.ball`)), -out / MARKER_CM);
  const foot = frameOf(forward, cross(right, forward), right);
  const girdle = turned(inverse(thorax), unit(minus(p(`${side}.shoulder`), p(`${side}.clavicle`))));
  const shoulder = asZXY(after(inverse(thorax), upperArm));
  const elbow = asZXY(after(inverse(upperArm), forearm));
  const wrist = asZXY(after(inverse(forearm), hand));
  const hip = asZXY(after(inverse(pelvis), thigh));
  const knee = asZXY(after(inverse(thigh), shank));
  const ankle = asYZX(after(inverse(shank), foot));
  const toes = turned(inverse(foot), minus(p(`${side}.toe`), p(`${side}.ball`)));
  return {
    [`${side}.girdle.forward`]: degrees(Math.asin(girdle[0])),
    [`${side}.girdle.raise`]: degrees(Math.atan2(girdle[1], out * girdle[2])),
    [`${side}.shoulder.flex`]: shoulder.z,
    [`${side}.shoulder.out`]: -out * shoulder.x,
    [`${side}.shoulder.turn`]: out * shoulder.y,
    [`${side}.elbow.flex`]: elbow.z,
    [`${side}.forearm.turn`]: out * elbow.y,
    [`${side}.wrist.tilt`]: wrist.z,
    [`${side}.wrist.flex`]: out * wrist.x,
    [`${side}.hip.flex`]: hip.z,
    [`${side}.hip.out`]: -out * hip.x,
    [`${side}.hip.turn`]: out * hip.y,
    [`${side}.knee.flex`]: -knee.z,
    [`${side}.ankle.turn`]: out * ankle.y,
    [`${side}.ankle.flex`]: ankle.z,
    [`${side}.ankle.tilt`]: out * ankle.x,
    [`${side}.toes.up`]: length(toes) > 0 ? degrees(Math.atan2(toes[1], toes[0])) : 0,
  };
}
