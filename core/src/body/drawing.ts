/**
 * The drawn figure: from a body and a view to shapes, farthest first. Volume comes from rounded hulls round the bones;
 * what is nearer lies over what is farther, and the far side is a tone lighter.
 */
import type { View } from '../movement/vocabulary.js';
import { contactsOf, type Figure, type FigureFault } from './figure.js';
import { LENGTH, type Body, type Limbs } from './kinematics.js';
import { frameAt, type Frame, type Motion } from './motion.js';
import { circle, ellipse, hull, limb, MM_PER_CM, oval, pathOf, round, type Point } from './outline.js';
import { projectionOf, type Project, type Spot } from './projection.js';
import { add, axisX, axisY, axisZ, between, minus, times, turned, unit, type Turn, type Vec } from './rotation.js';
import { SIDES_OF_BODY, type BodySide } from './skeleton.js';

export const TONES = [
  'skin',
  'skin-far',
  'top',
  'top-far',
  'shorts',
  'shorts-far',
  'hair',
  'shoe',
  'shoe-far',
  'load',
  'prop',
  'line',
] as const;
export type Tone = (typeof TONES)[number];

/** One shape: a path in millimetres with y down, and what it is made of. A `line` is drawn, not filled. */
export interface Shape {
  d: string;
  tone: Tone;
  /** Whether it is set off from what lies behind it: only near limbs lie over their own tone. */
  edge: boolean;
}

export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

interface Placed extends Omit<Shape, 'edge'> {
  near: number;
  edge?: boolean;
}

/** Half widths in centimetres: front to back, and side to side. */
const TRUNK: readonly {
  at: (body: Body) => { place: Vec; frame: Turn };
  deep: number;
  wide: number;
  shorts: boolean;
}[] = [
  {
    at: ({ root, pelvis }) => ({ place: add(root, turned(pelvis, [-1, -5, 0])), frame: pelvis }),
    deep: 9,
    wide: 14,
    shorts: true,
  },
  {
    at: ({ root, pelvis }) => ({ place: add(root, turned(pelvis, [-1.5, 2, 0])), frame: pelvis }),
    deep: 11,
    wide: 16.5,
    shorts: true,
  },
  {
    at: ({ waist, lumbar }) => ({ place: add(waist, turned(lumbar, [0.5, 4, 0])), frame: lumbar }),
    deep: 9,
    wide: 13,
    shorts: false,
  },
  {
    at: ({ chest, thorax }) => ({ place: add(chest, turned(thorax, [1, 3, 0])), frame: thorax }),
    deep: 10.5,
    wide: 14.5,
    shorts: false,
  },
  {
    at: ({ chest, thorax }) => ({ place: add(chest, turned(thorax, [1.5, 14, 0])), frame: thorax }),
    deep: 10.5,
    wide: 16,
    shorts: false,
  },
  {
    at: ({ nape, thorax }) => ({ place: add(nape, turned(thorax, [0, -3, 0])), frame: thorax }),
    deep: 6.5,
    wide: 12,
    shorts: false,
  },
];

const ring = (see: Project, { place, frame }: { place: Vec; frame: Turn }, deep: number, wide: number): Point[] => {
  const middle = see(place);
  const axis = (along: Vec, by: number): Point => {
    const tip = see(add(place, times(along, by)));
    return [tip.x - middle.x, tip.y - middle.y];
  };
  return ellipse(middle, axis(axisX(frame), deep), axis(axisZ(frame), wide));
};

function trunk(body: Body, see: Project): Placed[] {
  const rings = TRUNK.map(({ at, deep, wide }) => ring(see, at(body), deep, wide));
  const shoulders = SIDES_OF_BODY.flatMap((side) => circle(see(between(body[side].shoulder, body.nape, 0.12)), 5));
  const part = (from: number, to: number): string =>
    rings
      .slice(from, to)
      .map((one, i) => pathOf(hull([...one, ...(rings[from + i + 1] ?? one)])))
      .join('');
  const yoke = pathOf(hull([...shoulders, ...(rings[4] ?? [])]));
  const near = see(body.chest).near;
  return [
    { d: part(1, 5) + yoke, tone: 'top', near },
    { d: part(0, 2), tone: 'shorts', near: near + 0.01 },
  ];
}

