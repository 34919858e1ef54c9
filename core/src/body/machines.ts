/** Machines and other furniture of several pieces, as data: boxes, bars and wheels about a place on the floor. */
import type { Ink } from './look.js';
import { aboutZ, add, type Vec } from './rotation.js';
import type { SolidBuilder } from './solid.js';

type Place = readonly [x: number, y: number, z: number];

/** One piece, in centimetres from the machine's place; a box is turned by `lean` degrees, its top towards the back. */
type Piece =
  | { box: Place; half: Place; lean?: number; ink: Ink }
  | { bar: readonly [Place, Place]; radius: number; ink: Ink }
  | { wheel: Place; radius: number; half: number; ink: Ink };

const box = (ink: Ink, at: Place, half: Place, lean = 0): Piece => ({ box: at, half, lean, ink });
const bar = (ink: Ink, from: Place, to: Place, radius = 2): Piece => ({ bar: [from, to], radius, ink });
const wheel = (ink: Ink, at: Place, radius: number, half: number): Piece => ({ wheel: at, radius, half, ink });
/** The same on both sides. */
const sides = (z: number, piece: (z: number) => Piece): Piece[] => [piece(-z), piece(z)];

/** A seat with a back pad, the seat's top `high` above the floor under whoever sits on it. */
const seat = (high: number, lean = 8): Piece[] => [
  box('prop', [2, high - 3, 0], [20, 3, 17]),
  box('prop', [-17 - lean * 0.4, high + 30, 0], [3, 32, 16], lean),
  bar('steel', [0, 0, 0], [0, high - 5, 0], 4),
  box('steel', [0, 1.5, 0], [26, 1.5, 14]),
];

const tower = (x: number, high = 205): Piece[] => [
  ...sides(13, (z) => bar('steel', [x, 0, z], [x, high, z], 2.4)),
  bar('steel', [x, high, -13], [x, high, 13], 2.4),
  box('iron', [x, 40, 0], [5, 38, 10]),
  box('steel', [x, 1.5, 0], [14, 1.5, 22]),
];

