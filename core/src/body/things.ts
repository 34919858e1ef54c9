/** What is held, what pulls, and what stands about, as solids in the room. */
import { contactsOf, type Figure } from './figure.js';
import type { Body, Limbs } from './kinematics.js';
import { putMachine } from './machines.js';
import type { Motion } from './motion.js';
import { add, axisX, axisY, axisZ, between, cross, minus, times, turned, unit, type Vec } from './rotation.js';
import { type BodySide, SIDES_OF_BODY } from './skeleton.js';
import type { Hand } from './skin-file.js';
import { type Solid, SolidBuilder } from './solid.js';

/** Where a bar lies in a closed hand. */
const grip = ({ wrist, knuckles }: Limbs): Vec => between(wrist, knuckles, 0.8);

/** Held between both palms rather than gripped. */
const CUPPED: ReadonlySet<string> = new Set(['dumbbell', 'bell', 'ball', 'backpack', 'cushion']);
const IN_HANDS: ReadonlySet<string> = new Set(['hands', 'between', 'across']);

/** How a figure's hand is closed: round something, under something heavy, or not at all. */
export function handOf(figure: Figure, side: BodySide): Hand {
  const held = figure.holds.find(({ in: where }) =>
    where === 'left' || where === 'right' ? where === side : IN_HANDS.has(where),
  );
  if (held) return (held.in === 'between' && CUPPED.has(held.item)) || held.item === 'ball' ? 'cupped' : 'shut';
  const pulls = figure.lines.some(({ to }) => to === 'hands' || to === side);
  return pulls || figure.props.some(({ item }) => item === 'bar') ? 'shut' : 'open';
}

const DUMBBELL_HEAD = { from: 6, to: 13, radius: 5.4 } as const;

function dumbbell(into: SolidBuilder, middle: Vec, axis: Vec): void {
  const along = unit(axis);
  into.bar('steel', add(middle, times(along, -8)), add(middle, times(along, 8)), 1.5);
  const { from, to, radius } = DUMBBELL_HEAD;
  for (const end of [1, -1])
    into.lathe('iron', middle, times(along, end), [
      [from, 0],
      [from, radius - 0.9],
      [from + 0.8, radius],
      [to - 0.8, radius],
      [to, radius - 0.9],
      [to, 0],
    ]);
}

const BELL = { radius: 9, below: 14.5, halfHandle: 5.6 } as const;

/** A round bell with its handle in the hands and its weight towards `down`. */
function bell(into: SolidBuilder, hand: Vec, down: Vec, across: Vec): void {
  const { radius, below, halfHandle } = BELL;
  const side = unit(
    minus(across, times(down, across[0] * down[0] + across[1] * down[1] + across[2] * down[2])),
    [0, 0, 1],
  );
  const middle = add(hand, times(down, below));
  into.ball('iron', middle, radius);
  const corner = (end: number): Vec => add(hand, times(side, end * halfHandle));
  into.bar('iron', corner(-1), corner(1), 1.6);
  for (const end of [1, -1]) {
    into.ball('iron', corner(end), 1.6, 12);
    into.bar(
      'iron',
      corner(end),
      add(middle, add(times(side, end * halfHandle * 0.8), times(down, -radius * 0.6))),
      1.6,
    );
  }
}

const BARBELL = { half: 100, plates: [72, 77] } as const;

function barbell(into: SolidBuilder, middle: Vec, axis: Vec): void {
  const along = unit(axis);
  const at = (by: number): Vec => add(middle, times(along, by));
  into.bar('steel', at(-BARBELL.half), at(BARBELL.half), 1.4);
  for (const end of [1, -1])
    BARBELL.plates.forEach((by, i) => {
      const radius = i === 0 ? 20 : 15;
      into.lathe(
        'iron',
        at(end * by),
        times(along, end),
        [
          [-2, 0],
          [-2, radius - 1],
          [-1.2, radius],
          [1.2, radius],
          [2, radius - 1],
          [2, 0],
        ],
        32,
      );
    });
}

const disc = (into: SolidBuilder, middle: Vec, axis: Vec, radius: number): SolidBuilder =>
  into.lathe(
    'iron',
    middle,
    axis,
    [
      [-2, 0],
      [-2, radius - 0.8],
      [-1.2, radius],
      [1.2, radius],
      [2, radius - 0.8],
      [2, 0],
    ],
    28,
  );

const HALF_STICK_CM = 60;

