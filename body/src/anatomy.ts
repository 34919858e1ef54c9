/**
 * The implicit body at rest, in the room: centimetres, x forward, y up, z to the body's right. Only the right half is described; limbs are
 * lofts, and ellipsoids are accents on them. What is measured from a joint is in the frame of its segment.
 */
import {
  aboutX,
  aboutZ,
  type Hand,
  inverse,
  LENGTH,
  type Limbs,
  minus,
  restBody,
  turned,
  type Vec,
} from '@waxwing/core/body';

import type { Build } from './build.js';
import { blend, cone, ellipsoid, type Field, loft, type LoftRow, smax, smin, symmetric, within } from './field.js';

export const UPRIGHT = aboutX(0);

export interface Anatomy {
  build: Build;
  root: Vec;
  right: Limbs;
  /** A point in the room as seen from a segment of the right side. */
  inThigh: (p: Vec) => Vec;
  inArm: (p: Vec) => Vec;
  inFoot: (p: Vec) => Vec;
  inHead: (p: Vec) => Vec;
  trunk: Field;
  torso: Field;
  glute: Field;
  neck: Field;
  shoulder: Field;
  upperArm: Field;
  arm: (hand: Hand) => Field;
  thigh: Field;
  leg: Field;
  head: Field;
  headAndNeck: Field;
}

export function anatomyOf(build: Build): Anatomy {
  const body = restBody();
  const { root, right } = body;
  const at = (x: number, y: number, z: number): Vec => [root[0] + x, root[1] + y, root[2] + z];
  const seenFrom = (frame: Parameters<typeof inverse>[0], origin: Vec) => {
    const back = inverse(frame);
    return (p: Vec): Vec => turned(back, minus(p, origin));
  };

  const trunk = within(UPRIGHT, root, loft(build.trunk, { exponent: 2.25 }));
  const { torso, neck } = torsoOf(build, trunk, right, at);
  const glute = ellipsoid(at(-5.2, -3.6, 7.6), build.glutes);
  const shoulder = shoulderOf(build, right);
  const upperArm = within(right.upperArm, right.shoulder, loft(build.upperArm));
  const forearm = within(right.forearm, right.elbow, loft(build.forearm, { cap: 2.5 }));
  const elbow = within(
    right.upperArm,
    right.elbow,
    ellipsoid([-2.3 * build.hands, -0.4, 0], [1.9 * build.hands, 2.6, 2.2 * build.hands]),
  );
  const arm = (hand: Hand): Field =>
    blend(
      blend(shoulder, [upperArm, 3]),
      [forearm, 2.2],
      [elbow, 2],
      [within(right.hand, right.wrist, handOf(hand, build.hands)), 2],
    );
  const { thigh, leg } = legOf(build, right);
  const head = within(body.head, body.headBase, headOf(build.jaw));
  const neckAndTorso = symmetric(blend(neck, [torso, 4]));
  return {
    build,
    root,
    right,
    inThigh: seenFrom(right.thigh, right.hip),
    inArm: seenFrom(right.upperArm, right.shoulder),
    inFoot: seenFrom(right.foot, right.ankle),
    inHead: seenFrom(body.head, body.headBase),
    trunk,
    torso,
    glute,
    neck,
    shoulder,
    upperArm,
    arm,
    thigh,
    leg,
    head,
    headAndNeck: symmetric(blend(head, [neckAndTorso, 2])),
  };
}

type At = (x: number, y: number, z: number) => Vec;

/** Trunk with chest, sides, shoulder blades and the slope from neck to shoulder. */
function torsoOf(build: Build, trunk: Field, right: Limbs, at: At): { torso: Field; neck: Field } {
  const [x, y, z] = right.shoulder;
  const slim = build.shoulders;
  const { chest, neck: slender } = build;
  const torso = blend(
    trunk,
    [ellipsoid(at(...chest.at), chest.half, aboutX(chest.lean)), 5],
    [cone(at(-4, 38, 12.5 * slim), at(-2.5, 23, 10 * slim), 4.6 * slim, 3.4 * slim), 5],
    [ellipsoid(at(-7.4, 38, 8 * slim), [3.6 * slim, 7.5, 6 * slim]), 5],
    [cone(at(-4.6, 49, 3), at(-6, 34, 3.5), 4.4 * slim, 3.4 * slim), 5],
    [cone(at(-2.6, 54.5 - 1.5 * (1 - slim), 2.2), [x - 1.4, y - 0.9, z - 4], 3.3 * slender, 3.4 * slim), 6],
  );
  const neck = blend(cone(at(-0.6, 46, 0), at(0.8, 60, 0), 5.4 * slender, 4.6 * slender), [
    cone(at(4, 46.6, 1.2), at(0.2, 58, 4.2 * slender), 1.2 * slender, 1.3 * slender),
    2.4,
  ]);
  return { torso, neck };
}

