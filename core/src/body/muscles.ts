/**
 * Where muscles lie on the skin, so that those that work can be coloured: by which segment carries a place, how far along it the place is,
 * and to which side of it. Read off surface anatomy (Gray's plates of the superficial muscles), in shares of the segment's length.
 */
import type { Movement } from '../movement/schema.js';
import type { Muscle } from '../movement/vocabulary.js';
import { BONES } from './bones.js';
import { type Body, LENGTH } from './kinematics.js';
import { INKS } from './look.js';
import { restBody } from './rest.js';
import { inverse, minus, type Turn, turned, type Vec } from './rotation.js';
import type { BodySide } from './skeleton.js';
import { PULLS, type Skin } from './skin.js';

type Part = 'thigh' | 'shank' | 'upperArm' | 'forearm' | 'pelvis' | 'lumbar' | 'thorax' | 'neck';

/** A place as its segment sees it: how far along (0 at the near joint, 1 at the far one), and where round it: to the front, and away from the middle, both in parts of the distance from its axis. */
interface Spot {
  part: Part;
  along: number;
  front: number;
  out: number;
  /** Centimetres from the middle of the body. */
  aside: number;
}

type Lies = (spot: Spot) => boolean;

const on =
  (part: Part, from: number, to: number, where: (spot: Spot) => boolean = () => true): Lies =>
  (spot) =>
    spot.part === part && spot.along >= from && spot.along <= to && where(spot);
const either =
  (...all: Lies[]): Lies =>
  (spot) =>
    all.some((one) => one(spot));

const AHEAD: Lies = ({ front }) => front > 0.3;
const BEHIND: Lies = ({ front }) => front < -0.3;
const OUTSIDE: Lies = ({ out }) => out > 0.55;
const INSIDE: Lies = ({ out }) => out < -0.3;

const BELLY = either(
  on('lumbar', -0.1, 1.1, ({ front, aside }) => front > 0 && aside < 7.5),
  on('thorax', 0, 0.34, ({ front, aside }) => front > 0 && aside < 7.5),
);
const FLANK = either(
  on('lumbar', -0.1, 1.1, ({ front, aside }) => aside >= 7.5 && front > -0.75),
  on('thorax', 0, 0.3, ({ front, aside }) => aside >= 7.5 && front > -0.4),
);

const LIES: Readonly<Record<Muscle, Lies>> = {
  quads: on('thigh', 0.1, 0.95, AHEAD),
  hamstrings: on('thigh', 0.16, 0.95, BEHIND),
  adductors: on('thigh', 0.04, 0.6, INSIDE),
  'outer-hips': either(
    on('thigh', -0.3, 0.16, OUTSIDE),
    on('pelvis', 0, 1, ({ front, aside }) => aside > 11 && front < 0.5),
  ),
  glutes: either(
    on('pelvis', -1.4, 0.9, BEHIND),
    on('thigh', -0.3, 0.17, ({ front }) => front < -0.05),
  ),
  'hip-flexors': either(
    on('thigh', -0.25, 0.16, ({ front }) => front > 0.35),
    on('pelvis', -1, 0.3, ({ front, aside }) => front > 0.3 && aside > 4),
  ),
  calves: on('shank', 0.04, 0.62, ({ front }) => front < -0.1),
  shins: on('shank', 0.08, 0.8, ({ front }) => front > 0.25),
  'low-back': either(
    on('lumbar', -0.3, 1.2, ({ front, aside }) => front < -0.1 && aside < 8),
    on('thorax', 0, 0.12, ({ front, aside }) => front < -0.3 && aside < 8),
  ),
  lats: on('thorax', 0, 0.68, ({ front, aside }) => front < 0.25 && aside > 6.5),
  'mid-back': on('thorax', 0.25, 0.78, ({ front, aside }) => front < -0.3 && aside <= 9),
  'upper-back': on('thorax', 0.68, 1.2, ({ front }) => front < 0),
  'shoulder-blades': on('thorax', 0.42, 0.85, ({ front, aside }) => front < -0.25 && aside > 3.5),
  chest: on('thorax', 0.42, 0.95, ({ front }) => front > 0.35),
  'front-shoulders': on('upperArm', -0.4, 0.34, ({ front }) => front > 0.25),
  'side-shoulders': on('upperArm', -0.4, 0.34, ({ out }) => out > 0.2),
  'rear-shoulders': on('upperArm', -0.4, 0.34, ({ front }) => front < -0.2),
  biceps: on('upperArm', 0.3, 0.95, ({ front }) => front > 0.15),
  triceps: on('upperArm', 0.28, 0.97, ({ front }) => front < -0.1),
  forearms: on('forearm', 0.03, 0.75),
  abs: BELLY,
  obliques: FLANK,
  'deep-trunk': on('lumbar', -0.1, 1.1, ({ front }) => front > -0.5),
  neck: on('neck', -1, 2),
};

