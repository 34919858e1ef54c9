/** What a clean rep of a movement looks like from a view: the figure's, read in the same way as a clip. */
import type { Motion } from '../body/motion.js';
import type { Quantity, RepPart, View } from '../movement/vocabulary.js';
import { cleaned } from './clean.js';
import { seriesOf } from './figure-series.js';
import { median, Moment, quantile, type Stand } from './frame.js';
import type { Series } from './points.js';
import { type Lead, LEADS, MEASURED, type MomentQuantity } from './quantities.js';
import { type Rep, repsIn, wandering, type Way } from './reps.js';
import { EVEN, type Pace, seenAs, type SeenRep } from './seen-rep.js';
import { standFrom } from './stand.js';

export interface Model {
  lead: Lead;
  way: Way;
  pace: Pace;
  /** In seconds of the motion; null where no quantity goes there and back once a round, as in a hold: nobody could count by it. */
  rep: SeenRep | null;
  /** How far its lead goes to and fro, in ranges. */
  wanders: number;
  /** The middle value of each lead that is seen from here: the posture of a hold. */
  posture: ReadonlyMap<Lead, number>;
  /** The most of a quantity in a part of a clean rep, or with −1 the least. */
  usual: (of: MomentQuantity, part: RepPart, way: 1 | -1) => number;
}

/** A quantity at every moment. */
function valuesOf(series: Series, stand: Stand, of: MomentQuantity): Float32Array {
  const values = new Float32Array(series.times.length);
  const { of: measured } = MEASURED[of];
  for (let t = 0; t < values.length; t += 1) values[t] = measured(new Moment(series, t, stand));
  return values;
}

/** Values that are worked out when first asked for. */
export function valuesIn(series: Series, stand: Stand): (of: MomentQuantity) => Float32Array {
  const known = new Map<Quantity, Float32Array>();
  return (of) => {
    const values = known.get(of) ?? valuesOf(series, stand, of);
    known.set(of, values);
    return values;
  };
}

const models = new WeakMap<Motion, Map<string, Model>>();

/** Made once. @param by the lead to go by; without it the one that says most */
export function modelOf(motion: Motion, view: View, by?: Lead): Model {
  const known = models.get(motion) ?? new Map<string, Model>();
  models.set(motion, known);
  const key = `${view} ${by ?? ''}`;
  const model = known.get(key) ?? madeFrom(motion, view, by);
  known.set(key, model);
  return model;
}

/** A height that changes by less says less than a bend. */
const LEAST_RISE_CM = 22;

/** Seconds of standing before and after the one round. */
const STILL = 0.6;

function madeFrom(motion: Motion, view: View, by?: Lead): Model {
  const series = cleaned(seriesOf(motion, { view, rounds: 1, still: STILL }));
  const stand = standFrom(series, { view });
  if (!stand) throw new Error(`${motion.name} cannot be seen from the ${view}`);
  const valuesFor = valuesIn(series, stand);
  const seen = LEADS.filter((lead) => MEASURED[lead].views.includes(view));
  const ways = seen.map((lead) => {
    const values = valuesFor(lead);
    const [from, low, high] = [values[0] ?? NaN, Math.min(...values), Math.max(...values)];
    return { lead, way: { from, to: from - low > high - from ? low : high } };
  });
  const far = ({ way }: { way: Way }): number => Math.abs(way.to - way.from);
  const once = ({ lead, way }: { lead: Lead; way: Way }): boolean => {
    const { length } = repsIn(series.times, valuesFor(lead), way);
    return length === 1 || (length === 2 && motion.sides === 'alternating');
  };
  // Heights before bends, which lie along the line of sight from there; the hips before the hands, which are hidden more often.
  const heights = ways.filter((one) => MEASURED[one.lead].unit === 'cm' && far(one) >= LEAST_RISE_CM);
  const angles = ways.filter(({ lead }) => MEASURED[lead].unit === '°').toSorted((a, b) => far(b) - far(a));
  const ranked = [...ways.filter(({ lead }) => lead === by), ...heights, ...angles];
  // What a round of the figure itself is not counted by once, nobody is counted by.
  const counted = motion.still ? undefined : ranked.find(once);
  const best = counted ?? ranked[0];
  if (!best) throw new Error(`${motion.name} has nothing to be told by from the ${view}`);
  const found = counted ? repsIn(series.times, valuesFor(best.lead), best.way) : [];
  const [read = null] = found;
  const pace = read ? paceOf(motion, read) : EVEN;
  const rep = read && seenAs(read, pace, motion.figure.first);
  const whole = { starts: STILL, ends: STILL + motion.seconds, turns: 0, there: 0, stay: motion.seconds, back: 0 };
  return {
    ...best,
    pace,
    rep: rep && inMotion(rep),
    wanders: wandering(valuesFor(best.lead), Math.max(1, found.length)),
    posture: new Map(seen.map((lead) => [lead, median(valuesFor(lead))])),
    usual: (of, part, way) => partOf(series.times, valuesFor(of), rep ?? (motion.still ? whole : null), part, way),
  };
}

/** A way is never taken for more than so much longer or shorter. */
const MOST_PACE = 1.6;

/** Of a motion of one way there and one back, whose times are known. */
function paceOf({ segments, figure }: Motion, read: Rep): Pace {
  const moves = segments.filter(({ from, to }) => from !== to);
  const [go, back] = moves;
  if (figure.cycle || moves.length !== 2 || !go || !back) return EVEN;
  const within = (ratio: number): number => Math.min(MOST_PACE, Math.max(1 / MOST_PACE, ratio));
  return { there: within(go.seconds / read.there), back: within(back.seconds / read.back) };
}

const inMotion = (rep: SeenRep): SeenRep => ({
  ...rep,
  starts: rep.starts - STILL,
  turns: rep.turns - STILL,
  ends: rep.ends - STILL,
});

/** What is taken of a part of a rep: nearly the most, so that one wrong picture says nothing. */
const NEARLY = 0.9;

/** The place of the first time that is not before another. */
function firstFrom(times: Float64Array, at: number): number {
  let [low, high] = [0, times.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((times[middle] as number) < at) low = middle + 1;
    else high = middle;
  }
  return low;
}

type Span = Pick<Rep, 'starts' | 'ends' | 'there' | 'back'>;

/**
 * Nearly the most of a quantity in a part of a rep; `NaN` where half of that part is not seen.
 * @param way 1 where more of it is looked for, −1 where less
 */
export function partOf(
  times: Float64Array,
  values: Float32Array,
  rep: Span | null,
  part: RepPart,
  way: 1 | -1,
): number {
  if (!rep) return NaN;
  const within = (from: number, to: number): Float32Array => {
    const inside = values.subarray(firstFrom(times, from - 1e-9), firstFrom(times, to + 1e-9));
    return inside.filter((x) => !Number.isNaN(x)).length * 2 < inside.length ? new Float32Array() : inside;
  };
  const { starts, ends, there, back } = rep;
  const most = (inside: Float32Array): number => quantile(inside, way === 1 ? NEARLY : 1 - NEARLY);
  if (part === 'turn') return most(within(starts + there * 0.8, ends - back * 0.8));
  const whole = within(starts, ends);
  return part === 'spread' ? quantile(whole, NEARLY) - quantile(whole, 1 - NEARLY) : most(whole);
}
