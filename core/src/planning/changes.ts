/** What it takes to go from one item to the next: another weight, another position. Seconds; starting guesses, in one table. */
import { type Load, SAME_KG } from '../dosage/loads.js';
import type { MovementSummary } from '../movement/summary-schema.js';
import type { Position } from '../movement/vocabulary.js';
import type { PlanLane } from './plan.js';

export const CHANGE_SECONDS = {
  /** To put one weight down and take up another. */
  pickUp: 10,
  /** Down to the floor or up from it. */
  floor: 12,
  /** On or off a seat or a bar. */
  seat: 8,
  /** From one way of lying or kneeling to another. */
  turnOver: 5,
  /** To teach a movement that is new to somebody. */
  teach: 45,
} as const;

export type Ground = 'feet' | 'floor' | 'seat';

export const groundOf = (position: Position): Ground =>
  position === 'standing' || position === 'hanging' ? 'feet' : position === 'seated' ? 'seat' : 'floor';

/** Seconds from one position to another. */
export function positionSeconds(from: Position | undefined, to: Position | undefined): number {
  if (!from || !to || from === to) return 0;
  const [a, b] = [groundOf(from), groundOf(to)];
  if (a === b) return CHANGE_SECONDS.turnOver;
  return a === 'floor' || b === 'floor' ? CHANGE_SECONDS.floor : CHANGE_SECONDS.seat;
}

/** Whether each piece of two loads weighs the same: a single 12 and a pair of 12 are the same thing in the hands. */
function samePieces(from: Load, to: Load): boolean {
  if (from.item !== to.item) return false;
  if (from.kg === null || to.kg === null) return from.kg === to.kg && from.label === to.label;
  return Math.abs(from.kg / from.count - to.kg / to.count) < SAME_KG;
}

/** Seconds to have the next weight in hand. Nothing is needed to go on with the same one, one of a pair, or without; a second handle has to be set. */
export function loadSeconds(from: PlanLane['load'], to: PlanLane['load']): number {
  if (!to) return 0;
  if (from && samePieces(from, to) && (to.count <= from.count || to.changeSeconds === 0)) return 0;
  return to.changeSeconds > 0 ? to.changeSeconds : CHANGE_SECONDS.pickUp;
}

export interface Changes {
  load: number;
  position: number;
}

/** Changes between two lines: everybody changes at the same time, so the slowest counts. */
export function changesBetween(
  before: readonly PlanLane[],
  after: readonly PlanLane[],
  { find }: { find: (id: string) => Pick<MovementSummary, 'position'> | undefined },
): Changes {
  let load = 0;
  let position = 0;
  for (const lane of after) {
    const last = before.find(({ clientId }) => clientId === lane.clientId);
    load = Math.max(load, loadSeconds(last?.load ?? null, lane.load));
    if (last)
      position = Math.max(position, positionSeconds(find(last.movementId)?.position, find(lane.movementId)?.position));
  }
  return { load, position };
}
