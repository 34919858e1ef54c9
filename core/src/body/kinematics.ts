/** Forward kinematics: a pose and the place of the pelvis → where every joint is and how every segment is turned. */
import { aboutX, aboutY, aboutZ, add, after, type Turn, turned, type Vec } from './rotation.js';
import { type BodySide, type Pose, SEGMENT, SIDE_ANGLES, STATURE_CM } from './skeleton.js';

const cm = (fraction: number): number => fraction * STATURE_CM;

/** Segment lengths in centimetres. */
export const LENGTH = Object.fromEntries(
  Object.entries(SEGMENT).map(([name, fraction]) => [name, cm(fraction)]),
) as Readonly<Record<keyof typeof SEGMENT, number>>;

/** One arm and leg. Points in centimetres, turns of the segments in the room. */
export interface Limbs {
  clavicle: Vec;
  shoulder: Vec;
  elbow: Vec;
  wrist: Vec;
  knuckles: Vec;
  fingertip: Vec;
  hip: Vec;
  knee: Vec;
  ankle: Vec;
  heel: Vec;
  ball: Vec;
  toe: Vec;
  upperArm: Turn;
  forearm: Turn;
  hand: Turn;
  thigh: Turn;
  shank: Turn;
  foot: Turn;
  toes: Turn;
}

export interface Body {
  /** Midway between the hip joints. */
  root: Vec;
  waist: Vec;
  /** Top of the lumbar spine. */
  chest: Vec;
  /** Top of the thoracic spine, where the neck begins. */
  nape: Vec;
  headBase: Vec;
  crown: Vec;
  pelvis: Turn;
  lumbar: Turn;
  thorax: Turn;
  head: Turn;
  left: Limbs;
  right: Limbs;
}

/** +1 for the right side, −1 for the left: which way is out. */
export const outward = (side: BodySide): 1 | -1 => (side === 'right' ? 1 : -1);

const spine = (base: Turn, pose: Pose, part: 'lumbar' | 'thorax' | 'neck'): Turn =>
  after(base, after(aboutY(pose[`${part}.twist`]), after(aboutZ(-pose[`${part}.flex`]), aboutX(pose[`${part}.side`]))));

/** A ball joint: bend, then out to the side, then turn about the limb's own length. */
const ballJoint = (base: Turn, out: 1 | -1, flex: number, away: number, turn: number): Turn =>
  after(base, after(aboutZ(flex), after(aboutX(-out * away), aboutY(out * turn))));

export function armOf(
  pose: Pose,
  side: BodySide,
  nape: Vec,
  thorax: Turn,
): Pick<
  Limbs,
  'clavicle' | 'shoulder' | 'elbow' | 'wrist' | 'knuckles' | 'fingertip' | 'upperArm' | 'forearm' | 'hand'
> {
  const out = outward(side);
  const at = SIDE_ANGLES[side];
  const clavicle = add(nape, turned(thorax, [0, -LENGTH.sternumToClavicle, out * LENGTH.sternumToClavicle]));
  const girdle = after(
    thorax,
    after(aboutX(-out * pose[at['girdle.raise']]), aboutY(out * pose[at['girdle.forward']])),
  );
  const shoulder = add(clavicle, turned(girdle, [0, 0, out * (LENGTH.halfShoulders - LENGTH.sternumToClavicle)]));
  const upperArm = ballJoint(
    thorax,
    out,
    pose[at['shoulder.flex']],
    pose[at['shoulder.out']],
    pose[at['shoulder.turn']],
  );
  const elbow = add(shoulder, turned(upperArm, [0, -LENGTH.upperArm, 0]));
  const forearm = after(upperArm, after(aboutZ(pose[at['elbow.flex']]), aboutY(out * pose[at['forearm.turn']])));
  const wrist = add(elbow, turned(forearm, [0, -LENGTH.forearm, 0]));
  const hand = after(forearm, after(aboutZ(pose[at['wrist.tilt']]), aboutX(out * pose[at['wrist.flex']])));
  return {
    clavicle,
    shoulder,
    elbow,
    wrist,
    knuckles: add(wrist, turned(hand, [0, -LENGTH.hand / 2, 0])),
    fingertip: add(wrist, turned(hand, [0, -LENGTH.hand, 0])),
    upperArm,
    forearm,
    hand,
  };
}

export function legOf(
  pose: Pose,
  side: BodySide,
  root: Vec,
  pelvis: Turn,
): Pick<Limbs, 'hip' | 'knee' | 'ankle' | 'heel' | 'ball' | 'toe' | 'thigh' | 'shank' | 'foot' | 'toes'> {
  const out = outward(side);
  const at = SIDE_ANGLES[side];
  const hip = add(root, turned(pelvis, [0, 0, out * LENGTH.halfHips]));
  const thigh = ballJoint(pelvis, out, pose[at['hip.flex']], pose[at['hip.out']], pose[at['hip.turn']]);
  const knee = add(hip, turned(thigh, [0, -LENGTH.thigh, 0]));
  const shank = after(thigh, aboutZ(-pose[at['knee.flex']]));
  const ankle = add(knee, turned(shank, [0, -LENGTH.shank, 0]));
  const foot = after(
    shank,
    after(
      aboutY(out * pose[at['ankle.turn']]),
      after(aboutZ(pose[at['ankle.flex']]), aboutX(out * pose[at['ankle.tilt']])),
    ),
  );
  const toes = after(foot, aboutZ(pose[at['toes.up']]));
  const ball = add(ankle, turned(foot, BALL_FROM_ANKLE));
  return {
    hip,
    knee,
    ankle,
    heel: add(ankle, turned(foot, [-LENGTH.heelBehindAnkle, -LENGTH.ankleHeight, 0])),
    ball,
    toe: add(ball, turned(toes, [LENGTH.toes, 0, 0])),
    thigh,
    shank,
    foot,
    toes,
  };
}

/** Where the ball of the foot is, in the frame of the foot. */
export const BALL_FROM_ANKLE: Vec = [LENGTH.ball, -LENGTH.ankleHeight, 0];

/** How the pelvis is turned in the room. */
export const pelvisOf = (pose: Pose): Turn =>
  after(aboutY(pose['pelvis.turn']), after(aboutZ(-pose['pelvis.tilt']), aboutX(pose['pelvis.list'])));

/** The whole body with its pelvis at `root`. */
export function bodyAt(pose: Pose, root: Vec = [0, 0, 0]): Body {
  const pelvis = pelvisOf(pose);
  const waist = add(root, turned(pelvis, [0, LENGTH.pelvis, 0]));
  const lumbar = spine(pelvis, pose, 'lumbar');
  const chest = add(waist, turned(lumbar, [0, LENGTH.lumbar, 0]));
  const thorax = spine(lumbar, pose, 'thorax');
  const nape = add(chest, turned(thorax, [0, LENGTH.thorax, 0]));
  const head = spine(thorax, pose, 'neck');
  const headBase = add(nape, turned(head, [0, LENGTH.neck, 0]));
  const limbs = (side: BodySide): Limbs =>
    Object.assign(armOf(pose, side, nape, thorax), legOf(pose, side, root, pelvis));
  return {
    root,
    waist,
    chest,
    nape,
    headBase,
    crown: add(headBase, turned(head, [0, LENGTH.head, 0])),
    pelvis,
    lumbar,
    thorax,
    head,
    left: limbs('left'),
    right: limbs('right'),
  };
}
