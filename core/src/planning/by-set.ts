/** A line set by set: what is done in one of them where sets or rounds differ, and everything that the line asks for in all of them. */
import { partTotals } from '../dosage/parts.js';
import type { Sides } from '../movement/vocabulary.js';
import type { PlanLane } from './plan.js';
import type { RoundSide } from './set-change.js';

/** A lane as it is in one set. */
export interface SetLane extends PlanLane {
  /** Where the set has one side only, or both in turn. */
  side?: RoundSide | undefined;
  /** As many as went clean in the round before; the amount is what was planned. */
  asClean?: true | undefined;
}

/**
 * What a lane does in one set, from 1: the line, with what that set does otherwise. A variation has neither the parts, the lighter weights,
 * the test nor the second movement of the line; another amount is no composed set, and under another weight the line's lighter ones are not known.
 */
export function laneOfSet({ bySet, ...line }: PlanLane, set: number): SetLane {
  const change = bySet?.find((one) => one.set === set);
  if (!change) return line;
  const { set: _, ...own } = change;
  const { parts, drops, test, ...plain } = line;
  const varied = own.movementId !== undefined && own.movementId !== line.movementId;
  const keepsParts = !varied && (own.amount === undefined || own.amount === line.amount);
  const keepsDrops = !varied && own.load === undefined;
  return {
    ...plain,
    ...(varied ? { withId: null } : test && { test }),
    ...(parts && keepsParts && { parts }),
    ...(drops && keepsDrops && { drops }),
    ...own,
  };
}

/** Whether a set has a movement, an amount, a weight or a tempo of its own. */
export function hasOwnDose({ bySet = [] }: PlanLane, set: number): boolean {
  const change = bySet.find((one) => one.set === set);
  return (
    change !== undefined &&
    [change.movementId, change.amount, change.load, change.tempo].some((value) => value !== undefined)
  );
}

/** The sides of a set: one that is for left or right only, or for both in turn, has no second half. */
export const sidesOfSet = (sides: Sides, side: RoundSide | undefined): Sides =>
  side === undefined || sides !== 'each' ? sides : side === 'alternating' ? 'alternating' : 'both';

/** How often the amount of a line is done in one set: twice where each side has its own. `12 a side is 24`. */
export const timesOfSet = (sides: Sides, side: RoundSide | undefined): number =>
  sides === 'each' && side !== 'left' && side !== 'right' ? 2 : 1;

/** A lane as it is in each of some sets, in order. */
export const laneBySet = (lane: PlanLane, sets: number): SetLane[] =>
  Array.from({ length: sets }, (_, i) => laneOfSet(lane, i + 1));

/** A lane with so many sets: what the last ones did otherwise goes with them. */
export function withSets<T extends PlanLane>(lane: T, sets: number): T {
  const bySet = lane.bySet?.filter(({ set }) => set <= sets);
  return { ...lane, ...(bySet && { bySet }) };
}

/** The different things that a lane does: the line itself, and each set that has another movement or weight. */
export function variantsOf(lane: PlanLane): PlanLane[] {
  const { bySet = [], ...line } = lane;
  const others = bySet
    .filter(({ movementId, load }) => movementId !== undefined || load !== undefined)
    .map(({ set }) => laneOfSet(lane, set));
  return [line, ...others];
}

/** Reps that one set asks for: of both sides where each has its own, whole ones of its parts, those at lighter weights as well. */
export function repsOfSet({ side, parts, amount, drops = [] }: SetLane, sides: Sides): number {
  const reps = parts ? partTotals(parts).reps : amount;
  return (reps + drops.reduce((sum, drop) => sum + drop.amount, 0)) * timesOfSet(sides, side);
}

/** Every movement that a lane asks for: its own, the one it is combined with, and those of single rounds. */
export const movementsOf = ({ movementId, withId, bySet = [] }: PlanLane): string[] => [
  ...new Set([movementId, ...(withId === null ? [] : [withId]), ...bySet.flatMap((change) => change.movementId ?? [])]),
];
