/**
 * The baked skin: a JSON head (its length in bytes first), then for each part its numbers, each list at a multiple of four bytes. Only the
 * right half and the middle are kept; the left is their mirror image. Places are 12 bits within the part's box, a fifth of a millimetre at
 * most; normals an octahedron in two bytes (Meyer and others 2010).
 */
import { mirroredBone } from './bones.js';
import type { Vec } from './rotation.js';
import { type BodySide, SIDES_OF_BODY } from './skeleton.js';
import { PULLS, type Skin } from './skin.js';

/** Steps of a place from one side of the box to the other. */
export const PLACES = 4095;

export const HANDS = ['open', 'shut', 'cupped'] as const;
export type Hand = (typeof HANDS)[number];
export const HAIRS = ['short', 'cropped', 'bob', 'bun'] as const;
export type Hair = (typeof HAIRS)[number];

export interface SkinPart {
  name: string;
  /** Index into `ZONES`. */
  zone: number;
  /** Only with such a hand, or such hair. */
  hand?: Hand;
  hair?: Hair;
  vertices: number;
  triangles: number;
  coarse: number;
  /** Opposite corners of its box. */
  least: Vec;
  most: Vec;
}

export interface SkinHead {
  /** Of what it was made from: another one means that it must be baked anew. */
  hash: string;
  /** Where the joints of the right side were: the skeleton must still have them there. */
  joints: Record<string, Vec>;
  parts: SkinPart[];
}

/** The lists of a part, in their order in the file. */
export interface PartLists {
  places: Uint16Array;
  normals: Int8Array;
  open: Uint8Array;
  bones: Uint8Array;
  weights: Uint8Array;
  corners: Uint16Array;
  coarse: Uint16Array;
}

export interface SkinFile {
  head: SkinHead;
  lists: PartLists[];
}

const aligned = (offset: number): number => (offset + 3) & ~3;

/** Reads a baked skin. */
export function readSkin(buffer: ArrayBuffer): SkinFile {
  const long = new DataView(buffer).getUint32(0, true);
  const head = JSON.parse(new TextDecoder().decode(new Uint8Array(buffer, 4, long))) as SkinHead;
  let offset = aligned(4 + long);
  const next = <T extends { byteLength: number }>(
    make: new (buffer: ArrayBuffer, offset: number, count: number) => T,
    count: number,
  ): T => {
    const list = new make(buffer, offset, count);
    offset = aligned(offset + list.byteLength);
    return list;
  };
  const lists = head.parts.map(({ vertices, triangles, coarse }): PartLists => ({
    places: next(Uint16Array, vertices * 3),
    normals: next(Int8Array, vertices * 2),
    open: next(Uint8Array, vertices),
    bones: next(Uint8Array, vertices * PULLS),
    weights: next(Uint8Array, vertices * PULLS),
    corners: next(Uint16Array, triangles * 3),
    coarse: next(Uint16Array, coarse * 3),
  }));
  return { head, lists };
}

/** Writes a skin as `readSkin` reads it. */
export function writtenSkin({ head, lists }: SkinFile): Uint8Array {
  const json = new TextEncoder().encode(JSON.stringify(head));
  const all = lists.flatMap(({ places, normals, open, bones, weights, corners, coarse }) => [
    places,
    normals,
    open,
    bones,
    weights,
    corners,
    coarse,
  ]);
  const size = all.reduce((sum, { byteLength }) => sum + aligned(byteLength), aligned(4 + json.length));
  const out = new Uint8Array(size);
  new DataView(out.buffer).setUint32(0, json.length, true);
  out.set(json, 4);
  let offset = aligned(4 + json.length);
  for (const list of all) {
    out.set(new Uint8Array(list.buffer, list.byteOffset, list.byteLength), offset);
    offset = aligned(offset + list.byteLength);
  }
  return out;
}

/** Steps of a folded direction on either side of nought: about a degree. */
const FOLDS = 63;

