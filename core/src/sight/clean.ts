/**
 * A series put right: left and right that changed places for a while, short gaps, and the tremble of the landmarks.
 * The tremble goes by the One Euro filter (Casiez, Roussel and Vogel, 2012), run forward and backward so that nothing comes late.
 */
import { SIDES_OF_BODY } from '../body/skeleton.js';
import { placeOf, POINTS, SEEN, type Series, SIDED_POINTS } from './points.js';

/** Gaps to here are bridged, in seconds. */
const LONGEST_GAP = 0.4;
/** The filter's lowest cut-off in hertz, how much speed raises it, and the cut-off of the speed itself. */
const CUT_OFF = 2;
const BY_SPEED = 4;
const SPEED_CUT_OFF = 1;

const PAIRS = SIDED_POINTS.map((point) => SIDES_OF_BODY.map((side) => placeOf(`${side}.${point}`)) as [number, number]);
const COUNT = POINTS.length;
/** Bends in the room are only taken of these. */
const BENT = new Set(
  SIDES_OF_BODY.flatMap((side) =>
    (['shoulder', 'elbow', 'wrist', 'hip', 'knee', 'ankle'] as const).map((point) => placeOf(`${side}.${point}`)),
  ),
);

/**
 * A new series; a point that stays unknown has `seen` 0.
 * @param deep whether the places in the room are wanted: from the side they are not
 */
export function cleaned(raw: Series, deep = true): Series {
  const series: Series = {
    times: raw.times.slice(),
    flat: raw.flat.slice(),
    deep: raw.deep.slice(),
    seen: raw.seen.map((seen) => (seen >= SEEN ? seen : 0)),
  };
  unswap(series);
  for (let p = 0; p < COUNT; p += 1) {
    bridge(series, p);
    for (let axis = 0; axis < 2; axis += 1) smooth(series, series.flat, 2, p, axis);
    for (let axis = 0; deep && BENT.has(p) && axis < 3; axis += 1) smooth(series, series.deep, 3, p, axis);
  }
  return series;
}

/** Where a swap would move the body much less than going on as before, left and right had changed places. */
function unswap({ times, flat, deep, seen }: Series): void {
  for (let t = 1; t < times.length; t += 1) {
    let [stay, swap] = [0, 0];
    for (const [a, b] of PAIRS) {
      const [na, nb] = [t * COUNT + a, t * COUNT + b];
      const [la, lb] = [na - COUNT, nb - COUNT];
      if (!seen[na] || !seen[nb] || !seen[la] || !seen[lb]) continue;
      stay += apart(flat, na, la) + apart(flat, nb, lb);
      swap += apart(flat, na, lb) + apart(flat, nb, la);
    }
    if (swap >= stay / 2) continue;
    for (const [a, b] of PAIRS) {
      exchange(flat, 2, t * COUNT + a, t * COUNT + b);
      exchange(deep, 3, t * COUNT + a, t * COUNT + b);
      exchange(seen, 1, t * COUNT + a, t * COUNT + b);
    }
  }
}

const apart = (flat: Float32Array, i: number, j: number): number =>
  Math.hypot(
    (flat[i * 2] as number) - (flat[j * 2] as number),
    (flat[i * 2 + 1] as number) - (flat[j * 2 + 1] as number),
  );

function exchange(list: Float32Array, size: number, i: number, j: number): void {
  for (let k = 0; k < size; k += 1) {
    const kept = list[i * size + k] as number;
    list[i * size + k] = list[j * size + k] as number;
    list[j * size + k] = kept;
  }
}

/** A straight line over a gap that is short enough and known on both sides. */
function bridge({ times, flat, deep, seen }: Series, p: number): void {
  let before = -1;
  for (let t = 0; t < times.length; t += 1) {
    if (!seen[t * COUNT + p]) continue;
    const [start, end] = [times[before] ?? NaN, times[t] as number];
    if (before >= 0 && t - before > 1 && end - start <= LONGEST_GAP)
      for (let g = before + 1; g < t; g += 1) {
        const share = ((times[g] as number) - start) / (end - start);
        for (const [list, size] of [
          [flat, 2],
          [deep, 3],
        ] as const)
          for (let k = 0; k < size; k += 1) {
            const [from, to] = [
              list[(before * COUNT + p) * size + k] as number,
              list[(t * COUNT + p) * size + k] as number,
            ];
            list[(g * COUNT + p) * size + k] = from + share * (to - from);
          }
        seen[g * COUNT + p] = SEEN;
      }
    before = t;
  }
}

/** Smooths one coordinate of one point in each stretch in which it is known. */
function smooth({ times, seen }: Series, list: Float32Array, size: number, p: number, axis: number): void {
  let t = 0;
  while (t < times.length) {
    if (!seen[t * COUNT + p]) {
      t += 1;
      continue;
    }
    let end = t;
    while (end < times.length && seen[end * COUNT + p]) end += 1;
    const line = new Float64Array(end - t);
    for (let i = 0; i < line.length; i += 1) line[i] = list[((t + i) * COUNT + p) * size + axis] as number;
    const steps = times.subarray(t, end);
    const there = filtered(steps, line, 1);
    const back = filtered(steps, line, -1);
    for (let i = 0; i < line.length; i += 1)
      list[((t + i) * COUNT + p) * size + axis] = ((there[i] as number) + (back[i] as number)) / 2;
    t = end;
  }
}

/** The filter along a line of values, forward or backward. */
function filtered(times: Float64Array, line: Float64Array, way: 1 | -1): Float64Array {
  const out = new Float64Array(line.length);
  const first = way === 1 ? 0 : line.length - 1;
  let value = line[first] as number;
  let speed = 0;
  out[first] = value;
  for (let t = first + way; t >= 0 && t < line.length; t += way) {
    const step = Math.abs((times[t] as number) - (times[t - way] as number));
    if (step > 0) {
      const by = (line[t] as number) - value;
      const turn = 2 * Math.PI * step;
      speed += ((by / step - speed) * turn * SPEED_CUT_OFF) / (turn * SPEED_CUT_OFF + 1);
      const cut = turn * (CUT_OFF + BY_SPEED * Math.abs(speed));
      value += (by * cut) / (cut + 1);
    }
    out[t] = value;
  }
  return out;
}
