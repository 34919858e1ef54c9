/** The parts of a body, each made into triangles: skin, clothes, shoes and hair. */
import { type Hair, HAIRS, type Hand, HANDS, LENGTH, type Vec, type Zone } from '@waxwing/core/body';

import { type Anatomy, anatomyOf } from './anatomy.js';
import { BUILD, type BuildName } from './build.js';
import { hemmed, type Shaded, shaded } from './cloth.js';
import { shirtOf, shoeOf, shortsOf, skinEndsOf } from './clothes.js';
import { type Field, symmetric } from './field.js';
import { hairOf } from './hair.js';
import {
  coarseOf,
  cutTo,
  drawnOnto,
  type Grid,
  simplified,
  type Surface,
  surfaceNet,
  thinnedBorder,
  type Triangle,
  welded,
} from './surface.js';
import { type Pulls, weightsOf } from './weights.js';

interface PartPlan extends Grid {
  name: string;
  zone: Zone;
  field: Field;
  keep: readonly Field[];
  /** Cut at the middle, for its mirror image to go on from there. */
  half?: boolean;
  /** Triangles, at most about so many. */
  most: number;
  /** Edges of the border shorter than this are drawn together, in centimetres. */
  edge: number;
  /** Cloth is as thick as this at its edges, in centimetres. */
  thick?: number;
  pulls: (p: Vec) => Pulls;
  hand?: Hand;
  hair?: Hair;
}

export interface MadePart {
  plan: Pick<PartPlan, 'name' | 'zone' | 'hand' | 'hair' | 'pulls'>;
  surface: Shaded;
  coarse: readonly Triangle[];
}

export interface MadeBody {
  anatomy: Anatomy;
  parts: MadePart[];
  /** Everything that stands in the light of something else, at rest. */
  everything: Field;
}

