/** Points and rotations in space: x forward, y up, z to the right of the body. Centimetres; angles in degrees. */

export type Vec = readonly [x: number, y: number, z: number];
/** A rotation as nine numbers, row by row. Its columns are where the axes of the turned frame point. */
export type Turn = readonly [number, number, number, number, number, number, number, number, number];

export const UP: Vec = [0, 1, 0];

const RAD = Math.PI / 180;
export const degrees = (radians: number): number => radians / RAD;

export const add = (a: Vec, b: Vec): Vec => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
export const minus = (a: Vec, b: Vec): Vec => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const times = (a: Vec, by: number): Vec => [a[0] * by, a[1] * by, a[2] * by];
export const dot = (a: Vec, b: Vec): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const cross = (a: Vec, b: Vec): Vec => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
export const length = (a: Vec): number => Math.hypot(a[0], a[1], a[2]);
export const distance = (a: Vec, b: Vec): number => length(minus(a, b));
export const between = (a: Vec, b: Vec, share: number): Vec => add(times(a, 1 - share), times(b, share));
/** The direction of a vector; `fallback` for one without length. */
export function unit(a: Vec, fallback: Vec = UP): Vec {
  const long = length(a);
  return long < 1e-9 ? fallback : times(a, 1 / long);
}

export function aboutX(angle: number): Turn {
  const c = Math.cos(angle * RAD);
  const s = Math.sin(angle * RAD);
  return [1, 0, 0, 0, c, -s, 0, s, c];
}

export function aboutY(angle: number): Turn {
  const c = Math.cos(angle * RAD);
  const s = Math.sin(angle * RAD);
  return [c, 0, s, 0, 1, 0, -s, 0, c];
}

export function aboutZ(angle: number): Turn {
  const c = Math.cos(angle * RAD);
  const s = Math.sin(angle * RAD);
  return [c, -s, 0, s, c, 0, 0, 0, 1];
}

/** First `b`, then `a`. */
export function after(a: Turn, b: Turn): Turn {
  return [
    a[0] * b[0] + a[1] * b[3] + a[2] * b[6],
    a[0] * b[1] + a[1] * b[4] + a[2] * b[7],
    a[0] * b[2] + a[1] * b[5] + a[2] * b[8],
    a[3] * b[0] + a[4] * b[3] + a[5] * b[6],
    a[3] * b[1] + a[4] * b[4] + a[5] * b[7],
    a[3] * b[2] + a[4] * b[5] + a[5] * b[8],
    a[6] * b[0] + a[7] * b[3] + a[8] * b[6],
    a[6] * b[1] + a[7] * b[4] + a[8] * b[7],
    a[6] * b[2] + a[7] * b[5] + a[8] * b[8],
  ];
}

export const inverse = (a: Turn): Turn => [a[0], a[3], a[6], a[1], a[4], a[7], a[2], a[5], a[8]];
export const turned = (a: Turn, v: Vec): Vec => [
  a[0] * v[0] + a[1] * v[1] + a[2] * v[2],
  a[3] * v[0] + a[4] * v[1] + a[5] * v[2],
  a[6] * v[0] + a[7] * v[1] + a[8] * v[2],
];
/** The frame whose axes are these, each a unit vector at right angles to the others. */
export const frameOf = (x: Vec, y: Vec, z: Vec): Turn => [x[0], y[0], z[0], x[1], y[1], z[1], x[2], y[2], z[2]];
export const axisX = (a: Turn): Vec => [a[0], a[3], a[6]];
export const axisY = (a: Turn): Vec => [a[1], a[4], a[7]];
export const axisZ = (a: Turn): Vec => [a[2], a[5], a[8]];

const clamped = (sine: number): number => Math.max(-1, Math.min(1, sine));

/** A turn as z, then x, then y: `after(aboutZ(z), after(aboutX(x), aboutY(y)))`. At x = ±90 the other two are not told apart. */
export const asZXY = (a: Turn): { z: number; x: number; y: number } => ({
  z: degrees(Math.atan2(-a[1], a[4])),
  x: degrees(Math.asin(clamped(a[7]))),
  y: degrees(Math.atan2(-a[6], a[8])),
});

/** A turn as y, then z, then x: `after(aboutY(y), after(aboutZ(z), aboutX(x)))`. At z = ±90 the other two are not told apart. */
export const asYZX = (a: Turn): { y: number; z: number; x: number } => ({
  y: degrees(Math.atan2(-a[6], a[0])),
  z: degrees(Math.asin(clamped(a[3]))),
  x: degrees(Math.atan2(-a[5], a[4])),
});
