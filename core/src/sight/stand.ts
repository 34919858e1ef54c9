/** From where a clip was taken, read from the body itself: how wide the shoulders and hips look, and which way the feet and nose point. */
import { type BodySide, SIDES_OF_BODY } from '../body/skeleton.js';
import type { View } from '../movement/vocabulary.js';
import { LEG_CM, median, quantile, type Stand } from './frame.js';
import { placeOf, type Point, POINTS, SEEN, type Series } from './points.js';

/** How much of the true width of shoulders and hips shows: from the front all but a little (within 13°), from the side little. */
const FRONT_FROM = 0.975;
const SIDE_TO = 0.42;

/** So many say as much as all of them. */
const MOST_MOMENTS = 200;

export interface Found extends Stand {
  /** How far the width is from the next view's, 0–1. */
  sure: number;
}

/** Null where no body is seen for long enough. @param told what the trainer says of it */
export function standFrom(series: Series, told: Partial<Pick<Stand, 'view' | 'near'>> = {}): Found | null {
  const every = Math.max(1, Math.floor(series.times.length / MOST_MOMENTS));
  const moments = [...series.times.keys()].filter((t) => t % every === 0);
  const deep = (t: number, point: Point, axis: 0 | 1 | 2): number => {
    const i = t * POINTS.length + placeOf(point);
    return (series.seen[i] as number) >= SEEN ? (series.deep[i * 3 + axis] as number) : NaN;
  };
  const flat = (t: number, point: Point, axis: 0 | 1): number => {
    const i = t * POINTS.length + placeOf(point);
    return (series.seen[i] as number) >= SEEN ? (series.flat[i * 2 + axis] as number) : NaN;
  };
  const across = (t: number, axis: 0 | 1 | 2): number =>
    deep(t, 'right.shoulder', axis) -
    deep(t, 'left.shoulder', axis) +
    (deep(t, 'right.hip', axis) - deep(t, 'left.hip', axis));
  const wide = median(
    moments.map((t) => {
      const [x, y, z] = [across(t, 0), across(t, 1), across(t, 2)];
      return Math.hypot(x, y) / Math.hypot(x, y, z);
    }),
  );
  const long = (from: Point, to: Point): number =>
    quantile(
      moments.map((t) => Math.hypot(flat(t, from, 0) - flat(t, to, 0), flat(t, from, 1) - flat(t, to, 1))),
      0.9,
    );
  const legs = SIDES_OF_BODY.map((side) => long(`${side}.hip`, `${side}.knee`) + long(`${side}.knee`, `${side}.ankle`));
  const leg = Math.max(...legs.filter((one) => one > 0));
  if (Number.isNaN(wide) || !(leg > 0) || !Number.isFinite(leg)) return null;

  const frontal: View = median(moments.map((t) => across(t, 0))) < 0 ? 'front' : 'back';
  const view = told.view ?? (wide >= FRONT_FROM ? frontal : wide <= SIDE_TO ? 'side' : 'oblique');
  const nearer = median(moments.map((t) => across(t, 2)));
  const near: BodySide = told.near ?? (nearer < 0 ? 'right' : 'left');
  // Seen from its right the front of a body lies clockwise of its length, upright and lying alike.
  const turn = (t: number, from: Point, to: Point): number => {
    const [ux, uy] = [
      flat(t, `${near}.shoulder`, 0) - flat(t, `${near}.hip`, 0),
      flat(t, `${near}.shoulder`, 1) - flat(t, `${near}.hip`, 1),
    ];
    return ux * (flat(t, to, 1) - flat(t, from, 1)) - uy * (flat(t, to, 0) - flat(t, from, 0));
  };
  const byFace = median(moments.map((t) => turn(t, `${near}.ear`, 'nose')));
  const ahead = Number.isNaN(byFace) ? median(moments.map((t) => turn(t, `${near}.heel`, `${near}.toe`))) : byFace;
  const sure =
    view === 'side'
      ? (SIDE_TO - wide) / SIDE_TO
      : view === 'oblique'
        ? Math.min(FRONT_FROM - wide, wide - SIDE_TO) / ((FRONT_FROM - SIDE_TO) / 2)
        : (wide - FRONT_FROM) / (1 - FRONT_FROM);
  return { view, near, faces: ahead < 0 ? -1 : 1, scale: LEG_CM / leg, sure: Math.max(0, Math.min(1, sure)) };
}
