/**
 * The bones that carry the skin: those of the skeleton, and helpers that turn half of the way at each joint or share out a twist, so that
 * blending in straight lines is enough. A bone's matrix takes a point of the body at rest to where it is now.
 */
import type { Body, Limbs } from './kinematics.js';
import { about, NO_TURN, product, quaternionOf, shortest, turnedBetween, turnOf, undone } from './quaternion.js';
import { after, axisY, inverse, minus, times, type Turn, turned, unit, type Vec } from './rotation.js';
import { type BodySide, SIDES_OF_BODY } from './skeleton.js';

const MIDDLE_BONES = ['pelvis', 'lumbar', 'thorax', 'neckHalf', 'head'] as const;
const SIDED_BONES = [
  'girdle',
  'shoulderHalf',
  'armSwing',
  'armTwist1',
  'armTwist2',
  'upperArm',
  'elbowHalf',
  'foreSwing',
  'foreTwist',
  'forearm',
  'wristHalf',
  'hand',
  'hipHalf',
  'thigh',
  'kneeHalf',
  'shank',
  'ankleHalf',
  'foot',
  'toes',
] as const;

export type MiddleBone = (typeof MIDDLE_BONES)[number];
export type SidedBone = (typeof SIDED_BONES)[number];
export type Bone = MiddleBone | `${BodySide}.${SidedBone}`;

/** The middle first, then the right side, then the left in the same order. */
export const BONES: readonly Bone[] = [
  ...MIDDLE_BONES,
  ...SIDED_BONES.map((name): Bone => `right.${name}`),
  ...SIDED_BONES.map((name): Bone => `left.${name}`),
];

export const BONE = Object.fromEntries(BONES.map((name, i) => [name, i])) as Readonly<Record<Bone, number>>;

/** The same bone of the other side; one of the middle is its own. */
export const mirroredBone = (bone: number): number => {
  if (bone < MIDDLE_BONES.length) return bone;
  const onRight = bone < MIDDLE_BONES.length + SIDED_BONES.length;
  return onRight ? bone + SIDED_BONES.length : bone - SIDED_BONES.length;
};

/** Numbers of a bone: three rows of a turn and a shift. */
export const BONE_SIZE = 12;

/** A turn of the upper arm about its own length is taken from here on the other way round, in parts of a half turn. */
const TWIST_MOST = 1.25 * Math.PI;
const TWIST_LEAST = -0.75 * Math.PI;

/** The matrices of all bones, `BONE_SIZE` numbers each. */
export function bonesOf(
  body: Body,
  rest: Body,
  out: Float32Array<ArrayBuffer> = new Float32Array(BONES.length * BONE_SIZE),
): Float32Array<ArrayBuffer> {
  const put = (bone: Bone, turn: Turn, from: Vec, to: Vec): void => {
    const o = BONE[bone] * BONE_SIZE;
    const shift = minus(to, turned(turn, from));
    for (let row = 0; row < 3; row += 1) {
      for (let column = 0; column < 3; column += 1) out[o + row * 4 + column] = turn[row * 3 + column] ?? 0;
      out[o + row * 4 + 3] = shift[row] ?? 0;
    }
  };
  const since = (part: 'pelvis' | 'lumbar' | 'thorax' | 'head'): Turn => after(body[part], inverse(rest[part]));
  const [thorax, head] = [since('thorax'), since('head')];
  put('pelvis', since('pelvis'), rest.root, body.root);
  put('lumbar', since('lumbar'), rest.waist, body.waist);
  put('thorax', thorax, rest.chest, body.chest);
  put('neckHalf', halfway(thorax, head), rest.nape, body.nape);
  put('head', head, rest.headBase, body.headBase);
  for (const side of SIDES_OF_BODY) {
    const [now, was] = [body[side], rest[side]];
    const limb = (bone: SidedBone, turn: Turn, joint: JointName): void =>
      put(`${side}.${bone}`, turn, was[joint], now[joint]);
    limb('girdle', girdleOf(body, rest, side), 'clavicle');
    for (const [bone, turn, joint] of [...arm(now, was, thorax, side), ...leg(now, was, since('pelvis'))])
      limb(bone, turn, joint);
  }
  return out;
}

