/** What goes overhead, and what warms the shoulders for it. */
import type { MovementSummary } from '../movement/summary-schema.js';
import type { Muscle } from '../movement/vocabulary.js';

/** Demand from which a movement goes overhead. */
const OVERHEAD = 2;
export const SHOULDERS: readonly Muscle[] = ['front-shoulders', 'side-shoulders', 'rear-shoulders', 'shoulder-blades'];

export const goesOverhead = ({ demands }: Pick<MovementSummary, 'demands'>): boolean =>
  (demands.overhead ?? 0) >= OVERHEAD;

export const warmsShoulders = ({ muscles }: Pick<MovementSummary, 'muscles'>): boolean =>
  muscles.prime.some((muscle) => SHOULDERS.includes(muscle));
