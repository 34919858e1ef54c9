/** Two movements in one rep, as one: the faults, cues and cautions of both are at hand. What both have counts once. */
import type { Movement } from './schema.js';

const withOthers = <T>(own: readonly T[], others: readonly T[], keyOf: (one: T) => string): T[] => {
  const known = new Set(own.map(keyOf));
  return [...own, ...others.filter((one) => !known.has(keyOf(one)))];
};

export const combined = (first: Movement, second: Movement): Movement => ({
  ...first,
  phases: withOthers(first.phases, second.phases, String),
  cues: withOthers(first.cues, second.cues, ({ id }) => id),
  faults: withOthers(first.faults, second.faults, ({ id }) => id),
  cautions: withOthers(first.cautions, second.cautions, String),
});
