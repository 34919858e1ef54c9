/** The running log: everything that was tapped, latest first; any of it can be taken back, a set can be put right, and a note be added. */
import { useQueryClient } from '@tanstack/react-query';
import { atHand, loadsFor } from '@waxwing/core/dosage';
import { draft } from '@waxwing/core/floor';
import type { KitPiece, Movement } from '@waxwing/core/movement';
import { describe, type EventOf, type SessionEvent } from '@waxwing/core/session';
import { type FormEvent, useState } from 'react';
import { v7 as uuidv7 } from 'uuid';

import { movementQuery } from '../api/queries';
import { Dialog } from '../shell/dialog';
import { timeWords } from '../words/dates';
import { firstName } from '../words/names';
import { say } from '../words/say';
import type { LiveSession } from './use-session';

/** More than this nobody goes back by on the floor; the review has all. */
const SHOWN = 60;

/** Counting and timing make many events of which only the outcome matters. */
const SMALL: readonly SessionEvent['type'][] = [
  'rep-counted',
  'timer-paused',
  'timer-resumed',
  'timer-stopped',
  'gone-to',
];

interface Props {
  live: LiveSession;
  /** Whose sets can be put right and whom a note is about. */
  client: { id: string; name: string };
  /** What the loads of a set are looked up by. */
  kitOf: (movementId: string) => Movement['kit'] | undefined;
  kit: readonly KitPiece[];
}

export const LogSheet = ({ onClose, ...props }: Props & { onClose: () => void }) => (
  <Dialog title={say.floor.logTitle} onClose={onClose}>
    <Log {...props} most={SHOWN} />
  </Dialog>
);

export function Log({ live, client, kitOf, kit, most }: Props & { most?: number }) {
  const queries = useQueryClient();
  const find = (id: string) => queries.getQueryData(movementQuery(id).queryKey)?.movement;
  const { log } = live.state;
  const rows = log
    .filter(({ type }) => !SMALL.includes(type))
    .toReversed()
    .slice(0, most);
  const nameOf = (id: string) => {
    const { clients } = live.view;
    const who = clients.length > 1 ? clients.find((one) => one.id === id) : undefined;
    return who ? `${firstName(who)}: ` : '';
  };
  return (
    <>
      <Note live={live} client={client} />
      <ul className="ruled mt-4">
        {rows.map((event) => (
          <li key={event.id} className="flex flex-wrap items-center gap-x-3 py-2">
            <span className="quiet">{timeWords(event.at)}</span>
            <span className="min-w-48 flex-1">
              {nameOf(event.clientId)}
              {describe(event, log, find)}
            </span>
            {event.type === 'set-done' && <PutRight event={event} live={live} kitOf={kitOf} kit={kit} />}
            <button type="button" className="btn target" onClick={() => void live.takeBack([event])}>
              {say.floor.takeBack}
              <span className="sr-only"> {describe(event, log, find)}</span>
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}

/** A few words, kept with the session. */
function Note({ live, client }: Pick<Props, 'live' | 'client'>) {
  const [text, write] = useState('');
  const save = (event: FormEvent) => {
    event.preventDefault();
    if (text.trim() === '') return;
    void live.tap(client.id, [draft(uuidv7(), 'note-written', { text: text.trim() })]);
    write('');
  };
  return (
    <form autoComplete="off" className="flex gap-2" onSubmit={save}>
      <input
        className="input input-lg flex-1"
        aria-label={say.floor.noteAbout(client.name)}
        placeholder={say.floor.aNoteAbout(firstName(client))}
        maxLength={2000}
        value={text}
        onChange={(event) => write(event.target.value)}
      />
      <button type="submit" className="btn btn-primary target">
        {say.common.note}
      </button>
    </form>
  );
}

/** What a set really was: reps and load. The first numbers stay in the log. */
function PutRight({ event, live, kitOf, kit }: Omit<Props, 'client'> & { event: EventOf<'set-done'> }) {
  const entry = live.state.lanes[event.clientId]?.entries.find(({ id }) => id === event.data.entryId);
  const set = entry?.sets.find(({ id }) => id === event.id);
  const all = loadsFor((entry && kitOf(entry.movementId)) ?? [], kit);
  const loads = atHand(all, all.find(({ label }) => label === set?.loadLabel)?.item ?? null);
  if (!set) return null;
  const change = (to: { amount?: number; label?: string }) => {
    const load = loads.find(({ label }) => label === to.label);
    void live.tap(event.clientId, [
      draft(uuidv7(), 'set-corrected', {
        setId: set.id,
        amount: to.amount ?? set.amount,
        kg: load ? load.kg : set.kg,
        loadLabel: load ? load.label : set.loadLabel,
      }),
    ]);
  };
  return (
    <span className="flex gap-2">
      <input
        type="number"
        className="input target w-24"
        aria-label={say.floor.repsOrSecondsOfThis}
        min={0}
        max={3600}
        key={set.amount}
        defaultValue={set.amount}
        // One correction for a number, however many digits were typed.
        onBlur={({ target }) => {
          const amount = target.valueAsNumber;
          if (!Number.isInteger(amount) || amount < 0 || amount > 3600) target.value = String(set.amount);
          else if (amount !== set.amount) change({ amount });
        }}
        onKeyDown={({ key, currentTarget }) => key === 'Enter' && currentTarget.blur()}
      />
      {loads.length > 0 && (
        <select
          className="select target w-36"
          aria-label={say.floor.loadOfThisSet}
          value={set.loadLabel ?? ''}
          onChange={({ target }) => change({ label: target.value })}
        >
          {!loads.some(({ label }) => label === set.loadLabel) && (
            <option value={set.loadLabel ?? ''}>{set.loadLabel ?? say.common.none}</option>
          )}
          {loads.map(({ label }) => (
            <option key={label}>{label}</option>
          ))}
        </select>
      )}
    </span>
  );
}