/** Which segment each bone belongs to. */
const PART_OF: Readonly<Record<string, Part>> = {
  pelvis: 'pelvis',
  lumbar: 'lumbar',
  thorax: 'thorax',
  girdle: 'thorax',
  neckHalf: 'neck',
  shoulderHalf: 'upperArm',
  armSwing: 'upperArm',
  armTwist1: 'upperArm',
  armTwist2: 'upperArm',
  upperArm: 'upperArm',
  elbowHalf: 'forearm',
  foreSwing: 'forearm',
  foreTwist: 'forearm',
  forearm: 'forearm',
  hipHalf: 'thigh',
  thigh: 'thigh',
  kneeHalf: 'thigh',
  shank: 'shank',
};

const REST = restBody();

/** Where a segment begins, how it is turned, and how long it is, at rest; the trunk's go up, the limbs' down. */
function segmentOf(body: Body, part: Part, side: BodySide): { from: Vec; turn: Turn; long: number } {
  const limb = body[side];
  switch (part) {
    case 'thigh':
      return { from: limb.hip, turn: limb.thigh, long: -LENGTH.thigh };
    case 'shank':
      return { from: limb.knee, turn: limb.shank, long: -LENGTH.shank };
    case 'upperArm':
      return { from: limb.shoulder, turn: limb.upperArm, long: -LENGTH.upperArm };
    case 'forearm':
      return { from: limb.elbow, turn: limb.forearm, long: -LENGTH.forearm };
    case 'pelvis':
      return { from: body.root, turn: body.pelvis, long: LENGTH.pelvis };
    case 'lumbar':
      return { from: body.waist, turn: body.lumbar, long: LENGTH.lumbar };
    case 'thorax':
      return { from: body.chest, turn: body.thorax, long: LENGTH.thorax };
    case 'neck':
      return { from: body.nape, turn: body.head, long: LENGTH.neck };
  }
}

/** The bone that pulls most at a vertex. */
function boneOf({ bones, weights }: Skin, v: number): string {
  let best = v * PULLS;
  for (let q = best + 1; q < v * PULLS + PULLS; q += 1) if ((weights[q] ?? 0) > (weights[best] ?? 0)) best = q;
  return BONES[bones[best] ?? 0] ?? 'pelvis';
}

function spotOf(skin: Skin, v: number): Spot | null {
  const bone = boneOf(skin, v);
  const part = PART_OF[bone.slice(bone.indexOf('.') + 1)];
  if (!part) return null;
  const at: Vec = [skin.positions[v * 3] ?? 0, skin.positions[v * 3 + 1] ?? 0, skin.positions[v * 3 + 2] ?? 0];
  const side: BodySide = at[2] >= 0 ? 'right' : 'left';
  const { from, turn, long } = segmentOf(REST, part, side);
  const [x, y, z] = turned(inverse(turn), minus(at, from));
  const away = Math.hypot(x, z) || 1;
  return {
    part,
    along: y / long,
    front: x / away,
    out: (z / away) * (side === 'right' ? 1 : -1),
    aside: Math.abs(at[2]),
  };
}

/** What may be coloured: not hair, shoes and soles. */
const COLOURED: ReadonlySet<string> = new Set(['skin', 'top', 'shorts']);

/** The inks of a skin with the muscles that work coloured: those that do most over those that help. */
export function tinted(skin: Skin, { prime, assist }: Movement['muscles']): Uint8Array {
  const inks = skin.zones.slice();
  const [most, helps] = [INKS.indexOf('prime'), INKS.indexOf('assist')];
  for (let v = 0; v < skin.count; v += 1) {
    if (!COLOURED.has(INKS[skin.zones[v] ?? 0] ?? '')) continue;
    const spot = spotOf(skin, v);
    if (!spot) continue;
    if (prime.some((muscle) => LIES[muscle](spot))) inks[v] = most;
    else if (assist.some((muscle) => LIES[muscle](spot))) inks[v] = helps;
  }
  return inks;
}