export function unfolded(a: number, b: number): Vec {
  let [x, y] = [a / FOLDS, b / FOLDS];
  const z = 1 - Math.abs(x) - Math.abs(y);
  if (z < 0) [x, y] = [(1 - Math.abs(y)) * (x < 0 ? -1 : 1), (1 - Math.abs(x)) * (y < 0 ? -1 : 1)];
  const long = Math.hypot(x, y, z) || 1;
  return [x / long, y / long, z / long];
}

/** A direction of length one in two bytes. */
export function folded([x, y, z]: Vec): [number, number] {
  const sum = Math.abs(x) + Math.abs(y) + Math.abs(z) || 1;
  let [a, b] = [x / sum, y / sum];
  if (z < 0) [a, b] = [(1 - Math.abs(b)) * (a < 0 ? -1 : 1), (1 - Math.abs(a)) * (b < 0 ? -1 : 1)];
  return [Math.round(a * FOLDS), Math.round(b * FOLDS)];
}

export interface SkinChoice {
  hands: Readonly<Record<BodySide, Hand>>;
  hair: Hair;
}

/** Nearer to the middle than places are told apart. */
const MIDDLE_CM = 0.02;

/** The chosen parts, each with its mirror image, as one skin. */
export function assembled({ head, lists }: SkinFile, { hands, hair }: SkinChoice): Skin {
  const used = head.parts.flatMap((part, i) =>
    SIDES_OF_BODY.filter((side) => (!part.hand || part.hand === hands[side]) && (!part.hair || part.hair === hair)).map(
      (side) => ({ part, list: lists[i] as PartLists, mirror: side === 'left' }),
    ),
  );
  const count = used.reduce((sum, { part }) => sum + part.vertices, 0);
  const skin: Skin = {
    count,
    positions: new Float32Array(count * 3),
    normals: new Float32Array(count * 3),
    bones: new Uint8Array(count * PULLS),
    weights: new Float32Array(count * PULLS),
    zones: new Uint8Array(count),
    open: new Float32Array(count),
    triangles: new Uint16Array(used.reduce((sum, { part }) => sum + part.triangles, 0) * 3),
    coarse: new Uint16Array(used.reduce((sum, { part }) => sum + part.coarse, 0) * 3),
  };
  let first = 0;
  const ends = { triangles: 0, coarse: 0 };
  const join = (into: 'triangles' | 'coarse', corners: Uint16Array, mirror: boolean): void => {
    for (let t = 0; t < corners.length; t += 3) {
      const [a, b, c] = [0, 1, 2].map((i) => (corners[t + i] ?? 0) + first) as [number, number, number];
      skin[into].set(mirror ? [a, c, b] : [a, b, c], ends[into]);
      ends[into] += 3;
    }
  };
  for (const { part, list, mirror } of used) {
    const flip = mirror ? -1 : 1;
    for (let v = 0; v < part.vertices; v += 1) {
      const to = first + v;
      for (let i = 0; i < 3; i += 1) {
        const [least, most] = [part.least[i] ?? 0, part.most[i] ?? 0];
        const place = least + ((list.places[v * 3 + i] ?? 0) / PLACES) * (most - least);
        // Hair meets its mirror image without a gap; clothes and skin are pulled by both sides and overlap.
        const meets = part.hair !== undefined && Math.abs(place) < MIDDLE_CM;
        skin.positions[to * 3 + i] = i < 2 ? place : meets ? 0 : place * flip;
      }
      const [x, y, z] = unfolded(list.normals[v * 2] ?? 0, list.normals[v * 2 + 1] ?? 0);
      skin.normals.set([x, y, z * flip], to * 3);
      skin.zones[to] = part.zone;
      skin.open[to] = (list.open[v] ?? 255) / 255;
      for (let i = 0; i < PULLS; i += 1) {
        const bone = list.bones[v * PULLS + i] ?? 0;
        skin.bones[to * PULLS + i] = mirror ? mirroredBone(bone) : bone;
        skin.weights[to * PULLS + i] = (list.weights[v * PULLS + i] ?? 0) / 255;
      }
    }
    join('triangles', list.corners, mirror);
    join('coarse', list.coarse, mirror);
    first += part.vertices;
  }
  return skin;
}
