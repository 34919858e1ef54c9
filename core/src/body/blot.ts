/** A soft blot on the floor under what is near it, as a small square of shades. */
import type { Vec } from './rotation.js';
import type { Solid } from './solid.js';

export interface Blot {
  /** Cells along a side. */
  cells: number;
  /** 0–255, row by row along x, then z. */
  shades: Uint8Array;
  /** Its corner on the floor and its side, in centimetres. */
  x: number;
  z: number;
  side: number;
}

const CELLS = 48;
const PAD_CM = 26;
/** What is higher throws no blot; half of it is gone after some centimetres. */
const HIGHEST_CM = 60;
const FADES_CM = 13;
const BLUR_CM = 5.5;
/** Of so many places one is looked at: they are blurred anyway. */
const EVERY = 3;

/** @param shift such as how far a travelling figure has come */
export function blotOf(solids: readonly Solid[], [sx, , sz]: Vec = [0, 0, 0]): Blot {
  let [left, right, back, front] = [Infinity, -Infinity, Infinity, -Infinity];
  const low = (each: (x: number, y: number, z: number) => void): void => {
    for (const { positions: P } of solids)
      for (let i = 0; i < P.length; i += 3 * EVERY) {
        const y = P[i + 1] as number;
        if (y <= HIGHEST_CM) each((P[i] as number) - sx, y, (P[i + 2] as number) - sz);
      }
  };
  low((x, _, z) => {
    left = Math.min(left, x);
    right = Math.max(right, x);
    back = Math.min(back, z);
    front = Math.max(front, z);
  });
  if (left > right) [left, right, back, front] = [0, 0, 0, 0];
  const side = Math.max(right - left, front - back) + 2 * PAD_CM;
  const [x0, z0] = [(left + right - side) / 2, (back + front - side) / 2];
  const cell = side / CELLS;
  let shades = new Float32Array(CELLS * CELLS);
  low((x, y, z) => {
    const at = Math.floor((z - z0) / cell) * CELLS + Math.floor((x - x0) / cell);
    shades[at] = Math.max(shades[at] ?? 0, Math.exp(-Math.max(0, y) / FADES_CM));
  });
  const radius = Math.max(1, Math.round(BLUR_CM / cell));
  for (let pass = 0; pass < 3; pass += 1) for (const step of [1, CELLS]) shades = blurred(shades, step, radius);
  return {
    cells: CELLS,
    shades: Uint8Array.from(shades, (shade) => 255 * (1 - Math.exp(-2.2 * shade))),
    x: x0,
    z: z0,
    side,
  };
}

/** Box blur along rows (`step` 1) or columns, by a running sum. */
function blurred(from: Float32Array, step: number, radius: number): Float32Array<ArrayBuffer> {
  const to = new Float32Array(from.length);
  const across = step === 1 ? CELLS : 1;
  for (let line = 0; line < CELLS; line += 1) {
    const start = line * across;
    let sum = 0;
    for (let i = -radius; i < CELLS; i += 1) {
      const [enters, leaves] = [i + radius, i - radius - 1];
      if (enters < CELLS) sum += from[start + enters * step] as number;
      if (leaves >= 0) sum -= from[start + leaves * step] as number;
      if (i >= 0) to[start + i * step] = sum / (2 * radius + 1);
    }
  }
  return to;
}
