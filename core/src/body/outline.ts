/** Rounded outlines as SVG paths: the hull of circles and ellipses, from which the whole figure is drawn. */
import type { Spot } from './projection.js';

export type Point = readonly [x: number, y: number];

const corners = (count: number): Point[] =>
  Array.from({ length: count }, (_, i) => {
    const angle = (2 * Math.PI * i) / count;
    return [Math.cos(angle), Math.sin(angle)];
  });

/** Enough corners to look round inside a hull, and for a large disc that stands alone. */
const FEW = corners(12);
const MANY = corners(32);

export const circle = ({ x, y }: { x: number; y: number }, radius: number): Point[] =>
  FEW.map(([c, s]) => [x + radius * c, y + radius * s]);

/** The ellipse that two half axes span on the picture. */
export const ellipse = ({ x, y }: { x: number; y: number }, a: Point, b: Point, fine = false): Point[] =>
  (fine ? MANY : FEW).map(([c, s]) => [x + a[0] * c + b[0] * s, y + a[1] * c + b[1] * s]);

const turn = (o: Point, a: Point, b: Point): number => (a[0] - o[0]) * (b[1] - o[1]) - (a[1] - o[1]) * (b[0] - o[0]);

/** The convex hull, always the same way round (Andrew's monotone chain, 1979). */
export function hull(points: readonly Point[]): Point[] {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const half = (from: readonly Point[]): Point[] => {
    const chain: Point[] = [];
    for (const point of from) {
      while (chain.length > 1 && turn(chain[chain.length - 2] as Point, chain[chain.length - 1] as Point, point) <= 0)
        chain.pop();
      chain.push(point);
    }
    chain.pop();
    return chain;
  };
  return [...half(sorted), ...half(sorted.reverse())];
}

/** Paths are written in whole millimetres: whole numbers are written far quicker than fractions, and nobody sees less. */
const short = (cm: number): number => Math.round(cm * MM_PER_CM);
export const MM_PER_CM = 10;

export const pathOf = (points: readonly Point[]): string =>
  points.length === 0 ? '' : `M${points.map(([x, y]) => `${short(x)} ${short(y)}`).join('L')}Z`;

/** A whole ellipse, its long half axis at an angle in radians. */
export function oval({ x, y }: { x: number; y: number }, long: number, across: number, angle: number): string {
  const [dx, dy] = [long * Math.cos(angle), long * Math.sin(angle)];
  const half = `A${short(long)} ${short(across)} ${Math.round((angle * 180) / Math.PI)} 1 1`;
  const [from, to] = [`${short(x - dx)} ${short(y - dy)}`, `${short(x + dx)} ${short(y + dy)}`];
  return `M${from}${half} ${to}${half} ${from}Z`;
}

/** A whole circle, the same way round as everything else. */
export function round({ x, y }: { x: number; y: number }, radius: number): string {
  const r = short(radius);
  return `M${short(x - radius)} ${short(y)}A${r} ${r} 0 1 1 ${short(x + radius)} ${short(y)}A${r} ${r} 0 1 1 ${short(x - radius)} ${short(y)}Z`;
}

interface Circle {
  x: number;
  y: number;
  radius: number;
}

/** Directions of length one: from one circle to its neighbour, and in which the straight lines along both touch them. */
interface Tangents {
  along: Point;
  left: Point;
  right: Point;
  /** Whether the first of the two is the larger: its end is more than half a circle. */
  tapers: boolean;
}

/** A bend at most this sharp (sine) needs no way round its inner corner. */
const SLIGHT = 0.3;

const within = (a: Circle, b: Circle): boolean => Math.hypot(a.x - b.x, a.y - b.y) <= b.radius - a.radius;

/** What stands out: a circle that lies within its neighbour is left out. */
function standingOut(circles: readonly Circle[]): Circle[] {
  const kept: Circle[] = [];
  for (const one of circles) {
    let before = kept.at(-1);
    while (before && within(before, one)) {
      kept.pop();
      before = kept.at(-1);
    }
    if (!before || !within(one, before)) kept.push(one);
  }
  return kept;
}

function tangents(a: Circle, b: Circle): Tangents {
  const far = Math.hypot(b.x - a.x, b.y - a.y);
  const [x, y] = [(b.x - a.x) / far, (b.y - a.y) / far];
  const cosine = (a.radius - b.radius) / far;
  const sine = Math.sqrt(1 - cosine * cosine);
  return {
    along: [x, y],
    left: [x * cosine - y * sine, y * cosine + x * sine],
    right: [x * cosine + y * sine, y * cosine - x * sine],
    tapers: cosine > 0,
  };
}

const at = ({ x, y, radius }: Circle, [dx, dy]: Point): string => `${short(x + radius * dx)} ${short(y + radius * dy)}`;

const arc = (circle: Circle, wide: boolean, to: Point): string =>
  `A${short(circle.radius)} ${short(circle.radius)} 0 ${wide ? 1 : 0} 1 ${at(circle, to)}`;

/** Round a joint from one side of the limb to the next: by an arc outside, by the middle of the joint inside. */
function joint(circle: Circle, from: Point, to: Point, fold: number): string {
  const sine = from[0] * to[1] - from[1] * to[0];
  const start = `L${at(circle, from)}`;
  // Folded back on itself, the outside goes round the whole end of the joint.
  if (fold > 0 || (fold === 0 && sine > SLIGHT)) return start + arc(circle, sine < 0, to);
  return `${start}${fold < 0 || sine < -SLIGHT ? `L${short(circle.x)} ${short(circle.y)}` : ''}L${at(circle, to)}`;
}

/** 1 where the limb folds back with its right side outside, −1 with its left, 0 where it only bends. */
const foldOf = ([ax, ay]: Point, [bx, by]: Point): number =>
  ax * bx + ay * by > 0 ? 0 : ax * by - ay * bx >= 0 ? 1 : -1;

/**
 * A limb through some places, as wide at each as said: circles and everything between neighbours, as one outline.
 * Down one side along the tangents, round the end, and up the other.
 */
export function limb(places: readonly Spot[], radii: readonly number[]): string {
  const circles = standingOut(places.map(({ x, y }, i) => ({ x, y, radius: radii[i] ?? 1 })));
  const [first, last] = [circles[0], circles.at(-1)];
  const sides = circles.slice(1).map((to, i) => tangents(circles[i] as Circle, to));
  const [begin, end] = [sides[0], sides.at(-1)];
  if (!first || !last) return '';
  if (!begin || !end) return round(first, first.radius);
  let down = '';
  let up = '';
  for (let i = 1; i < sides.length; i += 1) {
    const [before, after, circle] = [sides[i - 1] as Tangents, sides[i] as Tangents, circles[i] as Circle];
    const fold = foldOf(before.along, after.along);
    down += joint(circle, before.right, after.right, fold);
    up = joint(circle, after.left, before.left, -fold) + up;
  }
  const tip = `L${at(last, end.right)}${arc(last, !end.tapers, end.left)}`;
  return `M${at(first, begin.left)}${arc(first, begin.tapers, begin.right)}${down}${tip}${up}Z`;
}
