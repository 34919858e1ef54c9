/** What was found once for a client in a movement, to be set the same again: the box at 30 cm, the seat at 4, feet a foot apart. */
import type { KitItem, SetUp } from '../movement/vocabulary.js';
import type { NotedSetUp } from './set-up-schema.js';

/** Measures of one way to load a movement: with a dumbbell in the hand nobody sets a band. */
const ONLY_WITH: Readonly<Partial<Record<SetUp, readonly KitItem[]>>> = {
  band: ['band'],
  'cable-height': ['cable', 'pull-down-machine', 'row-machine'],
};

/**
 * The latest value of each measure of a movement, in the order in which they are set. What was emptied is gone.
 * @param item what the weight in hand is; every measure is asked for where that is not known
 */
export function setUpFor(
  movement: { id: string; setUp: readonly SetUp[] },
  noted: readonly NotedSetUp[],
  item?: KitItem,
): { measure: SetUp; value: string | null }[] {
  const latest = new Map<SetUp, NotedSetUp>();
  for (const one of noted) {
    const before = latest.get(one.measure);
    if (one.movementId === movement.id && (!before || before.at <= one.at)) latest.set(one.measure, one);
  }
  const measures = [...new Set([...movement.setUp, ...latest.keys()])];
  const asked = (measure: SetUp) => item === undefined || (ONLY_WITH[measure]?.includes(item) ?? true);
  return measures
    .filter((one) => latest.get(one)?.value || asked(one))
    .map((measure) => ({ measure, value: latest.get(measure)?.value || null }));
}
