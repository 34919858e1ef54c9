/** One moment of a series, measured: angles in degrees and lengths in centimetres, `NaN` where a point is not seen. */
import type { BodySide } from '../body/skeleton.js';
import { SEGMENT, STATURE_CM } from '../body/skeleton.js';
import type { View } from '../movement/vocabulary.js';
import { placeOf, type Point, POINTS, type Series, type SidedPoint } from './points.js';

/** From where a clip was taken, and what that makes of the picture. */
export interface Stand {
  view: View;
  /** The side of the body that is nearer to the camera. */
  near: BodySide;
  /** 1 where the body faces the picture's right, −1 where its left. */
  faces: 1 | -1;
  /** Centimetres to one height of the picture. */
  scale: number;
}

export class Moment {
  constructor(
    readonly series: Series,
    readonly index: number,
    readonly stand: Stand,
  ) {}

  /** A place on the picture in centimetres: ahead (from the side) or to the picture's right, and up. */
  spot(point: Point): readonly [x: number, y: number] {
    const i = this.index * POINTS.length + placeOf(point);
    if (!this.series.seen[i]) return [NaN, NaN];
    const { scale, faces, view } = this.stand;
    const way = view === 'side' || view === 'oblique' ? faces : 1;
    return [(this.series.flat[i * 2] as number) * scale * way, -(this.series.flat[i * 2 + 1] as number) * scale];
  }

  #deep(point: Point): readonly [number, number, number] {
    const i = this.index * POINTS.length + placeOf(point);
    if (!this.series.seen[i]) return [NaN, NaN, NaN];
    const { deep } = this.series;
    return [deep[i * 3] as number, deep[i * 3 + 1] as number, deep[i * 3 + 2] as number];
  }

  /** Between the two sides; the nearer one alone from the side, where the other is behind it. */
  middle(point: SidedPoint): readonly [x: number, y: number] {
    if (this.stand.view === 'side') return this.spot(`${this.stand.near}.${point}`);
    const [a, b] = [this.spot(`left.${point}`), this.spot(`right.${point}`)];
    return [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
  }

  /**
   * How far a joint is bent: 0 for straight. On the picture from the side, where past straight is below nought; in the room from anywhere else.
   * @param forward whether it bends to the front of the body
   */
  bend(a: Point, joint: Point, b: Point, forward: boolean): number {
    if (this.stand.view === 'side') {
      const [p, q, r] = [this.spot(a), this.spot(joint), this.spot(b)];
      const [ux, uy, vx, vy] = [q[0] - p[0], q[1] - p[1], r[0] - q[0], r[1] - q[1]];
      const turn = degrees(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy)) * (forward ? 1 : -1);
      // Nothing bends so far the wrong way: it went over the top.
      return turn < -MOST_PAST_STRAIGHT ? turn + 360 : turn;
    }
    const [p, q, r] = [this.#deep(a), this.#deep(joint), this.#deep(b)];
    const [ux, uy, uz] = [p[0] - q[0], p[1] - q[1], p[2] - q[2]];
    const [vx, vy, vz] = [r[0] - q[0], r[1] - q[1], r[2] - q[2]];
    const between = (ux * vx + uy * vy + uz * vz) / (Math.hypot(ux, uy, uz) * Math.hypot(vx, vy, vz));
    return 180 - degrees(Math.acos(Math.max(-1, Math.min(1, between))));
  }
}

const MOST_PAST_STRAIGHT = 60;

/** A direction or a difference of two, −180 to 180: the shorter way round. */
export const shorter = (turn: number): number => ((turn + 540) % 360) - 180;

export const degrees = (radians: number): number => (radians * 180) / Math.PI;

/** The middle one of numbers that are known; `NaN` where none is. */
export function median(numbers: Iterable<number>): number {
  return quantile(numbers, 0.5);
}

/** The number below which a share of the known ones lies. */
export function quantile(numbers: Iterable<number>, share: number): number {
  const sorted = Float64Array.from([...numbers].filter((x) => !Number.isNaN(x))).sort();
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? NaN;
}

/** The length of a leg that lies in the picture, from hip to ankle. */
export const LEG_CM = (SEGMENT.thigh + SEGMENT.shank) * STATURE_CM;

/** Of a body that fills less than a quarter of the picture's height too little is seen: centimetres to one height of the picture. */
export const SMALL_SCALE = STATURE_CM / 0.25;