/** The outline of an egg-shaped body on the picture. */
function egg(see: Project, place: Vec, frame: Turn, deep: number, tall: number, wide: number): string {
  const middle = see(place);
  const axes = [times(axisX(frame), deep), times(axisY(frame), tall), times(axisZ(frame), wide)].map((axis) => {
    const tip = see(add(place, axis));
    return [tip.x - middle.x, tip.y - middle.y] as const;
  });
  const [xx, xy, yy] = axes.reduce(([a, b, c], [x, y]) => [a + x * x, b + x * y, c + y * y], [0, 0, 0]);
  const half = (xx + yy) / 2;
  const root = Math.hypot((xx - yy) / 2, xy);
  const angle = Math.atan2(2 * xy, xx - yy) / 2;
  const long = Math.sqrt(half + root);
  const across = Math.sqrt(Math.max(0, half - root));
  return oval(middle, long, across, angle);
}

function head(body: Body, see: Project): Placed[] {
  const { head: frame, headBase, nape } = body;
  const place = (v: Vec) => add(headBase, turned(frame, v));
  const face = place([2.2, 9.5, 0]);
  const hair = place([0.2, 12.2, 0]);
  const nose = place([11.2, 8.5, 0]);
  const near = (at: Vec) => see(at).near;
  const skull: Placed[] = [
    // The nose is part of the face: a bump from the side, nothing from the front.
    {
      d: egg(see, face, frame, 8.6, 11, 7.2) + round(see(nose), 1.3),
      tone: 'skin',
      near: near(face) + 1,
    },
    { d: egg(see, hair, frame, 9.8, 9.6, 8.1), tone: 'hair', near: near(hair) },
  ];
  const neck: Placed = {
    d: limb([see(add(nape, turned(body.thorax, [0, -3, 0]))), see(place([0.5, 4, 0]))], [6, 5.2]),
    tone: 'skin',
    near: near(nape) - 0.5,
  };
  const middle = near(place([0, 10, 0]));
  // The head is one thing: its parts keep their own order, together in the order of the whole.
  return [neck, ...skull.sort((a, b) => a.near - b.near).map((one, i) => ({ ...one, near: middle + i / 100 }))];
}

const point = (limbs: Limbs, from: 'ankle', v: Vec): Vec => add(limbs[from], turned(limbs.foot, v));

function shoe(limbs: Limbs, see: Project): string {
  const sole = LENGTH.ankleHeight;
  const heel = see(point(limbs, 'ankle', [-LENGTH.heelBehindAnkle + 3, 3.2 - sole, 0]));
  const instep = see(point(limbs, 'ankle', [3, 0.5 - sole / 3, 0]));
  const ball = see(add(limbs.ball, turned(limbs.foot, [0, 2.8, 0])));
  const toe = see(add(limbs.ball, turned(limbs.toes, [LENGTH.toes - 1.5, 2.2, 0])));
  const ankle = see(limbs.ankle);
  return (
    pathOf(hull([...circle(heel, 3.2), ...circle(ankle, 4), ...circle(instep, 3.6), ...circle(ball, 2.9)])) +
    limb([ball, toe], [2.9, 2.1])
  );
}

function leg(body: Body, side: BodySide, see: Project, far: boolean): Placed[] {
  const limbs = body[side];
  const { hip, knee, ankle } = limbs;
  const calf = add(between(knee, ankle, 0.28), turned(limbs.shank, [-1.6, 0, 0]));
  const thigh = add(between(hip, knee, 0.4), turned(limbs.thigh, [0.8, 0, 0]));
  const skin = limb([hip, thigh, knee, calf, ankle].map(see), [9.2, 8.4, 5.6, 5.6, 3.7]);
  const hem = between(hip, knee, 0.55);
  const near = (see(knee).near * 2 + see(hip).near + see(ankle).near) / 4;
  const tone = (name: 'skin' | 'shorts' | 'shoe'): Tone => (far ? `${name}-far` : name);
  return [
    { d: skin, tone: tone('skin'), near, edge: !far },
    { d: limb([hip, thigh, hem].map(see), [9.8, 9.1, 8.2]), tone: tone('shorts'), near: near + 0.02, edge: !far },
    { d: shoe(limbs, see), tone: tone('shoe'), near: near + 0.03 },
  ];
}