type JointName = 'clavicle' | 'shoulder' | 'elbow' | 'wrist' | 'hip' | 'knee' | 'ankle' | 'ball';
type Part = 'upperArm' | 'forearm' | 'hand' | 'thigh' | 'shank' | 'foot' | 'toes';
type BoneTurn = readonly [bone: SidedBone, turn: Turn, joint: JointName];

const halfway = (a: Turn, b: Turn): Turn => turnOf(turnedBetween(quaternionOf(a), quaternionOf(b), 0.5));

/** The shoulder's own shift on the thorax: the shortest turn of the line from the clavicle. */
function girdleOf(body: Body, rest: Body, side: BodySide): Turn {
  const line = (one: Body): Vec => unit(turned(inverse(one.thorax), minus(one[side].shoulder, one[side].clavicle)));
  return after(after(body.thorax, turnOf(shortest(line(rest), line(body)))), inverse(rest.thorax));
}

/** The swing of the arm from its rest, as the thorax sees it, and the twist that is left, in thirds; the forearm's likewise, in halves. */
function arm(now: Limbs, was: Limbs, thorax: Turn, side: BodySide): BoneTurn[] {
  const since = (part: Part): Turn => after(now[part], inverse(was[part]));
  const [upper, fore, hand] = [since('upperArm'), since('forearm'), since('hand')];
  const chest = quaternionOf(thorax);
  const relative = quaternionOf(after(inverse(thorax), upper));
  const along = times(axisY(was.upperArm), -1);
  const swing = shortest(along, turned(turnOf(relative), along));
  const left = product(undone(swing), relative);
  const out = side === 'right' ? 1 : -1;
  let angle = 2 * Math.atan2(left[0] * along[0] + left[1] * along[1] + left[2] * along[2], left[3]) * out;
  while (angle > TWIST_MOST) angle -= 2 * Math.PI;
  while (angle < TWIST_LEAST) angle += 2 * Math.PI;
  const twisted = (share: number): Turn => turnOf(product(chest, product(swing, about(along, angle * out * share))));

  const elbow = quaternionOf(upper);
  const bent = quaternionOf(after(inverse(upper), fore));
  const foreAlong = times(axisY(was.forearm), -1);
  const bend = shortest(foreAlong, turned(turnOf(bent), foreAlong));
  const roll = product(undone(bend), bent);
  return [
    ['shoulderHalf', turnOf(product(chest, turnedBetween(NO_TURN, swing, 0.5))), 'shoulder'],
    ['armSwing', twisted(0), 'shoulder'],
    ['armTwist1', twisted(1 / 3), 'shoulder'],
    ['armTwist2', twisted(2 / 3), 'shoulder'],
    ['upperArm', upper, 'shoulder'],
    ['elbowHalf', turnOf(product(elbow, turnedBetween(NO_TURN, bend, 0.5))), 'elbow'],
    ['foreSwing', turnOf(product(elbow, bend)), 'elbow'],
    ['foreTwist', turnOf(product(elbow, product(bend, turnedBetween(NO_TURN, roll, 0.5)))), 'elbow'],
    ['forearm', fore, 'elbow'],
    ['wristHalf', halfway(fore, hand), 'wrist'],
    ['hand', hand, 'wrist'],
  ];
}

function leg(now: Limbs, was: Limbs, pelvis: Turn): BoneTurn[] {
  const since = (part: Part): Turn => after(now[part], inverse(was[part]));
  const [thigh, shank, foot] = [since('thigh'), since('shank'), since('foot')];
  return [
    ['hipHalf', halfway(pelvis, thigh), 'hip'],
    ['thigh', thigh, 'hip'],
    ['kneeHalf', halfway(thigh, shank), 'knee'],
    ['shank', shank, 'knee'],
    ['ankleHalf', halfway(shank, foot), 'ankle'],
    ['foot', foot, 'ankle'],
    ['toes', since('toes'), 'ball'],
  ];
}