function plansFor(body: Anatomy): { plans: PartPlan[]; everything: Field } {
  const { root, right } = body;
  const shorts = shortsOf(body);
  const shirt = shirtOf(body, shorts.field);
  const { shoe, sole } = shoeOf(body);
  const ends = skinEndsOf(body);
  const pulls = weightsOf(body);
  const room = (x: number, y: number, z: number): Vec => [root[0] + x, root[1] + y, z];
  const onArm = { turn: right.upperArm, origin: right.shoulder };
  const onLeg = { turn: right.thigh, origin: right.hip };
  const onFoot = { turn: right.foot, origin: right.ankle };
  const armBox = [
    [-11, -(LENGTH.upperArm + LENGTH.forearm + LENGTH.hand + 6), -11],
    [11, -4, 11],
  ] as const;

  const plans: PartPlan[] = [
    ...HANDS.map((hand): PartPlan => ({
      name: `arm, ${hand}`,
      zone: 'skin',
      hand,
      field: symmetric(body.arm(hand)),
      box: armBox,
      step: 0.62,
      frame: onArm,
      keep: [ends.arm],
      most: 480,
      edge: 1.6,
      pulls: pulls.arm,
    })),
    {
      name: 'leg',
      zone: 'skin',
      field: body.leg,
      box: [
        [-12, -92, -12],
        [12, -14, 12],
      ],
      step: 0.85,
      frame: onLeg,
      keep: [ends.leg],
      most: 620,
      edge: 2.4,
      pulls: pulls.leg,
    },
    {
      name: 'head',
      zone: 'skin',
      field: body.headAndNeck,
      box: [room(-14, 42, -1.5), room(15, 84, 14)],
      step: 0.55,
      keep: [ends.head, (p) => 13 - p[2]],
      half: true,
      most: 720,
      edge: 0.8,
      pulls: pulls.head,
    },
    ...HAIRS.map((hair): PartPlan => {
      const { field, keep } = hairOf(body, hair);
      return {
        name: `hair, ${hair}`,
        zone: 'hair',
        hair,
        field,
        box: [room(-20, 54, -1.5), room(16, 90, 13)],
        step: 0.6,
        keep: [keep, (p) => field(p) - body.head(p) + 9],
        half: true,
        most: 180,
        edge: 0.9,
        thick: 0.9,
        pulls: pulls.hair,
      };
    }),
    {
      name: 'shirt',
      zone: 'top',
      ...shirt,
      box: [room(-22, -8, -1.8), room(22, 62, 48)],
      step: 0.8,
      keep: [shirt.keep],
      half: true,
      most: 700,
      edge: 1.6,
      thick: 0.9,
      pulls: pulls.shirt,
    },
    {
      name: 'shorts',
      zone: 'shorts',
      ...shorts,
      box: [room(-18, -42, -1.8), room(18, 16, 26)],
      step: 0.8,
      keep: [shorts.keep],
      half: true,
      most: 600,
      edge: 1.6,
      thick: 1,
      pulls: pulls.shorts,
    },
    {
      name: 'shoe',
      zone: 'shoe',
      field: shoe.field,
      box: [
        [-12, -9, -8],
        [26, 6, 8],
      ],
      step: 0.6,
      frame: onFoot,
      keep: [shoe.keep],
      most: 300,
      edge: 1.6,
      thick: 0.5,
      pulls: pulls.shoe,
    },
    {
      name: 'sole',
      zone: 'sole',
      field: sole.field,
      box: [
        [-12, -9, -8],
        [26, 2, 8],
      ],
      step: 0.5,
      frame: onFoot,
      keep: [sole.keep],
      most: 150,
      edge: 1.6,
      thick: 0.5,
      pulls: pulls.shoe,
    },
  ];

  const cut =
    ({ field, keep }: { field: Field; keep: Field }): Field =>
    (p) =>
      Math.max(field(p), -keep(p));
  const [cutShirt, cutShorts] = [cut(shirt), cut(shorts)];
  const arms = symmetric(body.arm('open'));
  const FAR = 30;
  // Only what is near is asked: the rest is too far to stand in the light.
  const everything = symmetric((p) => {
    const up = p[1] - root[1];
    return Math.min(
      FAR,
      up > 44 ? body.headAndNeck(p) : FAR,
      up > -8 ? cutShirt(p) : FAR,
      up < 14 ? Math.min(up > -34 ? cutShorts(p) : FAR, body.leg(p)) : FAR,
      up < -70 ? shoe.field(p) : FAR,
      p[2] > 20 ? arms(p) : FAR,
    );
  });
  return { plans, everything };
}

/** Of the triangles in a small picture. */
const COARSE_SHARE = 0.17;

const onMiddle = (p: Vec): boolean => Math.abs(p[2]) < 0.02;

async function made(plan: PartPlan): Promise<MadePart> {
  const { field, keep, half = false, edge, most, thick } = plan;
  const beside = half ? onMiddle : undefined;
  const settled = ({ points, triangles }: Surface): Surface =>
    half
      ? { triangles, points: points.map(([x, y, z]): Vec => [x, y, Math.abs(z) < 0.1 ? 0 : z]) }
      : { points, triangles };
  let surface = drawnOnto(surfaceNet(field, plan), field);
  for (const one of half ? [...keep, (p: Vec) => p[2]] : keep) surface = cutTo(surface, one);
  surface = thinnedBorder(settled(welded(surface)), edge, beside);
  const plainly = shaded(settled(await simplified(surface, most)), field);
  const done = thick === undefined ? plainly : hemmed(plainly, thick, beside);
  return { plan, surface: done, coarse: await coarseOf(done, COARSE_SHARE) };
}

/** Makes a body. Takes some seconds. */
export async function bodyMade(build: BuildName): Promise<MadeBody> {
  const anatomy = anatomyOf(BUILD[build]);
  const { plans, everything } = plansFor(anatomy);
  const parts: MadePart[] = [];
  for (const plan of plans) parts.push(await made(plan));
  return { anatomy, parts, everything };
}
