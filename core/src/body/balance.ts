/** Whether somebody who stands could stand so: the centre of mass over the feet, with what is carried. */
import type { Contact } from './contacts.js';
import type { Figure } from './figure.js';
import type { Body, Limbs } from './kinematics.js';
import { between, type Vec } from './rotation.js';
import { type BodySide, type Pose, SIDES_OF_BODY } from './skeleton.js';

export const BODY_KG = 70;

/** Shares of the body's mass, and where along a segment its centre lies: Winter, Biomechanics and Motor Control of Human Movement, table 4.1. */
const TRUNK_SHARE = 0.497;
const HEAD_SHARE = 0.081;
const LIMB_SHARES: readonly (readonly [share: number, at: (limb: Limbs) => Vec])[] = [
  [0.028, ({ shoulder, elbow }) => between(shoulder, elbow, 0.436)],
  [0.016, ({ elbow, wrist }) => between(elbow, wrist, 0.43)],
  [0.006, ({ knuckles }) => knuckles],
  [0.1, ({ hip, knee }) => between(hip, knee, 0.433)],
  [0.0465, ({ knee, ankle }) => between(knee, ankle, 0.433)],
  [0.0145, ({ heel, toe }) => between(heel, toe, 0.5)],
];

/** Kilograms of what is usually held, all of it together. */
const HELD_KG: Readonly<Partial<Record<Figure['holds'][number]['item'], number>>> = {
  dumbbell: 12,
  bell: 14,
  barbell: 40,
  'trap-bar': 50,
  backpack: 10,
  ball: 5,
};

interface Part {
  kg: number;
  at: Vec;
}

/** The centre of mass of body and load, in centimetres. */
export function centreOfMass(body: Body, holds: Figure['holds'] = []): Vec {
  const parts: Part[] = [
    {
      kg: TRUNK_SHARE * BODY_KG,
      at: between(between(body.root, body.waist, 0.5), between(body.chest, body.nape, 0.5), 0.5),
    },
    { kg: HEAD_SHARE * BODY_KG, at: between(body.headBase, body.crown, 0.5) },
    ...SIDES_OF_BODY.flatMap((side) =>
      LIMB_SHARES.map(([share, at]): Part => ({ kg: share * BODY_KG, at: at(body[side]) })),
    ),
    ...holds.flatMap(({ item, in: where }): Part[] => {
      const kg = HELD_KG[item] ?? 0;
      const both = between(body.left.knuckles, body.right.knuckles, 0.5);
      return kg === 0
        ? []
        : [
            {
              kg,
              at: where === 'left' || where === 'right' ? body[where].knuckles : where === 'back' ? body.nape : both,
            },
          ];
    }),
  ];
  const whole = parts.reduce((sum, { kg }) => sum + kg, 0);
  const along = (i: 0 | 1 | 2): number => parts.reduce((sum, { kg, at }) => sum + kg * at[i], 0) / whole;
  return [along(0), along(1), along(2)];
}

type Flat = readonly [x: number, z: number];

/** Half of a shoe's width. */
const HALF_SHOE_CM = 4;
/** From here a lifted heel carries nothing. */
const CARRIED_BY_TOES = 8;

/** What planted feet cover of the floor: the corners of the smallest area round them (Andrew's monotone chain). */
export function baseOf(body: Body, pose: Pose, feet: readonly BodySide[]): Flat[] {
  const points = feet.flatMap((side): Flat[] => {
    const { heel, ball, toe } = body[side];
    const carried = pose[`${side}.heel.lift`] > CARRIED_BY_TOES ? [ball, toe] : [heel, ball, toe];
    return carried.flatMap(([x, , z]): Flat[] => [
      [x, z - HALF_SHOE_CM],
      [x, z + HALF_SHOE_CM],
    ]);
  });
  const sorted = points.toSorted((a, b) => a[0] - b[0] || a[1] - b[1]);
  const half = (all: readonly Flat[]): Flat[] => {
    const chain: Flat[] = [];
    for (const point of all) {
      for (
        let last = chain.length - 1;
        last > 0 && turn(chain[last - 1] as Flat, chain[last] as Flat, point) <= 0;
        last -= 1
      )
        chain.pop();
      chain.push(point);
    }
    return chain.slice(0, -1);
  };
  return [...half(sorted), ...half(sorted.toReversed())];
}

const turn = (a: Flat, b: Flat, c: Flat): number => (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);

/** Centimetres by which a place lies outside of an area; below nought inside of it. */
export function beyond(base: readonly Flat[], [x, , z]: Vec): number {
  return Math.max(
    ...base.map((a, i) => {
      const b = base[(i + 1) % base.length] as Flat;
      return -turn(a, b, [x, z]) / (Math.hypot(b[0] - a[0], b[1] - a[1]) || 1);
    }),
  );
}

/** So far within the base somebody feels safe, in centimetres. */
const SAFE_CM = 1.5;

/** How far, along the floor, somebody must move to be in balance: towards the middle of their base, and no further than they need. */
export function toBalance(body: Body, pose: Pose, feet: readonly BodySide[], holds: Figure['holds']): Vec {
  const base = baseOf(body, pose, feet);
  const from = centreOfMass(body, holds);
  const middle = (i: 0 | 1): number => base.reduce((sum, point) => sum + point[i], 0) / base.length;
  const way: Vec = [middle(0) - from[0], 0, middle(1) - from[2]];
  const STEPS = 24;
  for (let step = 0; step <= STEPS; step += 1) {
    const share = step / STEPS;
    const by: Vec = [way[0] * share, 0, way[2] * share];
    if (beyond(base, [from[0] + by[0], 0, from[2] + by[2]]) <= -SAFE_CM) return by;
  }
  return way;
}

/** Things that a figure may stand beside, or on, without leaning on them. */
const APART: ReadonlySet<string> = new Set(['mat', 'step', 'hurdle']);

/** The feet that somebody stands on, where nothing else holds them up; null where something does. */
export function standsOn(figure: Figure, contacts: Iterable<Contact>): BodySide[] | null {
  const all = [...contacts];
  const held =
    figure.props.some(({ item, at }) => !APART.has(item) && !(item === 'box' && typeof at === 'string')) ||
    figure.lines.some(({ from }) => typeof from !== 'string');
  if (held || all.length === 0 || !all.every((contact) => contact.endsWith('.foot'))) return null;
  return all.map((contact) => contact.split('.')[0] as BodySide);
}
