/** A line set by set: what is done in one of them where sets or rounds differ, and everything that the line asks for in all of them. */
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
 * What a lane does in one set, from 1: the line, with what that set does otherwise. A variation has neither the parts, the lighter weights
 * nor the second movement of the line; another amount is no composed set, and under another weight the line's lighter ones are not known.
 */
export function laneOfSet({ bySet, ...line }: PlanLane, set: number): SetLane {
  const change = bySet?.find((one) => one.set === set);
  if (!change) return line;
  const { set: _, ...own } = change;
  const { parts, drops, ...plain } = line;
  const varied = own.movementId !== undefined && own.movementId !== line.movementId;
  const keepsParts = !varied && (own.amount === undefined || own.amount === line.amount);
  const keepsDrops = !varied && own.load === undefined;
  return {
    ...plain,
    ...(varied && { withId: null }),
    ...(parts && keepsParts && { parts }),
    ...(drops && keepsDrops && { drops }),
    ...own,
  };
}

/** The sides of a set: one that is for left or right only, or for both in turn, has no second half. */
export const sidesOfSet = (sides: Sides, side: RoundSide | undefined): Sides =>
  side === undefined || sides !== 'each' ? sides : side === 'alternating' ? 'alternating' : 'both';

/** How often the amount of a line is done in one set: twice where each side has its own. `12 a side is 24`. */
export const timesOfSet = (sides: Sides, side: RoundSide | undefined): number =>
  sides === 'each' && side !== 'left' && side !== 'right' ? 2 : 1;

/** Every movement that a lane asks for: its own, the one it is combined with, and those of single rounds. */
export const movementsOf = ({ movementId, withId, bySet = [] }: PlanLane): string[] => [
  ...new Set([
    movementId,
    ...(withId === null ? [] : [withId]),
    ...bySet.flatMap((change) => change.movementId ?? []),
  ]),
];

/** Every weight that a lane asks for. */
export const loadsOfLane = ({ load, bySet = [], drops = [] }: PlanLane): NonNullable<PlanLane['load']>[] =>
  [load, ...bySet.map((change) => change.load ?? null), ...drops.map((drop) => drop.load)].filter(
    (one) => one !== null,
  );