function arm(body: Body, side: BodySide, see: Project, far: boolean, closed: boolean): Placed[] {
  const limbs = body[side];
  const { shoulder, elbow, wrist, knuckles, fingertip } = limbs;
  const forearm = between(elbow, wrist, 0.25);
  const upper = between(shoulder, elbow, 0.35);
  const sleeve = between(shoulder, elbow, 0.5);
  const near = (see(shoulder).near + see(elbow).near + see(wrist).near * 2) / 4;
  const fist = between(wrist, knuckles, 0.75);
  const hand = closed
    ? round(see(fist), 4.4) + limb([see(wrist), see(fist)], [2.9, 4.2])
    : limb([wrist, knuckles, fingertip].map(see), [2.9, 3.7, 2.2]) +
      limb([see(between(wrist, knuckles, 0.5)), see(add(knuckles, turned(limbs.hand, [4, 2, 0])))], [2.4, 1.4]);
  const tone = (name: 'skin' | 'top'): Tone => (far ? `${name}-far` : name);
  return [
    {
      d: limb([shoulder, upper, elbow, forearm, wrist].map(see), [6, 5.2, 4, 4.2, 2.9]) + hand,
      tone: tone('skin'),
      near,
      edge: !far,
    },
    { d: limb([shoulder, upper, sleeve].map(see), [6.8, 6, 5.4]), tone: tone('top'), near: near + 0.02, edge: !far },
  ];
}

const box = (see: Project, middle: Vec, [x, y, z]: Vec): string => {
  const corners = [-1, 1].flatMap((i) =>
    [-1, 1].flatMap((j) => [-1, 1].map((k): Vec => [middle[0] + i * x, middle[1] + j * y, middle[2] + k * z])),
  );
  return pathOf(hull(corners.map(see).map(({ x: px, y: py }): Point => [px, py])));
};

const bar = (see: Project, a: Vec, b: Vec, radius: number): string => limb([see(a), see(b)], [radius, radius]);

/** From here on a disc needs more corners to look round. */
const LARGE_CM = 10;

/** A disc across an axis. */
function disc(see: Project, middle: Vec, axis: Vec, radius: number, thick: number): string {
  const side = unit([axis[1], -axis[0], 0], [1, 0, 0]);
  const other: Vec = [
    axis[1] * side[2] - axis[2] * side[1],
    axis[2] * side[0] - axis[0] * side[2],
    axis[0] * side[1] - axis[1] * side[0],
  ];
  const half = (along: Vec, by: number): Point => {
    const m = see(middle);
    const t = see(add(middle, times(along, by)));
    return [t.x - m.x, t.y - m.y];
  };
  const face = (at: Vec) => ellipse(see(at), half(side, radius), half(other, radius), radius > LARGE_CM);
  return pathOf(hull([...face(add(middle, times(axis, thick))), ...face(add(middle, times(axis, -thick)))]));
}

const grip = ({ wrist, knuckles }: Limbs): Vec => between(wrist, knuckles, 0.8);

function dumbbell(see: Project, middle: Vec, axis: Vec): string {
  const end = (by: number) => disc(see, add(middle, times(axis, by)), axis, 5.5, 3);
  return bar(see, add(middle, times(axis, -9)), add(middle, times(axis, 9)), 1.3) + end(9) + end(-9);
}

function bell(see: Project, hand: Vec, down: Vec): string {
  const ball = see(add(hand, times(down, 15)));
  return round(ball, 8.5) + limb([see(hand), ball], [2, 3.5]);
}

