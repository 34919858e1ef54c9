/** From a field to triangles: surface nets (Gibson 1998), drawn onto the surface, cut, thinned out, and simplified by quadric error. */
import type { Turn, Vec } from '@waxwing/core/body';
import { add, turned } from '@waxwing/core/body';
import { MeshoptSimplifier } from 'meshoptimizer/simplifier';

import { type Field, gradient } from './field.js';

export type Triangle = readonly [number, number, number];

export interface Surface {
  points: Vec[];
  triangles: Triangle[];
}

export interface Grid {
  /** Opposite corners, in the frame. */
  box: readonly [least: Vec, most: Vec];
  /** Centimetres from one point of the grid to the next. */
  step: number;
  frame?: { turn: Turn; origin: Vec };
}

/** Corners of a cell by bits: 1 along x, 2 along y, 4 along z. */
const BITS = [1, 2, 4] as const;

/** The surface of a field within a box, as one vertex a cell that it passes through. */
export function surfaceNet(field: Field, { box: [least, most], step, frame }: Grid): Surface {
  const [nx, ny, nz] = [0, 1, 2].map((i) => Math.ceil(((most[i] ?? 0) - (least[i] ?? 0)) / step) + 1) as [
    number,
    number,
    number,
  ];
  const room = (i: number, j: number, k: number): Vec => {
    const local: Vec = [least[0] + i * step, least[1] + j * step, least[2] + k * step];
    return frame ? add(frame.origin, turned(frame.turn, local)) : local;
  };
  const id = (i: number, j: number, k: number): number => (k * ny + j) * nx + i;
  const values = sampled(field, room, step, [nx, ny, nz]);
  const at = (place: number): number => values[place] ?? 0;
  const cells = new Int32Array(nx * ny * nz).fill(-1);
  const points: Vec[] = [];
  for (let k = 0; k < nz - 1; k += 1)
    for (let j = 0; j < ny - 1; j += 1)
      for (let i = 0; i < nx - 1; i += 1) {
        const corners = Array.from({ length: 8 }, (_, q) => at(id(i + (q & 1), j + ((q >> 1) & 1), k + (q >> 2))));
        const middle = crossing(corners);
        if (!middle) continue;
        cells[id(i, j, k)] = points.length;
        points.push(room(i + middle[0], j + middle[1], k + middle[2]));
      }
  const strides = [1, nx, nx * ny] as const;
  const triangles: Triangle[] = [];
  for (let k = 1; k < nz - 1; k += 1)
    for (let j = 1; j < ny - 1; j += 1)
      for (let i = 1; i < nx - 1; i += 1) {
        const here = id(i, j, k);
        const inside = at(here) < 0;
        for (let axis = 0; axis < 3; axis += 1) {
          const [along, b, c] = [axis, (axis + 1) % 3, (axis + 2) % 3].map((one) => strides[one] ?? 1) as [
            number,
            number,
            number,
          ];
          if (at(here + along) < 0 === inside) continue;
          const quad = [here, here - b, here - b - c, here - c].map((cell) => cells[cell] ?? -1);
          if (quad.some((vertex) => vertex < 0)) continue;
          const [p, q, r, s] = quad as [number, number, number, number];
          if (inside) triangles.push([p, q, r], [p, r, s]);
          else triangles.push([p, r, q], [p, s, r]);
        }
      }
  return { points, triangles };
}

/** The field at every point of the grid. Far from the surface it rises by at most one a centimetre: points are passed over there. */
function sampled(
  field: Field,
  room: (i: number, j: number, k: number) => Vec,
  step: number,
  [nx, ny, nz]: readonly [number, number, number],
): Float32Array {
  const values = new Float32Array(nx * ny * nz);
  for (let k = 0; k < nz; k += 1)
    for (let j = 0; j < ny; j += 1)
      for (let i = 0; i < nx;) {
        const d = field(room(i, j, k));
        const run = Math.min(nx - i, Math.max(1, Math.floor((Math.abs(d) * 0.5) / step)));
        values.fill(d, (k * ny + j) * nx + i, (k * ny + j) * nx + i + run);
        i += run;
      }
  return values;
}

