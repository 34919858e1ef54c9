/**
 * Reps out of one quantity in time. A rep leaves the place of rest by a share of the usual way and comes back to it; between the two
 * thresholds nothing changes, so that a tremble is no rep.
 */
import { median, quantile } from './frame.js';

/** The quantity that a movement goes by, and its way in a clean rep. */
export interface Way {
  from: number;
  to: number;
}

export interface Rep {
  /** Seconds at which it leaves its rest, turns, and is back. */
  starts: number;
  turns: number;
  ends: number;
  /** Seconds of the way there, the stay, and the way back. */
  there: number;
  stay: number;
  back: number;
  /** How far it went, and the share of the usual way of this set. */
  reach: number;
  share: number;
}

/** A way shorter than this is a hold, or too little to be told from a tremble: degrees. */
const LEAST_WAY = 20;
/** Shares of the way: out, back again, and what counts as a rep. */
const OUT = 0.3;
const BACK = 0.2;
const COUNTS = 0.4;
/** A way is timed between these shares of it. Eased in and out by half a cosine, that is so much of its whole time. */
const EDGE = 0.1;
const TIMED = 1 - (2 * Math.acos(1 - 2 * EDGE)) / Math.PI;
/** Nobody does a rep in less, in seconds. */
const LEAST_SECONDS = 0.35;

/**
 * @param values the quantity at each time; `NaN` where it is unknown
 * @param way where a clean rep begins and turns: it says which end is rest
 */
export function repsIn(times: Float64Array, values: Float32Array, way: Way): Rep[] {
  const low = quantile(values, 0.03);
  const high = quantile(values, 0.97);
  if (!(high - low >= LEAST_WAY)) return [];
  const rises = way.to >= way.from;
  const turn = rises ? high : low;
  // Most of the quiet moments are spent at rest: their middle says better where that is than the lowest of all.
  const rest = median(values.filter((x) => (rises ? x - low : high - x) <= BACK * (high - low)));
  const share = (t: number): number => ((values[t] as number) - rest) / (turn - rest);

  /** The place between two others where it is furthest out, or with −1 the least. */
  const furthest = (from: number, to: number, way: 1 | -1): number => {
    let found = from;
    for (let t = from; t <= to; t += 1)
      if (Number.isNaN(share(found)) || (share(t) - share(found)) * way > 0) found = t;
    return found;
  };

  const peaks: number[] = [];
  const valleys: number[] = [];
  let out = -1;
  let quiet = 0;
  for (let t = 0; t < times.length; t += 1) {
    const now = share(t);
    if (Number.isNaN(now)) continue;
    if (out < 0) {
      if (now <= BACK) quiet = t;
      if (now >= OUT) out = quiet;
    } else if (now <= BACK) {
      const peak = furthest(out, t, 1);
      if (share(peak) >= COUNTS && (times[t] as number) - (times[out] as number) >= LEAST_SECONDS) {
        const last = peaks.at(-1);
        const valley = last === undefined ? 0 : furthest(last, peak, -1);
        // Two furthest points between which it hardly came back are one rep.
        if (last === undefined || share(valley) <= BACK * Math.min(share(last), share(peak))) {
          valleys.push(valley);
          peaks.push(peak);
        } else if (share(peak) > share(last)) peaks[peaks.length - 1] = peak;
      }
      out = -1;
      quiet = t;
    }
  }
  return peaks.flatMap((peak, i) => repBetween(times, values, share, [valleys[i] ?? 0, peak, valleys[i + 1]]) ?? []);
}

