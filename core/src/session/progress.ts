/** Where a lane stands in its sets: which set is next, which side, and what the totals are. */
import { partTotals } from '../dosage/parts.js';
import type { DoseMode, Sides } from '../movement/vocabulary.js';
import type { SetSide } from './events.js';
import type { Entry, SetRecord } from './fold.js';

export interface Progress {
  /** Sets finished: for one side after the other, both sides of it. */
  done: number;
  /** Number of the set that comes now, from 1. */
  setNumber: number;
  /** The side that comes now. */
  side: SetSide;
  /** One side of this set is done, and the other is not. */
  half: boolean;
}

const onSide = (sets: readonly SetRecord[], side: SetSide): number => sets.filter((set) => set.side === side).length;

/** The side that a set begins with: left and right take turns, so that neither is always the fresh one. */
export const firstSide = (set: number): 'left' | 'right' => (set % 2 === 1 ? 'left' : 'right');

/** A movement done one side after the other goes to the side with fewer sets. */
export function progressOf(entry: Entry, sides: Sides): Progress {
  if (sides !== 'each') return { done: entry.sets.length, setNumber: entry.sets.length + 1, side: 'both', half: false };
  const left = onSide(entry.sets, 'left');
  const right = onSide(entry.sets, 'right');
  const done = Math.min(left, right);
  const half = left !== right;
  return { done, setNumber: done + 1, side: half ? (right < left ? 'right' : 'left') : firstSide(done + 1), half };
}

export interface Totals {
  sets: number;
  /** Reps, seconds or metres, both sides added up: `10 a side is 20`. */
  amount: number;
  left: number;
  right: number;
  /** Pulses and seconds held of composed sets, beside the amount. */
  pulses: number;
  held: number;
  /** Σ reps × load, for sets with a load, nothing for what is held or carried; what was done with lighter weights in the same set counts at those. */
  volumeKg: number;
}

/** Exact totals of one stay at a movement; of what was counted. */
export function totalsOf(entry: Entry, sides: Sides, mode: DoseMode): Totals {
  const counted = entry.sets.filter(({ uncounted }) => !uncounted);
  const dropped = (set: SetRecord) => set.drops.reduce((sum, drop) => sum + drop.amount, 0);
  const amountOn = (side: SetSide) =>
    counted.filter((set) => set.side === side).reduce((sum, set) => sum + set.amount + dropped(set), 0);
  const composed = counted.flatMap(({ parts }) => (parts ? [partTotals(parts)] : []));
  return {
    sets:
      sides === 'each'
        ? Math.max(onSide(entry.sets, 'left'), onSide(entry.sets, 'right')) + onSide(entry.sets, 'both')
        : entry.sets.length,
    amount: counted.reduce((sum, set) => sum + set.amount + dropped(set), 0),
    left: amountOn('left'),
    right: amountOn('right'),
    pulses: composed.reduce((sum, { reps, pulses, held }) => sum + (reps > 0 || held > 0 ? pulses : 0), 0),
    held: composed.reduce((sum, { reps, held }) => sum + (reps > 0 ? held : 0), 0),
    volumeKg: counted
      .flatMap(({ drops, ...set }) => [set, ...drops])
      .reduce((sum, { amount, kg }) => sum + (mode === 'reps' ? amount * (kg ?? 0) : 0), 0),
  };
}
