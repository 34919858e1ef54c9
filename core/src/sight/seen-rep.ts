/** A rep with its times as a trainer counts them. */
import type { Figure } from '../body/figure.js';
import type { Rep } from './reps.js';

/** A rep, or a piece of a hold. */
export interface SeenRep extends Rep {
  /** Seconds. */
  lower: number;
  rise: number;
}

/** By how much a way takes longer than it is read to, since what reps are told by does not move evenly with the joints: a height is slow to begin. */
export interface Pace {
  there: number;
  back: number;
}
export const EVEN: Pace = { there: 1, back: 1 };

/** With its ways as long as they are, and told apart by what comes first. */
export function seenAs(rep: Rep, pace: Pace, first: Figure['first']): SeenRep {
  const [there, back] = [rep.there * pace.there, rep.back * pace.back];
  const [arrives, departs] = [rep.starts + rep.there, rep.ends - rep.back];
  const [lower, rise] = first === 'lower' ? [there, back] : [back, there];
  return { ...rep, starts: arrives - there, ends: departs + back, there, back, lower, rise };
}
