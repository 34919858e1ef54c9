/** A session as a trainer would tell it: what was done, what was seen, and what is next, in a sentence each. */
import { painPlace } from '@waxwing/core/client';
import { label, type Movement } from '@waxwing/core/movement';
import type { Note } from '@waxwing/core/planning';
import { type Lane, movementIn } from '@waxwing/core/session';
import { count, lower } from './plan-words';
import type { NameOf } from './reasons';

type Find = (movementId: string) => Movement | undefined;

/** `a`, `a and b`, `a, b and c`. */
export const listed = (words: readonly string[], by = 'and'): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} ${by} ${words.at(-1)}`;

/** @param minutes how long it took; null while it goes on */
export function doneWords(lane: Lane, find: Find, minutes: number | null): string {
  const done = lane.entries.filter(({ sets }) => sets.length > 0);
  const sets = done.reduce((sum, entry) => sum + entry.sets.length, 0);
  if (sets === 0) return 'No set was done.';
  const movements = new Set(done.map(({ movementId }) => movementId)).size;
  const loaded = done.flatMap((entry) =>
    entry.sets.map(({ kg, loadLabel }) => ({ kg: kg ?? 0, loadLabel, name: find(entry.movementId)?.name })),
  );
  const top = loaded.reduce<(typeof loaded)[number] | null>(
    (most, one) => (one.kg > (most?.kg ?? 0) ? one : most),
    null,
  );
  const heaviest = top?.name && top.loadLabel ? `, up to ${top.loadLabel} in the ${lower(top.name)}` : '';
  return `${label(count(movements, 'movement'))}, ${count(sets, 'set')}${minutes === null ? ' so far' : ` in ${minutes} min`}${heaviest}.`;
}

export function seenWords(lane: Lane, find: Find): string {
  const seen = lane.entries.flatMap((entry) =>
    entry.faults.map(({ faultId, open }) => {
      const movement = movementIn(entry, find);
      const name = movement?.faults.find(({ id }) => id === faultId)?.name ?? label(faultId);
      return { open, words: `${lower(name)} in the ${lower(movement?.name ?? label(entry.movementId))}` };
    }),
  );
  const of = (open: boolean) => [...new Set(seen.flatMap((one) => (one.open === open ? one.words : [])))];
  const [still, solved] = [of(true), of(false).filter((words) => !of(true).includes(words))];
  const faults =
    seen.length === 0
      ? 'no fault was marked'
      : [
          solved.length > 0 ? `${listed(solved)} ${solved.length === 1 ? 'was' : 'were'} solved` : '',
          still.length > 0 ? `${listed(still)} ${still.length === 1 ? 'is' : 'are'} still open` : '',
        ]
          .filter(Boolean)
          .join('; ');
  const pains = [...new Set(lane.pains.map((pain) => `${pain.quality} pain: ${painPlace(pain)}`))];
  return label(
    `${pains.length > 0 ? `${listed(pains)}; ` : ''}${faults}${pains.length === 0 ? '; nothing hurt' : ''}.`,
  );
}

/** What the notes about somebody mean for the next time. */
export function nextWords(notes: readonly Note[], nameOf: NameOf): string {
  const named = (id: string) => lower(nameOf(id));
  const ready = notes.flatMap((note) => (note.code === 'ready' ? named(note.to) : []));
  const faults = notes.flatMap((note) =>
    note.code === 'fault'
      ? `${note.fault === null ? 'the open fault' : lower(note.fault)} in the ${named(note.movementId)}`
      : [],
  );
  const hurt = notes.flatMap((note) => (note.code === 'hurt' ? note.movementIds.map(named) : []));
  const parts = [
    notes.some(({ code }) => code === 'clearance') ? 'nothing harder before a clinician has cleared it' : '',
    hurt.length > 0 ? `no ${listed(hurt, 'or')}, which hurt` : '',
    faults.length > 0 ? `first solve ${listed(faults)}` : '',
    ready.length > 0 ? `ready for ${listed(ready)}` : '',
  ].filter(Boolean);
  return `Next time: ${parts.length === 0 ? 'go on as it was' : parts.join('; ')}.`;
}