function loads(figure: Figure, body: Body, see: Project): Placed[] {
  const [left, right] = [grip(body.left), grip(body.right)];
  const both = between(left, right, 0.5);
  return figure.holds.flatMap(({ item, in: where }): Placed[] => {
    const put = (d: string, at: Vec, by = 3): Placed => ({ d, tone: 'load', near: see(at).near + by });
    const each = where === 'hands' ? SIDES_OF_BODY : where === 'left' || where === 'right' ? [where] : [];
    if (where === 'back' && item === 'dowel') {
      const at = (v: Vec) => add(body.chest, turned(body.thorax, v));
      return [put(bar(see, at([-13, -26, 0]), at([-13, 46, 0]), 1.5), body.chest, 2)];
    }
    if (where === 'back') {
      const at = add(body.chest, turned(body.thorax, [-15, 8, 0]));
      return [put(egg(see, at, body.thorax, 8, 19, 14), at, 0)];
    }
    if (where === 'hips') {
      const at = add(body.root, turned(body.pelvis, [11, 2, 0]));
      return [
        put(item === 'barbell' ? barbell(see, at, axisZ(body.pelvis)) : dumbbell(see, at, axisZ(body.pelvis)), at),
      ];
    }
    if (each.length > 0)
      return each.map((side) => {
        const limbs = body[side];
        const at = grip(limbs);
        if (item === 'bell') return put(bell(see, at, unit(minus(limbs.fingertip, limbs.wrist))), at);
        if (item === 'plate' || item === 'ball') return put(disc(see, at, axisZ(limbs.hand), 11, 2), at);
        return put(dumbbell(see, at, axisX(limbs.hand)), at);
      });
    const across = unit(minus(right, left), [0, 0, 1]);
    if (item === 'barbell') return [put(barbell(see, both, across), both)];
    if (item === 'dowel' || item === 'towel')
      return [put(bar(see, add(both, times(across, -60)), add(both, times(across, 60)), 1.4), both)];
    if (item === 'ball') return [put(round(see(both), 14), both, -2)];
    if (item === 'plate') return [put(disc(see, both, axisX(body.thorax), 18, 2), both)];
    if (item === 'bell') return [put(bell(see, both, [0, -1, 0]), both)];
    // Held upright between the palms, or across both hands.
    return [
      put(dumbbell(see, both, where === 'across' ? across : axisY(body.thorax)), both, where === 'across' ? 3 : -1),
    ];
  });
}

function barbell(see: Project, middle: Vec, axis: Vec): string {
  const at = (by: number) => add(middle, times(axis, by));
  return [-1, 1]
    .map((end) => disc(see, at(end * 70), axis, 21, 2) + disc(see, at(end * 74), axis, 16, 1.6))
    .concat(bar(see, at(-88), at(88), 1.4))
    .join('');
}

const START: Vec = [0, 0, 0];

function lines(figure: Figure, body: Body, see: Project): Placed[] {
  const spots: Readonly<Record<string, readonly Vec[]>> = {
    hands: [grip(body.left), grip(body.right)],
    left: [grip(body.left)],
    right: [grip(body.right)],
    feet: [body.left.ball, body.right.ball],
    knees: [body.left.knee, body.right.knee],
    head: [add(body.headBase, turned(body.head, [0, 8, 0]))],
  };
  return figure.lines.flatMap(({ item, from, to }): Placed[] => {
    const ends = spots[to] ?? [];
    const starts = typeof from === 'string' ? (spots[from] ?? []) : [add(START, from)];
    if (from === to && ends[0] && ends[1]) return [stroke(see, ends[0], ends[1])];
    return ends.map((end, i) => stroke(see, starts[i] ?? starts[0] ?? START, end, item === 'rope' ? 0 : 1));
  });
}

function stroke(see: Project, a: Vec, b: Vec, by = 1): Placed {
  const [p, q]: [Spot, Spot] = [see(a), see(b)];
  const [from, to] = [p, q].map(({ x, y }) => `${Math.round(x * MM_PER_CM)} ${Math.round(y * MM_PER_CM)}`);
  return { d: `M${from}L${to}`, tone: 'line', near: (p.near + q.near) / 2 + by };
}

