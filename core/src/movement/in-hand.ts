/** Cues that are only true of some kit: “both palms under the top plate” is not said to somebody who holds a jug. */
import { withParts } from './house-rules.js';
import type { Movement } from './schema.js';
import type { KitItem } from './vocabulary.js';

/** A movement with the cues that are true of what is in hand; with all of them where that is not known. */
export const withInHand = (movement: Movement, item: KitItem | undefined): Movement =>
  item === undefined ? movement : withParts(movement, (cue) => cue.for?.kit.includes(item) ?? true);
