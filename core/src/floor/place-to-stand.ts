/** Where the trainer stood for the sets of a stay, and where to stand for the one in hand. */
import { nextPlace } from '../coaching/stand.js';
import type { View } from '../movement/vocabulary.js';
import { progressOf } from '../session/progress.js';
import { sidesInLine } from '../session/run.js';
import type { LaneView } from './lane-view.js';
import { likelihood } from './say.js';

export interface Stand {
  /** Where to stand for the set in hand. */
  told: View;
  /** Where the trainer says they stand; null while they are taken to stand where they were told to. */
  said: View | null;
}

/** Sets of a line that stands on its own. */
const USUAL_SETS = 3;

/** Answers by everything that they follow from: each tap asks for every lane and every set done anew. */
const KNOWN = new Map<string, View | undefined>();
const MOST_KNOWN = 2_000;

/** Where to stand after some sets; undefined where there is no fault to look for. */
function after(view: LaneView, taken: readonly View[]): View | undefined {
  const { page, record, step } = view;
  const faults = page?.movement.faults ?? [];
  const left = (step?.of ?? USUAL_SETS) - taken.length;
  const tally = record.faults[page?.movement.id ?? ''];
  const key = JSON.stringify([page?.movement.id, page?.version, faults.map(({ id }) => id), tally, taken, left]);
  if (!KNOWN.has(key)) {
    if (KNOWN.size >= MOST_KNOWN) KNOWN.clear();
    KNOWN.set(key, nextPlace(faults, taken, left, likelihood(view)));
  }
  return KNOWN.get(key);
}

/** Where the trainer stood, set by set: where they said, else where they were told to. Left and right are one set. */
export function placesTaken(view: LaneView): View[] {
  const { entry, movement } = view;
  const begun = (entry?.sets ?? []).filter(({ side }, i, all) => {
    const before = all.slice(0, i);
    const on = (one: typeof side) => before.filter((set) => set.side === one).length;
    return movement?.sides !== 'each' || on(side) >= on(side === 'left' ? 'right' : 'left');
  });
  const taken: View[] = [];
  for (const { stood } of begun) {
    const place = stood ?? after(view, taken);
    if (place) taken.push(place);
  }
  return taken;
}

/** Null where there is no fault to look for. */
export function standFor(view: LaneView): Stand | null {
  const { entry, movement, steps } = view;
  const taken = placesTaken(view);
  // The other side of a set is watched from the same place.
  const half =
    entry !== undefined && progressOf(entry, sidesInLine(steps, entry.itemId, movement?.sides ?? 'both')).half;
  const told = half ? taken.at(-1) : after(view, taken);
  return told ? { told, said: entry?.stood ?? null } : null;
}
