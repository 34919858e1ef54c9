/** The places on a body that a camera finds, and a series of them in time. */
import { type BodySide, SIDES_OF_BODY } from '../body/skeleton.js';

export const SIDED_POINTS = [
  'ear',
  'shoulder',
  'elbow',
  'wrist',
  'hand',
  'hip',
  'knee',
  'ankle',
  'heel',
  'toe',
] as const;
export type SidedPoint = (typeof SIDED_POINTS)[number];
export type Point = 'nose' | `${BodySide}.${SidedPoint}`;

export const POINTS: readonly Point[] = [
  'nose',
  ...SIDES_OF_BODY.flatMap((side) => SIDED_POINTS.map((point) => `${side}.${point}` as const)),
];

const PLACE = new Map(POINTS.map((point, i) => [point, i]));
/** Where a point stands in the lists of a series. */
export const placeOf = (point: Point): number => PLACE.get(point) as number;

/** Points by moment, one after the other, as a landmark model gives them. */
export interface Series {
  /** Seconds, rising; steps may differ. */
  times: Float64Array;
  /** On the picture, two numbers a point: to the right and down, in heights of the picture. */
  flat: Float32Array;
  /** In the room, three numbers a point: metres to the picture's right, down and away, from the middle of the hips. */
  deep: Float32Array;
  /** How sure it is that a point is seen, 0–1. */
  seen: Float32Array;
}

/** A series of so many moments with nothing in it. */
export const emptySeries = (moments: number): Series => ({
  times: new Float64Array(moments),
  flat: new Float32Array(moments * POINTS.length * 2),
  deep: new Float32Array(moments * POINTS.length * 3),
  seen: new Float32Array(moments * POINTS.length),
});

/** From here on a point counts as seen. */
export const SEEN = 0.5;