export const MACHINES = {
  'cable-tower': tower(0),
  anchor: [bar('steel', [0, 0, 0], [0, 200, 0], 2.4), box('steel', [0, 1.5, 0], [14, 1.5, 14])],
  /** A bench with its back at a slope: its place is under the seat. */
  'sloping-bench': [
    box('prop', [4, 41, 0], [18, 3, 14]),
    box('prop', [-37, 63, 0], [41, 3, 14], -34),
    bar('steel', [10, 0, 0], [0, 38, 0], 2.4),
    bar('steel', [-62, 0, 0], [-50, 68, 0], 2.4),
    ...[14, -62].map((x): Piece => bar('steel', [x, 2, -18], [x, 2, 18])),
  ],
  /** A slope to lie on with the chest: its place is under the hips. */
  'chest-rest': [
    box('prop', [42, 74, 0], [36, 3, 13], 40),
    bar('steel', [62, 0, 0], [50, 78, 0], 2.6),
    bar('steel', [62, 2, -20], [62, 2, 20]),
    bar('steel', [18, 2, 0], [62, 2, 0]),
  ],
  'machine-seat': seat(44),
  'press-seat': [...seat(44, 4), ...tower(-40, 150)],
  'pull-seat': [
    box('prop', [2, 43, 0], [18, 3, 16]),
    bar('steel', [0, 0, 0], [0, 41, 0], 4),
    ...tower(78, 225),
    bar('steel', [78, 224, 0], [8, 224, 0], 2.4),
    box('prop', [30, 62, 0], [6, 4, 22]),
    bar('steel', [34, 62, 0], [76, 62, 0], 2.4),
  ],
  'leg-press-seat': [
    box('prop', [0, 27, 0], [20, 3, 18], -12),
    box('prop', [-40, 55, 0], [34, 3.5, 18], -42),
    bar('steel', [-52, 0, 0], [-44, 58, 0], 3),
    bar('steel', [0, 0, 0], [0, 25, 0], 3),
    ...sides(24, (z) => bar('steel', [-30, 4, z], [110, 92, z], 2.6)),
    ...sides(24, (z) => bar('steel', [110, 0, z], [110, 92, z], 2.6)),
  ],
  'back-bench': [
    box('prop', [8, 74, 0], [12, 5, 20], 45),
    bar('steel', [8, 0, 0], [8, 70, 0], 3),
    bar('steel', [8, 2, 0], [-70, 2, 0], 2.6),
    bar('steel', [-60, 2, 0], [-60, 22, 0], 2.6),
    bar('prop', [-63, 26, -20], [-63, 26, 20], 5),
    box('steel', [-72, 8, 0], [12, 1.5, 18], -28),
    ...[8, -66].map((x): Piece => bar('steel', [x, 2, -22], [x, 2, 22])),
  ],
  'assist-pad': [...tower(46, 240), ...sides(26, (z) => bar('steel', [40, 236, z], [-8, 236, z], 2))],
  rower: [
    bar('steel', [-60, 26, 0], [96, 26, 0], 3),
    bar('steel', [-56, 0, 0], [-56, 26, 0], 2.4),
    bar('steel', [-56, 1.5, -22], [-56, 1.5, 22], 2),
    wheel('iron', [116, 32, 0], 28, 9),
    box('steel', [76, 32, 0], [3, 11, 17], 40),
    bar('steel', [116, 1.5, -24], [116, 1.5, 24], 2),
  ],
  bike: [
    wheel('iron', [52, 36, 0], 26, 7),
    bar('steel', [-28, 4, 0], [56, 4, 0], 3),
    bar('steel', [18, 30, 0], [-4, 84, 0], 3),
    bar('steel', [18, 30, 0], [52, 36, 0], 3),
    bar('steel', [36, 40, 0], [52, 112, 0], 3),
    bar('iron', [48, 112, -20], [48, 112, 20], 2),
    box('iron', [-6, 87, 0], [13, 3, 8]),
    wheel('steel', [18, 30, 0], 10, 3),
    ...[-28, 56].map((x): Piece => bar('steel', [x, 2, -22], [x, 2, 22])),
  ],
  wheelchair: [
    box('iron', [0, 44, 0], [20, 2, 19]),
    box('iron', [-20, 66, 0], [2, 20, 19], 6),
    ...sides(24, (z) => wheel('iron', [-8, 30, z], 30, 1.4)),
    ...sides(24, (z) => wheel('steel', [-8, 30, z], 25, 1.8)),
    ...sides(16, (z) => wheel('iron', [32, 8, z], 8, 1.6)),
    ...sides(20, (z) => bar('steel', [-20, 66, z], [18, 66, z], 2)),
    ...sides(18, (z) => bar('steel', [20, 42, z], [36, 12, z], 1.8)),
    box('iron', [40, 8, 0], [9, 1, 16], -12),
  ],
  /** A bench that something can lie under. */
  'open-bench': [
    box('prop', [0, 37, 0], [24, 3, 15]),
    ...[-18, 18].flatMap((x) => sides(11, (z) => bar('steel', [x, 0, z], [x, 35, z], 1.6))),
  ],
  rack: [
    ...sides(55, (z) => bar('steel', [0, 0, z], [0, 190, z], 3)),
    ...sides(55, (z) => bar('steel', [-22, 2, z], [22, 2, z], 2.6)),
  ],
  hurdle: [...sides(30, (z) => box('mat', [0, 5, z], [5, 5, 5])), bar('wood', [0, 11, -40], [0, 11, 40], 1.5)],
  rug: [bar('mat', [0, 4.5, -32], [0, 4.5, 32], 5)],
} as const satisfies Record<string, readonly Piece[]>;

export type Machine = keyof typeof MACHINES;
export const MACHINE_ITEMS = Object.keys(MACHINES) as [Machine, ...Machine[]];

const DISC_SIDES = 28;

/** Puts a machine down with its place at `at`. */
export function putMachine(into: SolidBuilder, name: Machine, at: Vec): void {
  const there = (place: Place): Vec => add(at, place as Vec);
  for (const piece of MACHINES[name] as readonly Piece[])
    if ('box' in piece) into.box(piece.ink, there(piece.box), piece.half as Vec, aboutZ(piece.lean ?? 0));
    else if ('bar' in piece) into.bar(piece.ink, there(piece.bar[0]), there(piece.bar[1]), piece.radius);
    else
      into.lathe(
        piece.ink,
        there(piece.wheel),
        [0, 0, 1],
        [
          [-piece.half, 0],
          [-piece.half, piece.radius],
          [piece.half, piece.radius],
          [piece.half, 0],
        ],
        DISC_SIDES,
      );
}
