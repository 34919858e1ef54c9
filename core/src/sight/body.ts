/** One body as it was found on one picture, and the series that many of them make. */
import { emptySeries, POINTS, type Series } from './points.js';

/** In heights of the picture, to the right and down. */
export interface Box {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** The lists are those of a series at one moment. */
export interface Body {
  flat: Float32Array;
  deep: Float32Array;
  seen: Float32Array;
  box: Box;
}

export interface Sighting {
  /** Seconds of the clip. */
  at: number;
  body: Body | null;
}

/** Nobody moves so far within a tenth of a second, in own heights; it is somebody else. */
const FURTHEST = 0.25;

const middleOf = ({ box }: Body): [number, number] => [(box.left + box.right) / 2, (box.top + box.bottom) / 2];
const sizeOf = ({ box }: Body): number => Math.max(box.right - box.left, box.bottom - box.top);

/** Whether a body is the one that was there before. @param seconds between the two */
function isSame(before: Body, now: Body, seconds: number): boolean {
  const [[ax, ay], [bx, by]] = [middleOf(before), middleOf(now)];
  const size = Math.max(sizeOf(before), sizeOf(now));
  return Math.hypot(ax - bx, ay - by) <= size * FURTHEST * Math.max(1, seconds * 10);
}

/** Sightings in the order of time as a series; where nobody is seen, or suddenly somebody else, it has a gap. */
export function seriesFrom(sightings: readonly Sighting[]): Series {
  const rising = sightings.filter(({ at }, i) => i === 0 || at > (sightings[i - 1] as Sighting).at);
  const series = emptySeries(rising.length);
  let last: { body: Body; at: number } | null = null;
  rising.forEach(({ at, body }, t) => {
    series.times[t] = at;
    if (!body || (last && !isSame(last.body, body, at - last.at))) return;
    last = { body, at };
    series.flat.set(body.flat, t * POINTS.length * 2);
    series.deep.set(body.deep, t * POINTS.length * 3);
    series.seen.set(body.seen, t * POINTS.length);
  });
  return series;
}
