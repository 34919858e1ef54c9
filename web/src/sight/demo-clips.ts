/** The clips that ship, filmed from the figure. */
import list from '../../film/clips.json';

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
  from: `from the ${view}`,
  shows: fault ? `with a fault: ${words}` : words,
}));
