/**
 * A clip read: from where it was taken, the reps with their times and reach, and for every fault that can be measured in how many reps it
 * was seen. What cannot be told from here is said to be so; a value near the border is no answer either.
 */
import type { Motion } from '../body/motion.js';
import type { FaultKind, Measure } from '../movement/fault-kinds.js';
import type { Position, Quantity, RepPart, View } from '../movement/vocabulary.js';
import { cleaned } from './clean.js';
import { seriesOf } from './figure-series.js';
import { Moment, quantile, shorter, type Stand } from './frame.js';
import type { Series } from './points.js';
import { LEADS, MEASURED } from './quantities.js';
import { repsIn, type Rep, type Way } from './reps.js';
import { standFrom, type Found } from './stand.js';

export type Lead = (typeof LEADS)[number];

/** What a clean rep of a movement looks like from a view. */
export interface Model {
  lead: Lead;
  way: Way;
  /** The most of a quantity in a part of a clean rep, or with −1 the least. */
  usual: (of: Quantity, part: RepPart, way: 1 | -1) => number;
}

/** Not from this side, not with the body so, no whole rep, too much of it hidden, too near the border. */
export type Why = 'view' | 'position' | 'no-reps' | 'hidden' | 'border';

export interface Answer {
  kind: string;
  /** Reps in which it was seen, by their place; of those that could be judged. */
  seen: number[];
  judged: number;
  /** How far over what is right, in the quantity's unit: by rep, `NaN` where it could not be judged. */
  amounts: number[];
  /** Why nothing can be said; null where something can. */
  cannot: Why | null;
}

export interface Reading {
  stand: Found;
  lead: Lead;
  times: Float64Array;
  /** The lead quantity in time. */
  values: Float32Array;
  reps: Rep[];
  answers: Answer[];
}

/** A quantity at every moment. */
export function valuesOf(series: Series, stand: Stand, of: Quantity): Float32Array {
  const values = new Float32Array(series.times.length);
  const { of: measured } = MEASURED[of];
  for (let t = 0; t < values.length; t += 1) values[t] = measured(new Moment(series, t, stand));
  return values;
}

const MOST_OWN = { '°': 150, cm: Infinity } as const;

const models = new WeakMap<Motion, Map<View, Model>>();

/** The clean rep of a movement as the figure does it, seen from a view. Made once. */
export function modelOf(motion: Motion, view: View): Model {
  const known = models.get(motion) ?? new Map<View, Model>();
  models.set(motion, known);
  const model = known.get(view) ?? madeFrom(motion, view);
  known.set(view, model);
  return model;
}

function madeFrom(motion: Motion, view: View): Model {
  const series = cleaned(seriesOf(motion, { view, rounds: 1 }));
  const found = standFrom(series, { view });
  if (!found) throw new Error(`${motion.name} cannot be seen from the ${view}`);
  const all = new Map<Quantity, Float32Array>();
  const valuesFor = (of: Quantity): Float32Array => {
    const known = all.get(of) ?? valuesOf(series, found, of);
    all.set(of, known);
    return known;
  };
  const ways = LEADS.filter((lead) => MEASURED[lead].views.includes(view)).map((lead) => {
    const values = valuesFor(lead);
    const [from, low, high] = [values[0] ?? NaN, Math.min(...values), Math.max(...values)];
    return { lead, way: { from, to: from - low > high - from ? low : high } };
  });
  const far = ({ way }: { way: Way }): number => Math.abs(way.to - way.from);
  const best = ways.reduce((most, one) => (far(one) > far(most) ? one : most));
  const [rep] = repsIn(series.times, valuesFor(best.lead), best.way);
  return { ...best, usual: (of, part, way) => (rep ? partOf(series.times, valuesFor(of), rep, part, way) : NaN) };
}

/** What is taken of a part of a rep: nearly the most, so that one wrong picture says nothing. */
const NEARLY = 0.9;

/** @param way 1 where more of it is looked for, −1 where less */
function partOf(times: Float64Array, values: Float32Array, rep: Rep, part: RepPart, way: 1 | -1): number {
  const { starts, ends, there, back } = rep;
  const [from, to] = part === 'turn' ? [starts + there * 0.8, ends - back * 0.8] : [starts, ends];
  const inside = values.filter((_, t) => (times[t] as number) >= from - 1e-9 && (times[t] as number) <= to + 1e-9);
  // Half of it unseen is too little to judge by.
  if (inside.filter((x) => !Number.isNaN(x)).length * 2 < inside.length || inside.length === 0) return NaN;
  if (part === 'spread') return quantile(inside, NEARLY) - quantile(inside, 1 - NEARLY);
  return quantile(inside, way === 1 ? NEARLY : 1 - NEARLY);
}

interface Judged {
  series: Series;
  stand: Stand;
  reps: readonly Rep[];
  model: Model;
  position: Position;
}

function answerTo(kind: string, measure: Measure, { series, stand, reps, model, position }: Judged): Answer {
  const nothing = (cannot: Why): Answer => ({ kind, seen: [], judged: 0, amounts: reps.map(() => NaN), cannot });
  if (!measure.positions.includes(position)) return nothing('position');
  if (!MEASURED[measure.of].views.includes(stand.view)) return nothing('view');
  // What the movement itself takes all the way round says nothing.
  if (model.usual(measure.of, 'spread', 1) > MOST_OWN[MEASURED[measure.of].unit]) return nothing('position');
  const way = measure.over > 0 ? 1 : -1;
  const values = valuesOf(series, stand, measure.of);
  const usual = model.usual(measure.of, measure.in, way);
  const amounts = reps.map((rep) => off(measure.of, partOf(series.times, values, rep, measure.in, way) - usual) * way);
  const over = Math.abs(measure.over);
  const clear = amounts.map((amount) => (amount > over + measure.give ? 1 : amount < over - measure.give ? 0 : NaN));
  const judged = clear.filter((one) => !Number.isNaN(one)).length;
  if (reps.length === 0) return nothing('no-reps');
  if (amounts.every(Number.isNaN)) return nothing('hidden');
  const seen = clear.flatMap((one, i) => (one === 1 ? [i] : []));
  return { kind, seen, judged, amounts, cannot: judged === 0 ? 'border' : null };
}

/** A difference; of directions the shorter way round. */
const off = (of: Quantity, by: number): number => (MEASURED[of].unit === '°' ? shorter(by) : by);

/** Null where no body is seen. @param told what the trainer says of where the camera stands */
export function readSeries(
  raw: Series,
  { motion, position }: { motion: Motion; position: Position },
  kinds: readonly Pick<FaultKind, 'id' | 'measure'>[],
  told: Partial<Pick<Stand, 'view' | 'near'>> = {},
): Reading | null {
  const stand = standFrom(raw, told);
  if (!stand) return null;
  const series = cleaned(raw, stand.view !== 'side');
  const model = modelOf(motion, stand.view);
  const values = valuesOf(series, stand, model.lead);
  const reps = repsIn(series.times, values, model.way);
  return {
    stand,
    lead: model.lead,
    times: series.times,
    values,
    reps,
    answers: kinds.flatMap(({ id, measure }) =>
      measure ? [answerTo(id, measure, { series, stand, reps, model, position })] : [],
    ),
  };
}
