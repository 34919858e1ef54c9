/** A session as a trainer would tell it: what was done, what was seen, and what is next, in a sentence each. */
import { painPlace } from '@waxwing/core/client';
import { label, type Movement } from '@waxwing/core/movement';
import type { Note } from '@waxwing/core/planning';
import type { NextStep } from '@waxwing/core/progress';
import { type Lane, movementIn } from '@waxwing/core/session';

import { lower } from './plan-words';
import type { NameOf } from './reasons';
import { say } from './say';

type Find = (movementId: string) => Movement | undefined;

/** `a`, `a and b`, `a, b and c`. */
export const listed = (words: readonly string[], by = 'and'): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} ${by} ${words.at(-1)}`;

/** @param minutes how long it took; null while it goes on */
export function doneWords(lane: Lane, find: Find, minutes: number | null): string {
  const done = lane.entries.filter(({ sets }) => sets.length > 0);
  const sets = done.reduce((sum, entry) => sum + entry.sets.length, 0);
  if (sets === 0) return say.review.noSetWasDone;
  const movements = new Set(done.map(({ movementId }) => movementId)).size;
  const loaded = done.flatMap((entry) =>
    entry.sets.map(({ kg, loadLabel }) => ({ kg: kg ?? 0, loadLabel, name: find(entry.movementId)?.name })),
  );
  const top = loaded.reduce<(typeof loaded)[number] | null>(
    (most, one) => (one.kg > (most?.kg ?? 0) ? one : most),
    null,
  );
  const heaviest = top?.name && top.loadLabel ? say.review.upToInThe(top.loadLabel, lower(top.name)) : '';
  return `${label(say.review.movements(movements))}, ${say.common.sets(sets)}${minutes === null ? say.review.soFar : say.review.inMin(minutes)}${heaviest}.`;
}

export function seenWords(lane: Lane, find: Find): string {
  const seen = lane.entries.flatMap((entry) =>
    entry.faults.map(({ faultId, open }) => {
      const movement = movementIn(entry, find);
      const name = movement?.faults.find(({ id }) => id === faultId)?.name ?? label(faultId);
      return { open, words: say.review.inThe(name, lower(movement?.name ?? label(entry.movementId))) };
    }),
  );
  const of = (open: boolean) => [...new Set(seen.flatMap((one) => (one.open === open ? one.words : [])))];
  const [still, solved] = [of(true), of(false).filter((words) => !of(true).includes(words))];
  const faults =
    seen.length === 0
      ? say.review.noFaultWasMarked
      : [
          solved.length > 0 ? say.review.wereSolved(listed(solved), solved.length) : '',
          still.length > 0 ? say.review.isAreStillOpen(listed(still), still.length) : '',
        ]
          .filter(Boolean)
          .join('; ');
  const pains = [...new Set(lane.pains.map((pain) => say.review.painAt(pain.quality, painPlace(pain))))];
  return label(
    `${pains.length > 0 ? `${listed(pains)}; ` : ''}${faults}${pains.length === 0 ? say.review.nothingHurt : ''}.`,
  );
}

/** Whether a movement goes on just as it was. */
const isSame = ({ kind, code, change }: NextStep): boolean =>
  kind === 'hold' && (code === 'held' || code === 'same-again' || (code === 'window' && change === 'hold'));

/**
 * What the notes about somebody mean for the next time.
 * @param steps what comes next in each movement that was done
 */
export function nextWords(notes: readonly Note[], steps: readonly NextStep[], nameOf: NameOf): string {
  const named = (id: string) => lower(nameOf(id));
  const ready = notes.flatMap((note) => (note.code === 'ready' ? named(note.to) : []));
  const faults = notes.flatMap((note) =>
    note.code === 'fault'
      ? say.review.faultInThe(note.fault === null ? null : lower(note.fault), named(note.movementId))
      : [],
  );
  const hurt = notes.flatMap((note) =>
    note.code === 'hurt' && note.pain.quality === 'sharp' ? note.pain.movementIds.map(named) : [],
  );
  const parts = [
    notes.some(({ code }) => code === 'clearance') ? say.review.nothingHarderBeforeAClinician : '',
    hurt.length > 0 ? say.review.noWhichHurt(listed(hurt, 'or')) : '',
    faults.length > 0 ? say.review.firstWithout(listed(faults)) : '',
    ready.length > 0 ? say.review.readyFor(listed(ready)) : '',
  ].filter(Boolean);
  return say.review.nextTime(
    parts.length > 0 ? parts.join('; ') : steps.every(isSame) ? say.review.goOnAsItWas : say.review.asEachLineSays,
  );
}
