/**
 * A clip read: from where it was taken, the reps with their times and reach, and for every fault that can be measured in how many reps it
 * was seen. What cannot be told from here is said to be so; a value near the border is no answer either.
 */
import type { Motion } from '../body/motion.js';
import type { FaultKind, Measure } from '../movement/fault-kinds.js';
import { inOrder, parseTempo } from '../movement/tempo.js';
import type { Position } from '../movement/vocabulary.js';
import { cleaned } from './clean.js';
import { median, Moment, shorter, SMALL_SCALE, type Stand } from './frame.js';
import { holdsIn } from './holds.js';
import { type Model, modelOf, partOf, valuesIn } from './model.js';
import type { Series } from './points.js';
import {
  isOfRep,
  type Lead,
  MEASURED,
  MEASURED_OF_REP,
  type MomentQuantity,
  type RepQuantity,
  type Unit,
} from './quantities.js';
import { type Count, countOf, repsIn } from './reps.js';
import { seenAs, type SeenRep } from './seen-rep.js';
import { type Found, standFrom } from './stand.js';
import { type Quarters, upright } from './turned.js';

/** Not from this side, not with the body so, no whole rep, a line too unsteady for reps, too much of it hidden, too small, too near the border. */
export type Why = 'view' | 'position' | 'no-reps' | 'rough' | 'hidden' | 'small' | 'border';

export interface Answer {
  kind: string;
  unit: Unit;
  /** Reps in which it was seen, by their place; of those that could be judged. */
  seen: number[];
  judged: number;
  /** How far over what is right, in the unit: by rep, `NaN` where it could not be judged. */
  amounts: number[];
  /** How far from the border those that were judged are, 0–1. */
  sure: number;
  /** Why nothing can be said; null where something can. */
  cannot: Why | null;
}

export interface Reading {
  stand: Found;
  /** Quarter turns by which the picture was put upright, clockwise. */
  quarters: Quarters;
  /** The share of the moments in which the body is seen. */
  present: number;
  /** Whether left and right take turns: from the side only those of the nearer one are seen. */
  alternating: boolean;
  /** Whether it is a hold: its pieces stand in place of reps. */
  holds: boolean;
  /** Whether the body lies along the line of sight, so that nothing can be read. */
  blind: boolean;
  lead: Lead;
  times: Float64Array;
  /** The lead quantity in time. */
  values: Float32Array;
  reps: SeenRep[];
  /** Whether the number of reps can be stood by. */
  count: Count;
  /** Prescribed seconds, 0 for as it comes. */
  tempo: { lower: number; pause: number; rise: number };
  /** The clean rep: where it rests and turns, and when, in seconds of the motion. */
  clean: { from: number; to: number; rep: SeenRep | null };
  answers: Answer[];
}

/** What a clip shows, and how it should be done. */
export interface Shown {
  motion: Motion;
  position: Position;
  /** As prescribed for this set, and as the motion has it. */
  tempo: string;
  usualTempo: string;
  /** The movement with a kind of fault, as it is drawn; null where it is not. */
  faulty: (kind: string) => Motion | null;
}

const MOST_OWN: Readonly<Record<Unit, number>> = { '°': 150, cm: Infinity, '%': Infinity };

interface Judged {
  times: Float64Array;
  valuesFor: (of: MomentQuantity) => Float32Array;
  stand: Stand;
  reps: readonly SeenRep[];
  count: Count;
  model: Model;
  shown: Shown;
}

/** Which way is wrong, and by rep how far that way a quantity is from what it is in the clean one; null where it is not known to show in it. */
function offsOf(measure: Measure, kind: string, judged: Judged): number[] | null {
  const { of, over, in: part } = measure;
  const { times, valuesFor, reps, model } = judged;
  const way = wayOf(measure, kind, judged);
  if (way === null) return null;
  if (isOfRep(of)) return reps.map((rep) => ofRep(of, rep, judged) * Math.sign(over));
  const usual = model.usual(of, part, way);
  return reps.map((rep) => differ(of, partOf(times, valuesFor(of), rep, part, way) - usual) * way);
}

/**
 * The way that the measure has, or with `drawn` the one in which the movement's own picture of the fault goes. Where that picture does not
 * show by so much from here, nobody could tell the fault by it.
 */
function wayOf({ of, over, in: part, drawn }: Measure, kind: string, judged: Judged): 1 | -1 | null {
  const { stand, model, shown } = judged;
  const said = over > 0 ? 1 : -1;
  // How long something takes is not drawn.
  const faulty = of === 'lowering' ? null : shown.faulty(kind);
  if (!faulty) return drawn ? null : said;
  const picture = modelOf(faulty, stand.view, model.lead);
  const by = (way: 1 | -1): number =>
    isOfRep(of)
      ? (picture.rep ? ofRep(of, picture.rep, judged) : NaN) * way
      : differ(of, picture.usual(of, part, way) - model.usual(of, part, way)) * way;
  const way = drawn && by(-said as 1 | -1) > by(said) ? (-said as 1 | -1) : said;
  return by(way) >= Math.abs(over) ? way : null;
}

