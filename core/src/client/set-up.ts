/** What was found once for a client in a movement, to be set the same again: the box at 30 cm, the seat at 4, feet a foot apart. */
import type { SetUp } from '../movement/vocabulary.js';
import type { NotedSetUp } from './set-up-schema.js';

/** The latest value of each measure of a movement, in the order in which they are set. What was emptied is gone. */
export function setUpFor(
  movement: { id: string; setUp: readonly SetUp[] },
  noted: readonly NotedSetUp[],
): { measure: SetUp; value: string | null }[] {
  const latest = new Map<SetUp, NotedSetUp>();
  for (const one of noted) {
    const before = latest.get(one.measure);
    if (one.movementId === movement.id && (!before || before.at <= one.at)) latest.set(one.measure, one);
  }
  const measures = [...new Set([...movement.setUp, ...latest.keys()])];
  return measures.map((measure) => ({ measure, value: latest.get(measure)?.value || null }));
}
