/** What closes a movement for somebody, in words that follow "closed by": for the sheet and for every screen. */
import { demandWords } from '../movement/words.js';
import type { Because } from '../progress/fit.js';

export const CLOSED_BY: Readonly<Record<Exclude<Because['code'], 'limit'>, string>> = {
  'hurt-now': 'sharp pain in it today',
  'hurt-before': 'sharp pain when it was last done',
  kit: 'kit that is not here',
};

export const becauseWords = (because: readonly Because[]): string =>
  because
    .map((one) => (one.code === 'limit' ? `${demandWords(one.demand)}: ${one.reason}` : CLOSED_BY[one.code]))
    .join('; ');