function shoulderOf({ shoulders: share }: Build, { shoulder, upperArm }: Limbs): Field {
  const [x, y, z] = shoulder;
  return blend(within(upperArm, shoulder, ellipsoid([0, -4.6, 0], [5.5 * share, 8.2, 4.7 * share])), [
    ellipsoid([x, y - 1.5, z - 1.8], [5.2 * share, 4.5 * share, 5 * share]),
    4,
  ]);
}

function legOf(build: Build, right: Limbs): { thigh: Field; leg: Field } {
  const girth = build.legs;
  const thigh = within(right.thigh, right.hip, loft(build.thigh, { exponent: 2.1, cap: 6 }));
  const onThigh = (c: Vec, r: Vec): Field => within(right.thigh, right.knee, ellipsoid(c, scale(r, girth)));
  const onShank = (c: Vec, r: Vec): Field => within(right.shank, right.knee, ellipsoid(c, scale(r, girth)));
  const onAnkle = (c: Vec, r: Vec): Field => within(right.shank, right.ankle, ellipsoid(c, scale(r, girth)));
  const leg = blend(
    thigh,
    [within(right.shank, right.knee, loft(build.shank, { cap: 3 })), 3],
    [onThigh([2.3 * girth, 7, -3 * girth], [3.4, 5.4, 2.6]), 3],
    [onThigh([2.6 * girth, 10.5, 2.4 * girth], [3.4, 8, 2.9]), 3.5],
    [onThigh([3.7 * girth, 0.4, 0], [2.3, 3.4, 2.9]), 2.2],
    [onShank([-3.2 * girth, -12.5, -2 * girth], [3.4, 8, 3]), 3],
    [onShank([-3 * girth, -11, 2 * girth], [3.2, 7.2, 2.8]), 3],
    [onAnkle([-0.2, -0.4, 3.1 * girth], [1.3, 1.6, 1]), 1],
    [onAnkle([0.3, 0.3, -3.2 * girth], [1.3, 1.6, 1]), 1],
    [within(right.foot, right.ankle, ellipsoid([3, -3.5, 0], [7, 3, 3.2])), 2],
  );
  return { thigh, leg };
}

const scale = ([x, y, z]: Vec, by: number): Vec => [x * by, y, z * by];

/** Knuckle lines of the four fingers: how far to the thumb's side, how long, how thick. */
const FINGERS: readonly (readonly [x: number, long: number, thick: number])[] = [
  [3.1, 17.2, 1.0],
  [1.1, 18.5, 1.05],
  [-1.0, 17.7, 1.0],
  [-2.9, 15.6, 0.9],
];

/** In the frame of the right hand: −y to the fingers, +x to the thumb, the palm faces −z. */
function handOf(hand: Hand, share: number): Field {
  const whole = hand === 'open' ? openHand() : hand === 'shut' ? fist() : cup();
  return (p) => whole([p[0] / share, p[1] / share, p[2] / share]) * share;
}

const palm = (rows: readonly LoftRow[], cap: number): Field => loft(rows, { exponent: 2.6, cap });

const OPEN_PALM: readonly LoftRow[] = [
  [-1, 2.6, 2.6, 1.7, 1.7],
  [2, 3.2, 3.1, 1.8, 1.7],
  [5, 4.1, 4.0, 1.7, 1.8],
  [8.5, 4.3, 4.2, 1.5, 1.6],
  [10, 4.2, 4.0, 1.3, 1.4],
];

function openHand(): Field {
  const fingers = FINGERS.map(([x, long, thick]): [Field, number] => [
    blend(cone([x, -9.2, 0], [x * 0.96, -13.4, -0.3], 1.12, 1.05), [
      cone([x * 0.96, -13.4, -0.3], [x * 0.86, thick - long, -1], 1.03, thick * 0.82),
      0.8,
    ]),
    0.75,
  ]);
  const thumb = blend(cone([2, -2.6, -0.4], [4.7, -6.4, -1.5], 1.7, 1.3), [
    cone([4.7, -6.4, -1.5], [5.6, -9.9, -1.9], 1.2, 0.9),
    0.8,
  ]);
  return blend(palm(OPEN_PALM, 1.5), ...fingers, [thumb, 1.6]);
}