/** Against the same of the clean rep; `NaN` where that has none, or is not read as it was meant. */
function ofRep(of: RepQuantity, rep: SeenRep, { model, shown }: Judged): number {
  const clean = model.rep;
  if (!clean) return NaN;
  switch (of) {
    case 'reach':
      // Of a way that goes nearly round nobody can say which end is further.
      return Math.abs(model.way.to - model.way.from) > MOST_OWN['°']
        ? NaN
        : shorter(rep.reach - clean.reach) * Math.sign(model.way.to - model.way.from);
    case 'lowering': {
      const [[lower], [usual]] = [parseTempo(shown.tempo), parseTempo(shown.usualTempo)];
      const read = Math.abs(clean.lower - usual) <= usual * MOST_MISREAD;
      return read && lower >= LEAST_LOWERING ? (100 * (rep.lower - lower)) / lower : NaN;
    }
  }
}

/** Degrees of the clean rep's trunk from upright from which on somebody is bent over. */
const BENT_OVER = 45;
/** Of a quicker one, in seconds, nobody says that it should be slow. */
const LEAST_LOWERING = 2;
/** The share by which the lowering of the clean rep may be misread. */
const MOST_MISREAD = 0.25;

function answerTo(kind: string, measure: Measure, judged: Judged, blind: boolean): Answer {
  const { stand, reps, count, model, shown } = judged;
  const { of } = measure;
  const { unit, views } = isOfRep(of) ? MEASURED_OF_REP[of] : MEASURED[of];
  const nothing = (cannot: Why): Answer => ({
    kind,
    unit,
    seen: [],
    judged: 0,
    amounts: reps.map(() => NaN),
    sure: 0,
    cannot,
  });
  if (!measure.positions.includes(shown.position)) return nothing('position');
  if (blind || !views.includes(stand.view)) return nothing('view');
  if (stand.scale > SMALL_SCALE) return nothing('small');
  // What the movement itself takes all the way round says nothing.
  if (!isOfRep(of) && model.usual(of, 'spread', 1) > MOST_OWN[unit]) return nothing('position');
  if (measure.bent === false && Math.abs(model.usual('trunk-lean', 'turn', 1)) > BENT_OVER) return nothing('position');
  if (reps.length === 0) return nothing('no-reps');
  if (count === 'rough') return nothing('rough');
  const amounts = offsOf(measure, kind, judged);
  if (!amounts) return nothing('position');
  if (amounts.every(Number.isNaN)) return nothing('hidden');
  const over = Math.abs(measure.over);
  const clear = amounts.map((amount) => (amount > over + measure.give ? 1 : amount < over - measure.give ? 0 : NaN));
  const far = amounts.flatMap((amount, i) => (Number.isNaN(clear[i]) ? [] : [Math.abs(amount - over) / over]));
  return {
    kind,
    unit,
    seen: clear.flatMap((one, i) => (one === 1 ? [i] : [])),
    judged: far.length,
    amounts,
    sure: far.length === 0 ? 0 : Math.min(1, median(far)),
    cannot: far.length === 0 ? 'border' : null,
  };
}

/** A difference; of directions the shorter way round. */
const differ = (of: MomentQuantity, by: number): number => (MEASURED[of].unit === '°' ? shorter(by) : by);

/** Lying down the body is read from the side alone: from its feet or its head everything lies along the line of sight. */
function foreshortened(series: Series, stand: Stand, position: Position): boolean {
  if (position === 'prone' || position === 'supine') {
    if (stand.view === 'front' || stand.view === 'back') return true;
    const steep = [...series.times.keys()].map((t) => {
      const moment = new Moment(series, t, stand);
      const [[hx, hy], [sx, sy]] = [moment.middle('hip'), moment.middle('shoulder')];
      return Math.abs(sy - hy) - Math.abs(sx - hx);
    });
    return median(steep) > 0;
  }
  return false;
}

/** Null where no body is seen. @param told what the trainer says of where the camera stands, and how the picture lies */
export function readSeries(
  raw: Series,
  shown: Shown,
  kinds: readonly Pick<FaultKind, 'id' | 'measure'>[],
  told: Partial<Pick<Stand, 'view' | 'near'> & { quarters: Quarters }> = {},
): Reading | null {
  const { motion, position, tempo } = shown;
  const { series: lying, quarters } = upright(raw, position, told.quarters);
  const stand = standFrom(lying, told);
  if (!stand) return null;
  const series = cleaned(lying, stand.view !== 'side');
  const { times } = series;
  const model = modelOf(motion, stand.view);
  const valuesFor = valuesIn(series, stand);
  const values = valuesFor(model.lead);
  const holds = motion.still;
  const blind = foreshortened(series, stand, position);
  const found =
    blind || (!holds && !model.rep)
      ? []
      : holds
        ? holdsIn(
            times,
            [...model.posture].map(([lead, posture]) => ({ values: valuesFor(lead), posture })),
          )
        : repsIn(times, values, model.way);
  const reps = found.map((rep) => seenAs(rep, model.pace, motion.figure.first));
  const count = holds ? 'sure' : countOf(times, values, found, model.wanders);
  const judged = { times, valuesFor, stand, reps, count, model, shown };
  const [lower, , rise] = parseTempo(tempo);
  const [, pause] = inOrder(tempo, motion.figure.first);
  return {
    stand,
    quarters,
    present: values.filter((x) => !Number.isNaN(x)).length / Math.max(1, values.length),
    alternating: motion.sides === 'alternating',
    holds,
    blind,
    lead: model.lead,
    times,
    values,
    reps,
    count,
    tempo: { lower, pause, rise },
    clean: { ...model.way, rep: model.rep },
    answers: kinds.flatMap(({ id, measure }) => (measure ? [answerTo(id, measure, judged, blind)] : [])),
  };
}
