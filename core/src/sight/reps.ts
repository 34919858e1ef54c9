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

  const reps: Rep[] = [];
  let out = -1;
  let quiet = 0;
  for (let t = 0; t < times.length; t += 1) {
    const now = share(t);
    if (Number.isNaN(now)) continue;
    if (out < 0) {
      if (now <= BACK) quiet = t;
      if (now >= OUT) out = quiet;
    } else if (now <= BACK) {
      const rep = repBetween(times, values, share, out, t);
      if (rep && rep.share >= COUNTS && (times[t] as number) - (times[out] as number) >= LEAST_SECONDS) reps.push(rep);
      out = -1;
      quiet = t;
    }
  }
  return reps;
}

/** The rep round its furthest point between two moments at which it was out and back. */
function repBetween(
  times: Float64Array,
  values: Float32Array,
  share: (t: number) => number,
  from: number,
  to: number,
): Rep | null {
  let most = from;
  for (let t = from; t <= to; t += 1) if (share(t) > share(most)) most = t;
  const far = share(most);
  /** The first moment from `start` on at which so much of this rep's own way is left below, or reached. */
  const crossing = (start: number, step: 1 | -1, at: number, up: boolean): { t: number; seconds: number } | null => {
    for (let t = start; t >= 0 && t < times.length && Math.abs(t - start) <= FURTHEST; t += step) {
      const [before, now] = [share(t - step) / far, share(t) / far];
      if (up ? now < at : now >= at) continue;
      const part = t === start || Number.isNaN(before) || before === now ? 0 : (now - at) / (now - before);
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

/** Moments that are looked at on either side of the furthest point. */
const FURTHEST = 400;
