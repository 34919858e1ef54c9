/** Why nothing goes up now: an open fault, pain, a failed set, a day that asks for ease. Going down is always allowed. */
import type { Ladder } from '../ladder/graph.js';
import { bySeverity } from '../movement/severity.js';
import type { Severity } from '../movement/vocabulary.js';
import type { Effort } from '../movement/vocabulary.js';
import type { Held } from './reason.js';
import type { Standing } from './standing.js';

/** A fault that is open, as far as a decision needs it. */
export interface OpenFault {
  /** Null where no more is known than that there was one. */
  name: string | null;
  severity: Severity;
}

/** The dangerous first; polish never holds anything back. */
export const seriousOf = <T extends { severity: Severity }>(faults: readonly T[]): T[] =>
  faults.filter(({ severity }) => severity !== 'polish').toSorted(bySeverity);

/** Null when something may go up. */
export function heldBack(
  { pain, ease }: Pick<Standing, 'pain' | 'ease'>,
  faults: readonly OpenFault[],
  effort: Effort | null,
): Held | null {
  const [open] = seriousOf(faults);
  if (open) return { code: 'open-fault', fault: open.name };
  if (pain) return { code: 'pain' };
  if (effort === 'failed') return { code: 'failed' };
  return ease === null ? null : { code: 'ease', ease };
}

/** Somebody with a limit on holding the breath begins light, and nothing gets heavier for them: with a heavy weight nobody breathes on. */
export const mayNotStrain = ({ limits }: Pick<Standing, 'limits'>): boolean =>
  limits.some(({ demand }) => demand === 'breath-hold');

/** Whether going from one movement to another is a way up its ladder. */
export function isUp(ladder: Pick<Ladder, 'levels' | 'components'>, from: string, to: string): boolean {
  const [a, b] = [ladder.components.get(from), ladder.components.get(to)];
  return a !== undefined && a === b && (ladder.levels.get(to) ?? 0) > (ladder.levels.get(from) ?? 0);
}
