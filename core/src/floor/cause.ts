/** Why what is seen comes about: the causes that something can be done about, and the one that the trainer names. */
import { buildKindFinder } from '../movement/fault-kinds.js';
import { causeWords } from '../movement/words.js';
import { openFaults } from '../session/fold.js';
import { atStay } from './commands.js';
import { type Draft, draft, type NewId } from './draft.js';
import type { LaneView } from './lane-view.js';

export interface PossibleCause {
  cause: string;
  /** Of the faults that are open, so many are said to come from it. */
  of: number;
  named: boolean;
}

/**
 * Causes of the open faults, those that explain most first; what was named is always among them. Empty while no fault is open, or
 * one that stops the set.
 */
export function possibleCauses(view: LaneView): PossibleCause[] {
  const { entry, page } = view;
  if (!entry || !page) return [];
  const open = page.movement.faults.filter(({ id }) => openFaults(entry).includes(id));
  // What stops a set is not coached through.
  if (open.length === 0 || open.some(({ severity }) => severity === 'stop')) return [];
  const changed = changedCauses(view);
  const own = open.flatMap(({ causes }) => causes).filter((cause) => changed.includes(cause));
  return [...new Set([...own, ...entry.causes])]
    .map((cause) => ({
      cause,
      of: open.filter(({ causes }) => causes.includes(cause)).length,
      named: entry.causes.includes(cause),
    }))
    .toSorted((a, b) => b.of - a.of);
}

/** The cause that somebody means by some words, such as "stance narrow"; undefined where this movement can do nothing about it. */
export function causeMeant(view: LaneView, words: string): string | undefined {
  const causes = changedCauses(view).map((cause) => ({ id: cause, name: causeWords(cause), words: [] }));
  const [first] = buildKindFinder(causes).find(words, 1);
  return first && first.score >= MEANT ? first.kind.id : undefined;
}

/** Half of what was said, and half of the cause's words. */
const MEANT = 0.6;

export const nameCause = (view: LaneView, cause: string, holds: boolean, newId: NewId): Draft[] =>
  atStay(view, newId, (entryId) => [draft(newId(), 'cause-named', { entryId, cause, holds })]);

/** Causes that a correction of the movement in hand changes. */
const changedCauses = ({ page }: LaneView): string[] => [
  ...new Set(
    (page?.movement.faults ?? []).flatMap(({ corrections }) =>
      corrections.filter(({ kind }) => kind !== 'stop').flatMap(({ causes }) => causes),
    ),
  ),
];