/** Where furniture stands: under the contacts that rest on it, or at a place of its own. */
function placeOf(motion: Motion, at: Figure['props'][number]['at']): { spots: Vec[]; middle: Vec } {
  if (typeof at !== 'string') return { spots: [], middle: at };
  const spots = contactsOf(at).flatMap((contact) => {
    const anchor = motion.keys.map((key) => key.anchors.get(contact)).find(Boolean);
    return anchor ? [anchor.at] : [];
  });
  const sum = spots.reduce<Vec>((total, spot) => add(total, spot), [0, 0, 0]);
  return { spots, middle: times(sum, 1 / Math.max(1, spots.length)) };
}

/** Furniture stands where the figure begins, so that it does not move with it. */
function props(motion: Motion, see: Project): Placed[] {
  const first = motion.keys[0];
  if (!first) return [];
  return motion.figure.props.flatMap(({ item, at, height }): Placed[] => {
    const { spots, middle } = placeOf(motion, at);
    const wide = spots.length > 1 ? Math.max(20, Math.abs((spots[0]?.[2] ?? 0) - (spots[1]?.[2] ?? 0)) / 2 + 10) : 20;
    const put = (d: string, by = -40): Placed => ({ d, tone: 'prop', near: see(middle).near + by });
    switch (item) {
      case 'wall':
        return [put(box(see, [middle[0] + (middle[0] < first.root[0] ? -4 : 4), 95, middle[2]], [2, 95, 45]), -60)];
      case 'bar':
        return [put(bar(see, [middle[0], middle[1], middle[2] - 55], [middle[0], middle[1], middle[2] + 55], 1.8), -5)];
      case 'mat':
        return [put(box(see, [middle[0], -0.8, 0], [95, 0.8, 32]), -200)];
      case 'slider':
        return spots.map((spot) => put(box(see, [spot[0], 0.6, spot[2]], [10, 0.6, 8]), -30));
      case 'ball':
        return [put(round(see([middle[0], 30, middle[2]]), 30))];
      case 'cushion':
        return [put(box(see, [middle[0], height / 2, middle[2]], [18, height / 2, 18]))];
      case 'chair':
        return [
          put(
            box(see, [middle[0] - 2, height - 2, middle[2]], [21, 2, 21]) +
              [-20, 17]
                .flatMap((x) =>
                  [-19, 19].map((z) =>
                    bar(see, [middle[0] + x, 0, middle[2] + z], [middle[0] + x, height, middle[2] + z], 1.3),
                  ),
                )
                .join('') +
              [-19, 19]
                .map((z) =>
                  bar(see, [middle[0] - 22, height, middle[2] + z], [middle[0] - 25, height + 44, middle[2] + z], 1.3),
                )
                .join('') +
              box(see, [middle[0] - 24.5, height + 38, middle[2]], [1, 6, 19]),
          ),
        ];
      default:
        return [
          put(
            box(
              see,
              [middle[0], height / 2, middle[2]],
              [item === 'bench' ? 26 : 20, height / 2, Math.max(wide, item === 'bench' ? 45 : 24)],
            ),
          ),
        ];
    }
  });
}

/** All shapes of one moment, farthest first. */
export function draw(motion: Motion, frame: Frame, view: View, reflect = false): Shape[] {
  const plain = projectionOf(view);
  const { travelled } = frame;
  const see: Project = ([x, y, z]) => plain([x - travelled[0], y, (z - travelled[2]) * (reflect ? -1 : 1)]);
  const { body } = frame;
  const middle = see(body.root).near;
  const closed = (side: BodySide) =>
    motion.figure.holds.some(
      ({ in: where }) =>
        where !== 'back' && where !== 'hips' && (where !== 'left' && where !== 'right' ? true : where === side),
    ) ||
    motion.figure.lines.some(({ to }) => to === 'hands' || to === side) ||
    motion.figure.props.some(({ item }) => item === 'bar');
  const far = (side: BodySide): boolean => see(body[side].hip).near < middle - 2;
  const shapes = [
    ...props(motion, see),
    ...trunk(body, see),
    ...head(body, see),
    ...SIDES_OF_BODY.flatMap((side) => [
      ...leg(body, side, see, far(side)),
      ...arm(body, side, see, far(side), closed(side)),
    ]),
    ...loads(motion.figure, body, see),
    ...lines(motion.figure, body, see),
  ];
  return shapes.sort((a, b) => a.near - b.near).map(({ d, tone, edge = false }) => ({ d, tone, edge }));
}

