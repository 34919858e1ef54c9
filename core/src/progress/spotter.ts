/** Weights that want somebody beside them: what a load asks of a spotter, and how heavy it may be without one. */
import { type Load, optionsWith } from '../dosage/loads.js';
import type { Limit } from '../movement/limit-schema.js';
import { type Demands, demandsWith } from '../movement/limits.js';
import type { MovementSummary } from '../movement/summary-schema.js';

/** Demand for a spotter from which nobody goes heavier alone. */
const SPOTTED = 2;

/** A weight over the face or the head, which somebody alone cannot put away. */
const isOverBody = ({ pattern }: Pick<MovementSummary, 'pattern'>, demands: Demands): boolean =>
  pattern === 'push' && ((demands['lying-on-back'] ?? 0) > 0 || (demands.overhead ?? 0) > 0);

/** What a movement asks for with a load in the hands; of several options, the one that wants most of a spotter. */
export function demandsOf(
  { demands, kit }: Pick<MovementSummary, 'demands' | 'kit'>,
  load: Pick<Load, 'item' | 'count'> | null,
): Demands {
  const all = load ? optionsWith(kit, load).map((option) => demandsWith(demands, option)) : [];
  return all.toSorted((a, b) => (b['spotter-needed'] ?? 0) - (a['spotter-needed'] ?? 0))[0] ?? demands;
}

/**
 * The most kilograms without a spotter: what was lifted already, where a movement asks for one, or where the client trains without one
 * and the weight is over them. Null where there is no cap.
 */
export function capFor(
  movement: Pick<MovementSummary, 'pattern' | 'demands' | 'kit'>,
  load: Pick<Load, 'item' | 'count'>,
  limits: readonly Limit[],
  kg: number | null | undefined,
): number | null {
  const demands = demandsOf(movement, load);
  const asked = demands['spotter-needed'] ?? 0;
  const without = limits.some(({ demand }) => demand === 'spotter-needed');
  return asked >= SPOTTED || (without && (asked > 0 || isOverBody(movement, demands))) ? (kg ?? null) : null;
}