/** The rep round its furthest point, between the least far ones before and after it; none after the last. */
function repBetween(
  times: Float64Array,
  values: Float32Array,
  share: (t: number) => number,
  [after, most, before = times.length]: readonly [after: number, most: number, before?: number],
): Rep | null {
  const far = share(most);
  /** The first moment from `start` on at which so much of this rep's own way is left below, or reached. */
  const crossing = (start: number, step: 1 | -1, at: number, up: boolean): { t: number; seconds: number } | null => {
    for (let t = start; t >= after && t <= before && t < times.length; t += step) {
      const [earlier, now] = [share(t - step) / far, share(t) / far];
      // Between two reps it need not come back all the way.
      const between = !up && (t === before || (t === after && after > 0));
      if (Number.isNaN(now) || (!between && (up ? now < at : now >= at))) continue;
      const part =
        t === start || between || Number.isNaN(earlier) || earlier === now ? 0 : (now - at) / (now - earlier);
      return { t, seconds: (times[t] as number) - part * ((times[t] as number) - (times[t - step] ?? 0)) };
    }
    return null;
  };
  const leave = crossing(most, -1, EDGE, false);
  const home = crossing(most, 1, EDGE, false);
  // A clip that begins or ends in the middle of a rep has no whole rep there.
  if (!leave || !home) return null;
  const arrive = crossing(leave.t, 1, 1 - EDGE, true);
  const depart = crossing(home.t, -1, 1 - EDGE, true);
  if (!arrive || !depart) return null;
  const there = (arrive.seconds - leave.seconds) / TIMED;
  const back = (home.seconds - depart.seconds) / TIMED;
  const around = (1 - TIMED) / 2;
  const [starts, ends] = [leave.seconds - there * around, home.seconds + back * around];
  return {
    starts,
    turns: times[most] as number,
    ends,
    there,
    stay: Math.max(0, ends - starts - there - back),
    back,
    reach: values[most] as number,
    share: far,
  };
}

/** Whether a count can be stood by: not where the line goes to and fro besides its reps, where a rep may be two, or where nobody was seen. */
export type Count = 'sure' | 'uneven' | 'rough' | 'gap';

/** A turn within this share of the range is a tremble. */
const TREMBLE = 0.15;
/** So much further to and fro than in the clean rep, and too much of it is something else. */
const ROUGH = 1.35;
/** What goes less than this share of the furthest may be a rep, or somebody who shifts about. */
const UNEVEN = 0.6;

/** How far values go to and fro in all, for each rep: 2 of their range where each goes there and back. @param reps how many, at least 1 */
export function wandering(values: Float32Array, reps: number): number {
  const range = quantile(values, 0.97) - quantile(values, 0.03);
  let [turn, ahead, length] = [NaN, NaN, 0];
  for (const value of values) {
    if (Number.isNaN(value)) continue;
    if (Number.isNaN(turn)) turn = ahead = value;
    const way = Math.sign(ahead - turn) || 1;
    if ((value - ahead) * way > 0 || ahead === turn) ahead = value;
    else if ((ahead - value) * way > TREMBLE * range) {
      length += Math.abs(ahead - turn);
      [turn, ahead] = [ahead, value];
    }
  }
  return (length + Math.abs(ahead - turn)) / (range * reps);
}

/** Seconds unseen in which there is room for a rep, and for the half of one before the first or after the last. */
const GAP = 1.5;
const HALF_GAP = 0.5;

/** Whether a rep may have passed unseen: in a gap, or half of it before somebody came into the picture or after they left it. */
function unseenIn(times: Float64Array, values: Float32Array, reps: readonly Rep[]): boolean {
  const seen = [...times.keys()].filter((t) => !Number.isNaN(values[t]));
  const at = (t: number | undefined): number => times[t ?? 0] ?? 0;
  const [first, last] = [seen[0], seen.at(-1)];
  if (seen.some((t, i) => i > 0 && at(t) - at(seen[i - 1]) > GAP)) return true;
  const near = (time: number): number =>
    values[times.reduce((best, one, t) => (Math.abs(one - time) < Math.abs(at(best) - time) ? t : best), 0)] as number;
  const rest = median(reps.flatMap(({ starts, ends }) => [near(starts), near(ends)]).filter((x) => !Number.isNaN(x)));
  const way = median(reps.map(({ reach }) => reach)) - rest;
  // In the middle of a rep that is none of those counted.
  const out = (t = 0): boolean =>
    ((values[t] as number) - rest) / way > OUT && !reps.some(({ starts, ends }) => at(t) >= starts && at(t) <= ends);
  const [begins, stops] = [times[0] ?? 0, times.at(-1) ?? 0];
  return (at(first) - begins > HALF_GAP && out(first)) || (stops - at(last) > HALF_GAP && out(last));
}

/** @param usual how far a clean rep wanders */
export function countOf(times: Float64Array, values: Float32Array, reps: readonly Rep[], usual: number): Count {
  if (reps.length === 0) return 'sure';
  if (wandering(values, reps.length) > ROUGH * usual) return 'rough';
  if (unseenIn(times, values, reps)) return 'gap';
  const shares = reps.map(({ share }) => share);
  return Math.min(...shares) < UNEVEN * Math.max(...shares) ? 'uneven' : 'sure';
}