/** Where the shadow falls: under what is near the floor, else under the pelvis. */
export function shadowOf({ body, travelled }: Frame, view: View): { x: number; y: number; half: number } {
  const see = projectionOf(view);
  const low = [body.left, body.right]
    .flatMap(({ heel, toe, knee, elbow, fingertip }) => [heel, toe, knee, elbow, fingertip])
    .concat([body.root, body.nape, body.crown])
    .filter(([, y]) => y < 30)
    .map((spot) => see([spot[0] - travelled[0], 0, spot[2] - travelled[2]]));
  const xs = low.length > 0 ? low.map(({ x }) => x) : [see(body.root).x];
  const [least, most] = [Math.min(...xs), Math.max(...xs)];
  return { x: (least + most) / 2, y: low[0]?.y ?? 0, half: (most - least) / 2 + 12 };
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
export function boundsOf(motion: Motion, view: View): Box {
  const see = projectionOf(view);
  const bar = motion.figure.holds.some(({ item }) => item === 'barbell');
  const around = motion.figure.holds.some(({ in: where }) => where !== 'back') ? HELD_CM : FLESH_CM;
  let [left, right, top, bottom] = [Infinity, -Infinity, Infinity, 6];
  const take = (point: Vec, by: number, travelled: Vec): void => {
    const { x, y } = see(minus(point, [travelled[0], 0, travelled[2]]));
    left = Math.min(left, x - by);
    right = Math.max(right, x + by);
    top = Math.min(top, y - by);
    bottom = Math.max(bottom, Math.min(y + by, 14));
  };
  // Of furniture its place is shown: a wall in full would leave little room for whoever leans on it.
  for (const { at } of motion.figure.props) {
    const [x, , z] = placeOf(motion, at).middle;
    take([x, 10, z], FLESH_CM, [0, 0, 0]);
  }
  for (let i = 0; i < MOMENTS; i += 1) {
    const { body, travelled } = frameAt(motion, (motion.seconds * i) / MOMENTS);
    for (const point of [body.root, body.chest, body.nape, body.crown]) take(point, FLESH_CM, travelled);
    for (const side of SIDES_OF_BODY) {
      const { elbow, fingertip, knee, toe, heel, wrist } = body[side];
      for (const point of [elbow, knee, toe, heel]) take(point, FLESH_CM, travelled);
      for (const point of [wrist, fingertip]) take(point, around, travelled);
      if (bar) take(add(wrist, [0, 0, side === 'right' ? BAR_HALF_CM : -BAR_HALF_CM]), HELD_CM, travelled);
    }
  }
  return { x: left, y: top, width: right - left, height: bottom - top };
}

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
export function marksOf({ body, travelled }: Frame, view: View, mark: Place): Spot[] {
  const see = projectionOf(view);
  const spots = MARKED[mark](body).map(([x, y, z]) => see([x - travelled[0], y, z - travelled[2]]));
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
export function arcOf({ body, pose, travelled }: Frame, view: View, joint: NonNullable<Figure['joint']>): Arc {
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
  const see = projectionOf(view);
  const [a, middle, b] = (ends[joint].slice(0, 3) as Vec[]).map(([x, y, z]) =>
    see([x - travelled[0], y, z - travelled[2]]),
  ) as [Spot, Spot, Spot];
  const end = (spot: Spot): Point => {
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
