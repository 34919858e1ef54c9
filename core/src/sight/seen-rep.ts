/** A rep with what is compared of it as a whole. */
import type { Figure } from '../body/figure.js';
import { SIDES_OF_BODY } from '../body/skeleton.js';
import { median, Moment, type Stand } from './frame.js';
import type { Series } from './points.js';
import { ONE_SIDE, type OneSided } from './quantities.js';
import type { Rep } from './reps.js';

/** A rep, or a piece of a hold. Of a view from which something cannot be told it is `NaN`. */
export interface SeenRep extends Rep {
  /** Seconds. */
  lower: number;
  rise: number;
  /** Degrees that the left is ahead of the right at the far end, where both do the same. */
  apart: number;
}

interface Where {
  series: Series;
  stand: Stand;
}

/** By how much a way takes longer than it is read to, since what reps are told by does not move evenly with the joints: a height is slow to begin. */
export interface Pace {
  there: number;
  back: number;
}
export const EVEN: Pace = { there: 1, back: 1 };

/** The same rep with its ways as long as they are. */
export function paced(rep: Rep, pace: Pace): Rep {
  const [there, back] = [rep.there * pace.there, rep.back * pace.back];
  const [arrives, departs] = [rep.starts + rep.there, rep.ends - rep.back];
  const [starts, ends] = [arrives - there, departs + back];
  return { ...rep, starts, ends, there, back };
}

export function seenAs(
  rep: Rep,
  where: Where,
  { first, bends, both }: { first: Figure['first']; bends: OneSided; both: boolean },
): SeenRep {
  const [lower, rise] = first === 'lower' ? [rep.there, rep.back] : [rep.back, rep.there];
  return {
    ...rep,
    lower,
    rise,
    apart: both ? apart(rep, where, bends) : NaN,
  };
}

function apart(rep: Rep, { series, stand }: Where, bends: OneSided): number {
  if (stand.view === 'side') return NaN;
  const [a, joint, b] = ONE_SIDE[bends];
  const all: number[] = [];
  series.times.forEach((at, t) => {
    if (at < rep.starts + rep.there * 0.8 || at > rep.ends - rep.back * 0.8) return;
    const moment = new Moment(series, t, stand);
    const [left, right] = SIDES_OF_BODY.map((side) =>
      moment.bend(`${side}.${a}`, `${side}.${joint}`, `${side}.${b}`, true),
    ) as [number, number];
    all.push(left - right);
  });
  return median(all);
}
