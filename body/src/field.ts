/**
 * Implicit shapes: a field is negative inside of a shape, positive outside, and near its surface about the distance to it in centimetres.
 * The primitives follow Quilez's distance functions; a loft is a tube whose section changes along a spline.
 */
import { inverse, minus, type Turn, turned, type Vec } from '@waxwing/core/body';

export type Field = (p: Vec) => number;

/** The lesser of two distances, rounded over where they are within `k` of one another. */
export function smin(a: number, b: number, k: number): number {
  if (k <= 0) return Math.min(a, b);
  const near = Math.max(k - Math.abs(a - b), 0) / k;
  return Math.min(a, b) - near * near * k * 0.25;
}

export const smax = (a: number, b: number, k: number): number => -smin(-a, -b, k);

/** Shapes grown together, the first with each of the others, over `k` centimetres. */
export const blend = (first: Field, ...rest: readonly (readonly [field: Field, k: number])[]): Field => {
  return (p) => {
    let d = first(p);
    for (const [field, k] of rest) d = smin(d, field(p), k);
    return d;
  };
};

export const grown =
  (field: Field, by: number): Field =>
  (p) =>
    field(p) - by;

/** The same on both sides: described where z is positive. */
export const symmetric =
  (field: Field): Field =>
  (p) =>
    field(p[2] < 0 ? [p[0], p[1], -p[2]] : p);

/** A field that was described in a frame with its origin at `origin`. */
export const within = (frame: Turn, origin: Vec, field: Field): Field => {
  const back = inverse(frame);
  return (p) => field(turned(back, minus(p, origin)));
};

/** Rows of `[t, ...values]` → the values at any t, along a cubic through the rows; constant beyond the ends. */
export function spline(rows: readonly (readonly number[])[]): (t: number) => Float64Array {
  const count = rows.length;
  const width = (rows[0]?.length ?? 1) - 1;
  const cell = (row: number, column: number): number => rows[row]?.[column] ?? 0;
  const slopes = rows.map((_, i) => {
    const [a, b] = [Math.max(0, i - 1), Math.min(count - 1, i + 1)];
    return Array.from({ length: width }, (__, j) => (cell(b, j + 1) - cell(a, j + 1)) / (cell(b, 0) - cell(a, 0) || 1));
  });
  const out = new Float64Array(width);
  const ended = (row: number): Float64Array => {
    for (let j = 0; j < width; j += 1) out[j] = cell(row, j + 1);
    return out;
  };
  return (t) => {
    if (t <= cell(0, 0)) return ended(0);
    if (t >= cell(count - 1, 0)) return ended(count - 1);
    let i = 0;
    while (t > cell(i + 1, 0)) i += 1;
    const step = cell(i + 1, 0) - cell(i, 0);
    const u = (t - cell(i, 0)) / step;
    const [u2, u3] = [u * u, u * u * u];
    for (let j = 0; j < width; j += 1)
      out[j] =
        (2 * u3 - 3 * u2 + 1) * cell(i, j + 1) +
        (u3 - 2 * u2 + u) * step * (slopes[i]?.[j] ?? 0) +
        (-2 * u3 + 3 * u2) * cell(i + 1, j + 1) +
        (u3 - u2) * step * (slopes[i + 1]?.[j] ?? 0);
    return out;
  };
}

/** A row of a loft: how far down, and half widths to the front, the back, outside and inside. */
export type LoftRow = readonly [t: number, front: number, back: number, outer: number, inner: number];

interface LoftShape {
  /** Exponent of the section: 2 is an ellipse, more is squarer. */
  exponent?: number;
  /** How far the rounded ends reach beyond the first and last row. */
  cap?: number;
  /** Added to every half width, by how far down it is. */
  grow?: (t: number) => number;
}

/** A tube down the −y axis of its frame. */
export function loft(rows: readonly LoftRow[], { exponent: n = 2, cap = 4, grow = () => 0 }: LoftShape = {}): Field {
  const at = spline(rows);
  const [first, last] = [rows[0]?.[0] ?? 0, rows.at(-1)?.[0] ?? 0];
  return ([x, y, z]) => {
    const t = -y;
    const inside = t < first ? first : t > last ? last : t;
    const [front = 0, back = 0, outer = 0, inner = 0] = at(inside);
    const more = grow(t);
    const rx = (x > 0 ? front : back) + more;
    const rz = (z > 0 ? outer : inner) + more;
    const ry = Math.min(cap, rx, rz);
    const a = (Math.abs(x) / rx) ** n;
    const b = (Math.abs(z) / rz) ** n;
    const e = (Math.abs(t - inside) / ry) ** n;
    const sum = a + b + e;
    if (sum < 1e-12) return -Math.min(rx, rz);
    const level = sum ** (1 / n);
    const slope = sum ** (1 / n - 1);
    const part = (share: number, along: number): number => (along > 1e-9 ? (slope * share) / along : 0);
    const steep = Math.hypot(part(a, Math.abs(x)), part(e, Math.abs(t - inside)), part(b, Math.abs(z)));
    return (level - 1) / (steep || 1e-6);
  };
}

export function ellipsoid([cx, cy, cz]: Vec, [rx, ry, rz]: Vec, frame?: Turn): Field {
  const back = frame && inverse(frame);
  return (p) => {
    const local: Vec = [p[0] - cx, p[1] - cy, p[2] - cz];
    const [x, y, z] = back ? turned(back, local) : local;
    const level = Math.hypot(x / rx, y / ry, z / rz);
    const steep = Math.hypot(x / (rx * rx), y / (ry * ry), z / (rz * rz));
    return steep < 1e-9 ? -Math.min(rx, ry, rz) : (level * (level - 1)) / steep;
  };
}

/** A cone with round ends from `a` to `b`. */
export function cone(a: Vec, b: Vec, ra: number, rb: number): Field {
  const [bx, by, bz] = minus(b, a);
  const long = bx * bx + by * by + bz * bz;
  const taper = ra - rb;
  const side = long - taper * taper;
  return (p) => {
    const [px, py, pz] = minus(p, a);
    const y = px * bx + py * by + pz * bz;
    const z = y - long;
    const across = (px * long - bx * y) ** 2 + (py * long - by * y) ** 2 + (pz * long - bz * y) ** 2;
    const k = Math.sign(taper) * taper * taper * across;
    if (Math.sign(z) * side * z * z * long > k) return Math.sqrt(across + z * z * long) / long - rb;
    if (Math.sign(y) * side * y * y * long < k) return Math.sqrt(across + y * y * long) / long - ra;
    return (Math.sqrt((across * side) / long) + y * taper) / long - ra;
  };
}

/** How steeply a field rises, by central differences over `step` centimetres. */
export function gradient(field: Field, [x, y, z]: Vec, step = 0.05): Vec {
  const by = 2 * step;
  return [
    (field([x + step, y, z]) - field([x - step, y, z])) / by,
    (field([x, y + step, z]) - field([x, y - step, z])) / by,
    (field([x, y, z + step]) - field([x, y, z - step])) / by,
  ];
}
