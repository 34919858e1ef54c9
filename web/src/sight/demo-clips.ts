/** The clips that ship, filmed from the figure. */
import list from '../../film/clips.json';
import { say } from '../words/say';

interface DemoClip {
  file: string;
  movementId: string;
  /** In words, for the one who chooses. */
  from: string;
  shows: string;
}

export const DEMO_CLIPS: readonly DemoClip[] = list.map(({ file, movement, view, fault, words }) => ({
  file,
  movementId: movement,
  from: say.sight.fromThe(view),
  shows: fault ? say.sight.withAFault(words) : words,
}));