/** Round a bar along x at y = −7.5, z = 0: the back of the hand lies outside, the fingers close on the palm's side. */
function fist(): Field {
  const back = palm(
    [
      [-1, 2.6, 2.6, 1.8, 1.7],
      [2, 3.2, 3.1, 2.3, 1.5],
      [5, 4.0, 3.9, 2.9, 1.3],
      [8.3, 4.2, 4.0, 3.0, 1.6],
    ],
    1.8,
  );
  const fingers = FINGERS.map(([x, , thick]): [Field, number] => {
    const r = thick * 1.22;
    return [
      blend(
        cone([x, -9, 2], [x, -10.6, -0.6], r, r),
        [cone([x, -10.6, -0.6], [x, -8.6, -3], r, r * 0.96), 0.7],
        [cone([x, -8.6, -3], [x, -5.9, -2.2], r * 0.96, r * 0.86), 0.7],
      ),
      0.7,
    ];
  });
  const thumb = blend(cone([2.2, -2.6, 0.2], [4.4, -5.4, -2.4], 1.7, 1.35), [
    cone([4.4, -5.4, -2.4], [2, -7.6, -4.3], 1.25, 0.95),
    0.8,
  ]);
  return blend(back, [ellipsoid([0, -7, -0.2], [3.9, 3.4, 2.6]), 1.2], ...fingers, [thumb, 1.1]);
}

/** Flat under something heavy: the fingers bend a little towards the palm, the thumb stands off. */
function cup(): Field {
  const fingers = FINGERS.map(([x, long, thick]): [Field, number] => [
    blend(cone([x, -9, -0.1], [x * 1.02, -12.6, -1.6], 1.12, 1.05), [
      cone([x * 1.02, -12.6, -1.6], [x * 0.96, thick + 1 - long * 0.92, -4.4], 1.03, thick * 0.84),
      0.8,
    ]),
    0.75,
  ]);
  const thumb = blend(cone([2.2, -2.6, -0.4], [5.2, -5.6, -2.4], 1.7, 1.3), [
    cone([5.2, -5.6, -2.4], [6.2, -8.2, -4.6], 1.2, 0.9),
    0.8,
  ]);
  return blend(palm(OPEN_PALM, 1.5), ...fingers, [thumb, 1.6]);
}

/** In its own frame, with the origin at the top of the neck. A calm face: brow, nose and cheeks, no features beyond. */
function headOf(jaw: number): Field {
  const bare = (): Field => {
    const grownTogether = blend(
      ellipsoid([-0.7, 12.9, 0], [9.5, 9.2, 7.7]),
      [ellipsoid([3, 7.9, 0], [6.1, 8.6, 6 * jaw]), 5],
      [cone([0.4, 4, 4.3 * jaw], [6, 0.9, 1.5 * jaw], 2.1 * jaw, 1.9 * jaw), 2.8],
      [ellipsoid([6.5, 1, 0], [2.2, 2, 2.4 * jaw]), 2.6],
      [ellipsoid([5, 6.8, 3.9], [2.8, 3, 2.2]), 3.4],
      [cone([7.6, 11, 0.4], [5.6, 11, 4.8], 1.2 * jaw, jaw), 2.6],
    );
    const socket = ellipsoid([11.2, 9.2, 3.1], [1.9, 1.4, 2.5]);
    const mouth = ellipsoid([7.4, 3.6, 0], [1.9, 2, 3]);
    const nose = cone([8.4, 10.2, 0], [10, 6.7, 0], 0.75, 1.2);
    return (p) => smin(smin(smax(grownTogether(p), -socket(p), 3), mouth(p), 2.6), nose(p), 1.9);
  };
  const ear = ellipsoid([-0.9, 8.6, 7.7], [1.9, 3, 0.85], aboutZ(12));
  return symmetric(blend(bare(), [ear, 0.9]));
}

/** Where the ankle's sole is, in the frame of the foot. */
export const SOLE = -LENGTH.ankleHeight;
