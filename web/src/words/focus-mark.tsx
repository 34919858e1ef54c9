/** The focus of a cue: an arrow into a body, out of it, or a frame for a picture. */
import { type Focus, FOCUS_WORDS } from '@waxwing/core/movement';

import { say } from './say';

const SHAPES: Readonly<Record<Focus, string>> = {
  inward: 'M1 8 H8 M5 5 L8 8 L5 11 M15 1 V15',
  outward: 'M1 1 V15 M8 8 H15 M12 5 L15 8 L12 11',
  image: 'M1 3 H15 V13 H1 Z M4 10 L7 7 L9 9 L12 6',
};

export const FocusMark = ({ focus }: { focus: Focus }) => (
  <svg
    width="16"
    height="16"
    viewBox="0 0 16 16"
    role="img"
    aria-label={say.shell.focus(FOCUS_WORDS[focus])}
    className="quiet shrink-0"
  >
    <title>{say.shell.focus(FOCUS_WORDS[focus])}</title>
    <path d={SHAPES[focus]} fill="none" stroke="currentColor" strokeWidth="1.75" />
  </svg>
);