function hold(into: SolidBuilder, { item, in: where }: Figure['holds'][number], body: Body): void {
  const [left, right] = [grip(body.left), grip(body.right)];
  const both = between(left, right, 0.5);
  const across = unit(minus(right, left), [0, 0, 1]);
  const onChest = (v: Vec): Vec => add(body.chest, turned(body.thorax, v));
  if (where === 'back') {
    if (item === 'dowel') into.bar('wood', onChest([-13, -26, 0]), onChest([-13, 46, 0]), 1.5);
    else if (item === 'barbell') barbell(into, onChest([-10, 24, 0]), axisZ(body.thorax));
    else into.box('pack', onChest([-17, 9, 0]), [6.5, 18, 13], body.thorax);
    return;
  }
  if (onLegs(into, item, where, body)) return;
  if (where === 'hips') {
    const at = add(body.root, turned(body.pelvis, [12.5, 2, 0]));
    if (item === 'barbell') barbell(into, at, axisZ(body.pelvis));
    else dumbbell(into, at, axisZ(body.pelvis));
    return;
  }
  const each: readonly BodySide[] =
    where === 'hands' ? SIDES_OF_BODY : where === 'left' || where === 'right' ? [where] : [];
  for (const side of each) {
    const limbs = body[side];
    const at = grip(limbs);
    if (item === 'bell') bell(into, at, bellHangs(limbs, side), axisX(limbs.hand));
    else if (item === 'handle') {
      const half = times(axisX(limbs.hand), 6.5);
      into.bar('iron', minus(at, half), add(at, half), 1.7);
    } else if (item === 'ball') disc(into, at, axisZ(limbs.hand), 11);
    else dumbbell(into, at, axisX(limbs.hand));
  }
  if (each.length > 0) return;
  switch (item) {
    case 'barbell':
      return barbell(into, both, across);
    case 'dowel':
    case 'long-bar':
      into.bar(
        item === 'dowel' ? 'wood' : 'steel',
        add(both, times(across, -HALF_STICK_CM)),
        add(both, times(across, HALF_STICK_CM)),
        1.4,
      );
      return;
    case 'ball':
      into.ball('prop', both, 13);
      return;
    case 'swiss-ball':
      into.ball('prop', [between(body.left.elbow, body.right.elbow, 0.5)[0] + 10, 30, 0], 30, 28);
      return;
    case 'bell':
      return bell(into, both, [0, -1, 0], across);
    case 'backpack':
      into.box('pack', add(both, [0, -14, 0]), [9, 15, 12]);
      return;
    case 'trap-bar':
      return trapBar(into, left, right);
    case 'skip-rope':
      return skipRope(into, left, right, body);
    case 'sled':
      return sled(into, left, right);
    case 'dumbbell':
      // Upright between the palms, its upper head on them; or by its handle across both hands.
      if (where === 'across') return dumbbell(into, both, across);
      return dumbbell(into, add(both, times(axisY(body.thorax), -DUMBBELL_HEAD.from + 1)), axisY(body.thorax));
    default:
      // The rest is drawn with what it stands on, or hand by hand.
      return;
  }
}

/** Which way a bell's weight lies from the hand: beyond it, or on the back of the forearm where the hand is up. */
function bellHangs({ fingertip, wrist, elbow, hand }: Limbs, side: BodySide): Vec {
  const beyond = unit(minus(fingertip, wrist));
  if (beyond[1] < 0.3) return beyond;
  return unit(add(unit(minus(elbow, wrist)), times(axisZ(hand), side === 'right' ? 0.9 : -0.9)));
}

/** A frame round the legs with a handle at each side. */
function trapBar(into: SolidBuilder, left: Vec, right: Vec): void {
  const middle = between(left, right, 0.5);
  const [y, z] = [middle[1], Math.abs(right[2] - left[2]) / 2];
  const at = (x: number, side: number): Vec => [middle[0] + x, y, middle[2] + side];
  for (const side of [-z, z]) {
    into.bar('steel', at(-18, side), at(18, side), 1.6);
    for (const x of [-18, 18]) into.bar('steel', at(x, side), at(x * 1.9, 0), 1.6);
    const out = Math.sign(side);
    into.bar('steel', at(0, side), at(0, side + out * 36), 1.6);
    disc(into, at(0, side + out * 20), [0, 0, 1], 20);
  }
}

/** A rope from hand to hand under the feet. */
function skipRope(into: SolidBuilder, left: Vec, right: Vec, body: Body): void {
  const low = Math.min(body.left.ball[1], body.right.ball[1]) - 4;
  const middle = between(left, right, 0.5);
  const steps = 14;
  const at = (i: number): Vec => {
    const along = i / steps;
    const sag = Math.sin(Math.PI * along) ** 0.6;
    return [
      middle[0] + sag * 10,
      middle[1] + (Math.max(0.6, low) - middle[1]) * sag,
      left[2] + (right[2] - left[2]) * along,
    ];
  };
  for (let i = 0; i < steps; i += 1) into.bar('band', at(i), at(i + 1), 0.7, 8);
}

