/** Why something is not on the server yet. */
import type { Trouble } from '../api/http';

export const TROUBLE_WORDS: Record<Trouble, string> = {
  away: 'Server away',
  full: 'The disk of the studio is full',
  shut: 'Sign in to save',
  failing: 'The server cannot save',
};
