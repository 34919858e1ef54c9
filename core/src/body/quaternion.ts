/** Turns as unit quaternions [x, y, z, w]: for halves and thirds of a turn, which nine numbers cannot give (Shoemake 1985). */
import { cross, dot, type Turn, type Vec } from './rotation.js';

export type Quaternion = readonly [x: number, y: number, z: number, w: number];

export const NO_TURN: Quaternion = [0, 0, 0, 1];

export function quaternionOf(turn: Turn): Quaternion {
  const [a, b, c, d, e, f, g, h, i] = turn;
  const trace = a + e + i;
  if (trace > 0) {
    const s = Math.sqrt(trace + 1) * 2;
    return [(h - f) / s, (c - g) / s, (d - b) / s, s / 4];
  }
  if (a > e && a > i) {
    const s = Math.sqrt(1 + a - e - i) * 2;
    return [s / 4, (b + d) / s, (c + g) / s, (h - f) / s];
  }
  if (e > i) {
    const s = Math.sqrt(1 + e - a - i) * 2;
    return [(b + d) / s, s / 4, (f + h) / s, (c - g) / s];
  }
  const s = Math.sqrt(1 + i - a - e) * 2;
  return [(c + g) / s, (f + h) / s, s / 4, (d - b) / s];
}

export const turnOf = ([x, y, z, w]: Quaternion): Turn => [
  1 - 2 * (y * y + z * z),
  2 * (x * y - z * w),
  2 * (x * z + y * w),
  2 * (x * y + z * w),
  1 - 2 * (x * x + z * z),
  2 * (y * z - x * w),
  2 * (x * z - y * w),
  2 * (y * z + x * w),
  1 - 2 * (x * x + y * y),
];

/** First `b`, then `a`. */
export const product = (a: Quaternion, b: Quaternion): Quaternion => [
  a[3] * b[0] + a[0] * b[3] + a[1] * b[2] - a[2] * b[1],
  a[3] * b[1] - a[0] * b[2] + a[1] * b[3] + a[2] * b[0],
  a[3] * b[2] + a[0] * b[1] - a[1] * b[0] + a[2] * b[3],
  a[3] * b[3] - a[0] * b[0] - a[1] * b[1] - a[2] * b[2],
];

export const undone = ([x, y, z, w]: Quaternion): Quaternion => [-x, -y, -z, w];

const unitOf = (q: Quaternion): Quaternion => {
  const long = Math.hypot(...q);
  return [q[0] / long, q[1] / long, q[2] / long, q[3] / long];
};

/** A share of the way from one turn to another, the shorter way round. */
export function turnedBetween(a: Quaternion, b: Quaternion, share: number): Quaternion {
  const cosine = a[0] * b[0] + a[1] * b[1] + a[2] * b[2] + a[3] * b[3];
  const sign = cosine < 0 ? -1 : 1;
  const angle = Math.acos(Math.min(1, Math.abs(cosine)));
  const sine = Math.sin(angle);
  const [from, to] =
    sine < 1e-4 ? [1 - share, share] : [Math.sin((1 - share) * angle) / sine, Math.sin(share * angle) / sine];
  const by = to * sign;
  return unitOf([a[0] * from + b[0] * by, a[1] * from + b[1] * by, a[2] * from + b[2] * by, a[3] * from + b[3] * by]);
}

/** The shortest turn of one direction into another. */
export function shortest(from: Vec, to: Vec): Quaternion {
  const cosine = dot(from, to);
  if (cosine < -0.9999) return [1, 0, 0, 0];
  const [x, y, z] = cross(from, to);
  return unitOf([x, y, z, 1 + cosine]);
}

/** A turn of an angle in radians about an axis of length one. */
export const about = ([x, y, z]: Vec, angle: number): Quaternion => {
  const sine = Math.sin(angle / 2);
  return [x * sine, y * sine, z * sine, Math.cos(angle / 2)];
};
