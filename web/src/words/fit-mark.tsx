/** How a movement stands to somebody's limits: a gap to pass, a narrow gap, a bar across. */
import type { Openness } from '@waxwing/core/movement';

import { say } from './say';

const WORDS: Readonly<Record<Openness, string>> = say.shell.words;
const SHAPES: Readonly<Record<Openness, string>> = {
  open: 'M2 1 V15 M14 1 V15',
  care: 'M5 1 V15 M11 1 V15',
  closed: 'M2 1 V15 M14 1 V15 M2 8 H14',
};

export const FitMark = ({ status }: { status: Openness }) => (
  <span className={`inline-flex items-center gap-1 font-bold ${status === 'closed' ? 'text-error' : ''}`}>
    <svg width="14" height="14" viewBox="0 0 16 16" aria-hidden>
      <path d={SHAPES[status]} fill="none" stroke="currentColor" strokeWidth="2.5" />
    </svg>
    {WORDS[status]}
  </span>
);