/** A loaded sled on the floor before the hands, with the poles that they push. */
function sled(into: SolidBuilder, left: Vec, right: Vec): void {
  const [x, , z] = between(left, right, 0.5);
  for (const hand of [left, right]) into.bar('steel', [hand[0], 6, hand[2]], [hand[0], hand[1] + 14, hand[2]], 2);
  for (const side of [-24, 24]) into.box('steel', [x + 34, 4, z + side], [48, 4, 3]);
  into.box('steel', [x + 34, 9, z], [20, 2, 24]);
  for (const up of [13, 18, 23])
    into.lathe(
      'iron',
      [x + 34, up, z],
      [0, 1, 0],
      [
        [-2.4, 0],
        [-2.4, 20],
        [2.4, 20],
        [2.4, 0],
      ],
      28,
    );
}

/** What a machine or a person has at the legs or the head; false for what is held elsewhere. */
function onLegs(
  into: SolidBuilder,
  item: Figure['holds'][number]['item'],
  where: Figure['holds'][number]['in'],
  body: Body,
): boolean {
  const { left, right } = body;
  const across = unit(minus(right.knee, left.knee), [0, 0, 1]);
  switch (where) {
    case 'shins':
    case 'heels': {
      const ahead = where === 'shins' ? 8.5 : -9;
      const at = (limb: Limbs): Vec => add(between(limb.knee, limb.ankle, 0.86), times(axisX(limb.shank), ahead));
      const [a, b] = [at(left), at(right)];
      const over = times(unit(minus(b, a), [0, 0, 1]), 9);
      into.bar('prop', minus(a, over), add(b, over), 5);
      return true;
    }
    case 'knees':
      if (item === 'pads')
        for (const [limb, out] of [
          [left, -1],
          [right, 1],
        ] as const)
          into.box('prop', add(limb.knee, times(across, out * 9)), [9, 7, 3], limb.thigh);
      else if (item === 'board') {
        const under = (limb: Limbs): Vec => add(between(limb.knee, limb.ankle, 0.3), times(axisX(limb.shank), 8));
        into.box('prop', between(under(left), under(right), 0.5), [2.5, 16, 22], right.shank);
      } else if (item === 'ball') into.ball('prop', between(left.knee, right.knee, 0.5), 11);
      else into.box('mat', between(left.knee, right.knee, 0.5), [11, 11, 6], body.pelvis);
      return true;
    case 'feet': {
      const sole = (limb: Limbs): Vec => add(between(limb.heel, limb.ball, 0.6), times(axisY(limb.foot), -3));
      into.box('steel', between(sole(left), sole(right), 0.5), [22, 2, 30], right.foot);
      return true;
    }
    case 'head':
      into.box(
        'mat',
        add(between(body.headBase, body.crown, 0.4), turned(body.head, [-11, 0, 0])),
        [3.5, 12, 16],
        body.head,
      );
      return true;
    case 'hips':
      if (item !== 'seat') return false;
      into.box('iron', add(body.root, [0, -12.5, 0]), [13, 2.5, 13]);
      return true;
    default:
      return false;
  }
}

function lines(into: SolidBuilder, figure: Figure, body: Body): void {
  const spots: Readonly<Record<string, readonly Vec[]>> = {
    hands: [grip(body.left), grip(body.right)],
    left: [grip(body.left)],
    right: [grip(body.right)],
    feet: [body.left.ball, body.right.ball],
    'right-foot': [body.right.ball],
    knees: [body.left.knee, body.right.knee],
    head: [add(body.headBase, turned(body.head, [0, 8, 0]))],
  };
  for (const { item, from, to } of figure.lines) {
    const ends = spots[to] ?? [];
    const starts = typeof from === 'string' ? (spots[from] ?? []) : [from];
    const radius = item === 'strap' ? 1 : 0.7;
    const ink = item === 'cable' ? 'steel' : 'band';
    const pull = (a: Vec | undefined, b: Vec | undefined): void => {
      if (!a || !b) return;
      if (item === 'rope') wave(into, a, b);
      else into.bar(ink, a, b, radius, 8);
    };
    if (from === to) loop(into, ends);
    else ends.forEach((end, i) => pull(starts[i] ?? starts[0], end));
  }
}

/** A heavy rope from its anchor to a hand, with waves in it. */
function wave(into: SolidBuilder, anchor: Vec, hand: Vec): void {
  const steps = 16;
  const at = (i: number): Vec => {
    const along = i / steps;
    const lying = 2 + (hand[1] - 2) * along ** 3;
    const [x, , z] = between(anchor, hand, along);
    return [x, lying + 9 * along * (1 - along) * (1 + Math.sin(i * 1.7 + hand[1] / 6)), z];
  };
  for (let i = 0; i < steps; i += 1) into.bar('wood', at(i), at(i + 1), 1.7, 8);
}