/** The middle of where the surface crosses the edges of a cell; undefined where it does not. */
function crossing(corners: readonly number[]): Vec | undefined {
  let [x, y, z, count] = [0, 0, 0, 0];
  for (let a = 0; a < 8; a += 1)
    for (const bit of BITS) {
      if (a & bit) continue;
      const [from, to] = [corners[a] ?? 0, corners[a | bit] ?? 0];
      if (from < 0 === to < 0) continue;
      const way = from / (from - to);
      x += (a & 1) + (bit === 1 ? way : 0);
      y += ((a >> 1) & 1) + (bit === 2 ? way : 0);
      z += (a >> 2) + (bit === 4 ? way : 0);
      count += 1;
    }
  return count === 0 ? undefined : [x / count, y / count, z / count];
}

const LONGEST_STEP_CM = 0.6;

/** Draws the vertices onto the surface by a few steps of Newton's. */
export function drawnOnto({ points, triangles }: Surface, field: Field, rounds = 4): Surface {
  const onto = (from: Vec): Vec => {
    let p = from;
    for (let round = 0; round < rounds; round += 1) {
      const slope = gradient(field, p);
      const steep = slope[0] ** 2 + slope[1] ** 2 + slope[2] ** 2;
      if (steep < 1e-6) break;
      const d = Math.max(-LONGEST_STEP_CM, Math.min(LONGEST_STEP_CM, field(p))) / Math.max(steep, 0.15);
      p = [p[0] - slope[0] * d, p[1] - slope[1] * d, p[2] - slope[2] * d];
    }
    return p;
  };
  return { points: points.map(onto), triangles };
}

const halfway = (a: Vec, b: Vec): Vec => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2, (a[2] + b[2]) / 2];
const edgeKey = (a: number, b: number): number => (a < b ? a * 1e7 + b : b * 1e7 + a);

/** What is left where `keep` is positive; edges that are cut get a vertex where it is nought. */
export function cutTo({ points, triangles }: Surface, keep: Field): Surface {
  const kept = points.map(keep);
  const inside = (i: number): boolean => (kept[i] ?? 0) > 0;
  const out: Surface = { points: [], triangles: [] };
  const moved = new Map<number, number>();
  const cuts = new Map<number, number>();
  const whole = (i: number): number => {
    const known = moved.get(i);
    if (known !== undefined) return known;
    moved.set(i, out.points.length);
    return out.points.push(points[i] as Vec) - 1;
  };
  const cut = (a: number, b: number): number => {
    const known = cuts.get(edgeKey(a, b));
    if (known !== undefined) return known;
    let [from, to] = [points[a] as Vec, points[b] as Vec];
    const startsInside = inside(a);
    for (let round = 0; round < 18; round += 1) {
      const middle = halfway(from, to);
      if (keep(middle) > 0 === startsInside) from = middle;
      else to = middle;
    }
    cuts.set(edgeKey(a, b), out.points.length);
    return out.points.push(from) - 1;
  };
  for (const triangle of triangles) {
    const left = triangle.filter(inside).length;
    if (left === 3) out.triangles.push([whole(triangle[0]), whole(triangle[1]), whole(triangle[2])]);
    if (left === 0 || left === 3) continue;
    // The corner that is alone on its side comes first.
    const alone = triangle.findIndex((i) => inside(i) === (left === 1));
    const [a, b, c] = [0, 1, 2].map((i) => triangle[(alone + i) % 3] ?? 0) as [number, number, number];
    if (left === 1) out.triangles.push([whole(a), cut(a, b), cut(a, c)]);
    else {
      const [ab, ac] = [cut(a, b), cut(a, c)];
      out.triangles.push([ab, whole(b), whole(c)], [ab, whole(c), ac]);
    }
  }
  return out;
}

const flat = ([a, b, c]: Triangle): boolean => a === b || b === c || a === c;

/** Only the points that are used, in the order in which they are. */
function compacted(points: readonly Vec[], triangles: readonly Triangle[]): Surface {
  const to = new Map<number, number>();
  const used: Vec[] = [];
  const place = (i: number): number => {
    const known = to.get(i);
    if (known !== undefined) return known;
    to.set(i, used.length);
    return used.push(points[i] as Vec) - 1;
  };
  const all = triangles.map(([a, b, c]): Triangle => [place(a), place(b), place(c)]);
  return { points: used, triangles: all };
}

