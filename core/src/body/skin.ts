/** The skin of the figure: triangles on bones, and where they are once the bones have moved (linear blend skinning). */
import { BONE_SIZE } from './bones.js';

/** What a vertex is made of. */
export const ZONES = ['skin', 'top', 'shorts', 'hair', 'shoe', 'sole'] as const;
export type Zone = (typeof ZONES)[number];

/** Bones that pull at a vertex, at most. */
export const PULLS = 4;

export interface Skin {
  count: number;
  /** At rest, three numbers a vertex. */
  positions: Float32Array;
  normals: Float32Array;
  /** `PULLS` bones a vertex, and how much each pulls; together one. */
  bones: Uint8Array;
  weights: Float32Array;
  /** Index into `ZONES`. */
  zones: Uint8Array;
  /** 0–1: how open the place lies to light from all sides. */
  open: Float32Array;
  triangles: Uint16Array;
  /** Fewer triangles over the same vertices, for small pictures that must be quick. */
  coarse: Uint16Array;
}

/** A skin as it is now; made once and written into for every frame. */
export interface Posed {
  positions: Float32Array;
  normals: Float32Array;
}

export const roomFor = ({ count }: Pick<Skin, 'count'>): Posed => ({
  positions: new Float32Array(count * 3),
  normals: new Float32Array(count * 3),
});

/** Moves a skin by its bones' matrices. Written out number by number: it is what a frame spends most of its time on. */
export function skinned(skin: Skin, matrices: Float32Array, into: Posed = roomFor(skin)): Posed {
  const { positions: P, normals: N, bones: J, weights: W, count } = skin;
  const { positions, normals } = into;
  for (let v = 0; v < count; v += 1) {
    let a = 0,
      b = 0,
      c = 0,
      d = 0,
      e = 0,
      f = 0,
      g = 0,
      h = 0,
      i = 0,
      j = 0,
      k = 0,
      l = 0;
    for (let q = v * PULLS, end = q + PULLS; q < end; q += 1) {
      const w = W[q] as number;
      if (w === 0) continue;
      const o = (J[q] as number) * BONE_SIZE;
      a += w * (matrices[o] as number);
      b += w * (matrices[o + 1] as number);
      c += w * (matrices[o + 2] as number);
      d += w * (matrices[o + 3] as number);
      e += w * (matrices[o + 4] as number);
      f += w * (matrices[o + 5] as number);
      g += w * (matrices[o + 6] as number);
      h += w * (matrices[o + 7] as number);
      i += w * (matrices[o + 8] as number);
      j += w * (matrices[o + 9] as number);
      k += w * (matrices[o + 10] as number);
      l += w * (matrices[o + 11] as number);
    }
    const s = v * 3;
    const x = P[s] as number;
    const y = P[s + 1] as number;
    const z = P[s + 2] as number;
    positions[s] = a * x + b * y + c * z + d;
    positions[s + 1] = e * x + f * y + g * z + h;
    positions[s + 2] = i * x + j * y + k * z + l;
    const p = N[s] as number;
    const q = N[s + 1] as number;
    const r = N[s + 2] as number;
    const nx = a * p + b * q + c * r;
    const ny = e * p + f * q + g * r;
    const nz = i * p + j * q + k * r;
    const by = 1 / (Math.sqrt(nx * nx + ny * ny + nz * nz) || 1);
    normals[s] = nx * by;
    normals[s + 1] = ny * by;
    normals[s + 2] = nz * by;
  }
  return into;
}