/** A band round both legs: a line outside of each. */
function loop(into: SolidBuilder, [a, b]: readonly Vec[]): void {
  if (!a || !b) return;
  const out = times(unit(minus(b, a)), 6.2);
  const ahead = times(unit(cross(out, [0, 1, 0])), 6);
  const [left, right] = [minus(a, out), add(b, out)];
  for (const side of [1, -1]) into.bar('band', add(left, times(ahead, side)), add(right, times(ahead, side)), 0.9, 8);
  for (const end of [left, right]) into.bar('band', add(end, ahead), minus(end, ahead), 0.9, 8);
}

/** What is held and what pulls, at one moment; nothing where hands are empty. */
export function heldAt(figure: Figure, body: Body): Solid | null {
  const into = new SolidBuilder();
  for (const held of figure.holds) hold(into, held, body);
  lines(into, figure, body);
  return into.empty ? null : into.done();
}

/** Where furniture stands: under the contacts that rest on it, or at a place of its own. */
export function placeOf(motion: Motion, at: Figure['props'][number]['at']): { spots: Vec[]; middle: Vec } {
  if (typeof at !== 'string') return { spots: [], middle: at };
  const spots = contactsOf(at).flatMap((contact) => {
    const anchor = motion.keys.map((key) => key.anchors.get(contact)).find(Boolean);
    return anchor ? [anchor.at] : [];
  });
  const sum = spots.reduce<Vec>((total, spot) => add(total, spot), [0, 0, 0]);
  return { spots, middle: times(sum, 1 / Math.max(1, spots.length)) };
}

/** Furniture stands where the figure begins, so that it does not move with it. */
export function furnitureOf(motion: Motion): Solid | null {
  const into = new SolidBuilder();
  const first = motion.keys[0];
  if (!first) return null;
  for (const { item, at, height } of motion.figure.props) {
    const { spots, middle } = placeOf(motion, at);
    const [x, y, z] = middle;
    const apart = Math.abs((spots[0]?.[2] ?? 0) - (spots[1]?.[2] ?? 0)) / 2;
    switch (item) {
      case 'wall':
        break;
      case 'bar':
        into.bar('steel', [x, y, z - 60], [x, y, z + 60], 1.6);
        break;
      case 'rail':
        into.bar('steel', [x - 60, y, z], [x + 60, y, z], 1.8);
        for (const end of [x - 55, x + 55]) into.bar('steel', [end, 0, z], [end, y, z], 1.5);
        break;
      case 'mat':
        into.box('mat', [x, -0.4, 0], [95, 0.4, 32]);
        break;
      case 'slider':
        for (const spot of spots) into.box('mat', [spot[0], 0.3, spot[2]], [10, 0.4, 7]);
        break;
      case 'ball':
        into.ball('prop', [x, 30, z], 30, 28);
        break;
      case 'cushion':
        into.box('mat', [x, height / 2, z], [18, height / 2, 18]);
        break;
      case 'chair':
        chair(into, middle, height);
        break;
      case 'bench':
      case 'step':
      case 'box': {
        const bench = item === 'bench';
        into.box('prop', [x, height / 2, z], [bench ? 26 : 20, height / 2, Math.max(apart + 10, bench ? 45 : 24)]);
        break;
      }
      default:
        putMachine(into, item, [x, 0, z]);
    }
  }
  return into.empty ? null : into.done();
}

/** The wall that somebody stands at, before or behind them. */
export function wallOf(motion: Motion): Solid | null {
  const into = new SolidBuilder();
  const first = motion.keys[0];
  for (const { item, at } of motion.figure.props) {
    if (item !== 'wall' || !first) continue;
    const [x, , z] = placeOf(motion, at).middle;
    into.box('wall', [x + (x < first.root[0] ? -4 : 4), 95, z], [2, 95, 60]);
  }
  return into.empty ? null : into.done();
}

function chair(into: SolidBuilder, [x, , z]: Vec, height: number): void {
  into.box('prop', [x - 2, height - 2, z], [21, 2, 21]);
  for (const leg of [-20, 17])
    for (const side of [-19, 19]) into.bar('prop', [x + leg, 0, z + side], [x + leg, height - 2, z + side], 1.5);
  for (const side of [-19, 19]) into.bar('prop', [x - 22, height, z + side], [x - 25, height + 44, z + side], 1.5);
  into.box('prop', [x - 24.5, height + 38, z], [1, 6, 19]);
}