/** Joins points that lie on one another after a cut. */
export function welded({ points, triangles }: Surface, within = 0.12): Surface {
  const first = new Map<string, number>();
  const to = points.map((p, i) => {
    const key = p.map((x) => Math.round(x / within)).join();
    if (!first.has(key)) first.set(key, i);
    return first.get(key) ?? i;
  });
  const joined = triangles.map(([a, b, c]): Triangle => [to[a] ?? a, to[b] ?? b, to[c] ?? c]);
  return compacted(
    points,
    joined.filter((one) => !flat(one)),
  );
}

/** Edges that belong to one triangle only. */
export function borderOf({ triangles }: Pick<Surface, 'triangles'>): [number, number][] {
  const seen = new Map<number, [number, number] | null>();
  for (const triangle of triangles)
    for (let i = 0; i < 3; i += 1) {
      const [a, b] = [triangle[i] ?? 0, triangle[(i + 1) % 3] ?? 0];
      const key = edgeKey(a, b);
      seen.set(key, seen.has(key) ? null : [a, b]);
    }
  return [...seen.values()].filter((edge): edge is [number, number] => edge !== null);
}

type OnPlane = (p: Vec) => boolean;
const NOWHERE: OnPlane = () => false;

/** Draws short edges of the border together: simplifying leaves borders alone. Corners where two borders meet stay. */
export function thinnedBorder(surface: Surface, least: number, onPlane: OnPlane = NOWHERE): Surface {
  let now = surface;
  for (let pass = 0; pass < 4; pass += 1) {
    const edges = borderOf(now);
    const point = (i: number): Vec => now.points[i] as Vec;
    const kinds = new Map<number, number>();
    for (const [a, b] of edges) {
      const kind = onPlane(point(a)) && onPlane(point(b)) ? 1 : 2;
      for (const end of [a, b]) kinds.set(end, (kinds.get(end) ?? 0) | kind);
    }
    const to = new Map<number, number>();
    const touched = new Set<number>();
    for (const [a, b] of edges) {
      if (touched.has(a) || touched.has(b)) continue;
      const [p, q] = [point(a), point(b)];
      if (Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]) > least) continue;
      const [cornerA, cornerB] = [kinds.get(a) === 3, kinds.get(b) === 3];
      if (cornerA && cornerB) continue;
      to.set(cornerA ? b : a, cornerA ? a : b);
      touched.add(a).add(b);
    }
    if (to.size === 0) break;
    const drawn = now.triangles.map(([a, b, c]): Triangle => [to.get(a) ?? a, to.get(b) ?? b, to.get(c) ?? c]);
    now = compacted(
      now.points,
      drawn.filter((one) => !flat(one)),
    );
  }
  return now;
}

/** At most about so many triangles over the same points, as far off the surface as said, in parts of its size. */
async function fewer(
  { points, triangles }: Pick<Surface, 'points' | 'triangles'>,
  most: number,
  off: number,
  borders: 'kept' | 'thinned',
): Promise<Triangle[]> {
  await MeshoptSimplifier.ready;
  const [left] = MeshoptSimplifier.simplify(
    new Uint32Array(triangles.flat()),
    new Float32Array(points.flat()),
    3,
    most * 3,
    off,
    borders === 'kept' ? ['LockBorder'] : [],
  );
  return Array.from({ length: left.length / 3 }, (_, i): Triangle => [
    left[i * 3] ?? 0,
    left[i * 3 + 1] ?? 0,
    left[i * 3 + 2] ?? 0,
  ]);
}

/** At most about so many triangles; borders stay as they are. */
export const simplified = async (surface: Surface, most: number): Promise<Surface> =>
  compacted(surface.points, await fewer(surface, most, 0.02, 'kept'));

/** A share of the triangles over the same points: what a small picture needs. */
export const coarseOf = (surface: Surface, share: number): Promise<Triangle[]> =>
  fewer(surface, Math.round(surface.triangles.length * share), 0.08, 'thinned');
