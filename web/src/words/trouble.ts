/** Why something is not on the server yet. */
import type { Trouble } from '../api/http';
import { say } from './say';

export const TROUBLE_WORDS: Record<Trouble, string> = say.shell.troubleWords;
