/** What came of a correction, as far as two sets can be measured against one another. */
import { median } from './frame.js';
import type { Answer } from './read.js';

/** Less by this share is better; anything else may be chance. */
const LESS = 0.25;

/** Of those that are known: how much there is of a fault. */
export const typicalOf = ({ amounts }: Answer): number => median(amounts);

/** Null where either set cannot tell. @param before the set in which the fault was seen */
export function outcomeFrom(before: Answer, now: Answer): 'fixed' | 'better' | 'same' | null {
  if (before.cannot !== null || before.seen.length === 0 || now.cannot !== null) return null;
  if (now.seen.length === 0) return 'fixed';
  const [was, is] = [typicalOf(before), typicalOf(now)];
  const fewer = now.seen.length / now.judged <= (before.seen.length / before.judged) * (1 - LESS);
  return is <= was * (1 - LESS) || fewer ? 'better' : 'same';
}
