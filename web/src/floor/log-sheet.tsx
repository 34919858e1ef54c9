/** The running log: everything that was tapped, latest first; any of it can be taken back, a set can be put right, and a note be added. */
import { describe, type EventOf, type SessionEvent } from '@waxwing/core/session';
import { loadsFor } from '@waxwing/core/dosage';
import { useState, type FormEvent } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { movementQuery } from '../api/queries';
import { timeWords } from '../words/dates';
import { movementOf, type LaneView } from './lane';
import { Sheet } from '../shell/sheet';
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

export function LogSheet({ live, view, onClose }: { live: LiveSession; view: LaneView; onClose: () => void }) {
  const queries = useQueryClient();
  const find = (id: string) => queries.getQueryData(movementQuery(id).queryKey)?.movement;
  const { log } = live.state;
  const rows = log
    .filter(({ type }) => !SMALL.includes(type))
    .toReversed()
    .slice(0, SHOWN);
  const nameOf = (id: string) =>
    live.view.clients.length > 1 ? `${live.view.clients.find((one) => one.id === id)?.name.split(' ')[0] ?? ''}: ` : '';
  return (
    <Sheet title="Log" onClose={onClose}>
      <Note view={view} />
      <ul className="ruled mt-4">
        {rows.map((event) => (
          <li key={event.id} className="flex flex-wrap items-center gap-x-3 py-2">
            <span className="quiet text-lg">{timeWords(event.at)}</span>
            <span className="min-w-48 flex-1">
              {nameOf(event.clientId)}
              {describe(event, log, find)}
            </span>
            {event.type === 'set-done' && event.clientId === view.client.id && <PutRight event={event} view={view} />}
            <button type="button" className="btn target" onClick={() => void live.takeBack([event])}>
              Take back<span className="sr-only"> {describe(event, log, find)}</span>
            </button>
          </li>
        ))}
      </ul>
    </Sheet>
  );
}

/** A few words, kept with the session. */
function Note({ view }: { view: LaneView }) {
  const [text, write] = useState('');
  const save = (event: FormEvent) => {
    event.preventDefault();
    if (text.trim() === '') return;
    view.tap((record) => record('note-written', { text: text.trim() }));
    write('');
  };
  return (
    <form className="flex gap-2" onSubmit={save}>
      <input
        className="input input-lg flex-1"
        aria-label={`Note about ${view.client.name}`}
        placeholder={`A note about ${view.client.name.split(' ')[0] ?? ''}`}
        maxLength={2000}
        value={text}
        onChange={(event) => write(event.target.value)}
      />
      <button type="submit" className="btn btn-primary target">
        Note
      </button>
    </form>
  );
}

/** What a set really was: reps and load. The first numbers stay in the log. */
export function PutRight({ event, view }: { event: EventOf<'set-done'>; view: LaneView }) {
  const entry = view.lane.entries.find(({ id }) => id === event.data.entryId);
  const set = entry?.sets.find(({ id }) => id === event.id);
  const movement = entry && movementOf(view, entry.movementId);
  const loads = movement ? loadsFor(movement.kit, view.studio.kit) : [];
  if (!set) return null;
  const change = (to: { amount?: number; label?: string }) => {
    const load = loads.find(({ label }) => label === to.label);
    view.tap((record) =>
      record('set-corrected', {
        setId: set.id,
        amount: to.amount ?? set.amount,
        kg: load ? load.kg : set.kg,
        loadLabel: load ? load.label : set.loadLabel,
      }),
    );
  };
  return (
    <span className="flex gap-2">
      <input
        type="number"
        className="input target w-24"
        aria-label="Reps or seconds of this set"
        min={0}
        max={3600}
        value={set.amount}
        onChange={({ target }) => {
          const amount = target.valueAsNumber;
          if (Number.isInteger(amount) && amount >= 0 && amount <= 3600) change({ amount });
        }}
      />
      {loads.length > 0 && (
        <select
          className="select target w-36"
          aria-label="Load of this set"
          value={set.loadLabel ?? ''}
          onChange={({ target }) => change({ label: target.value })}
        >
          {!loads.some(({ label }) => label === set.loadLabel) && (
            <option value={set.loadLabel ?? ''}>{set.loadLabel ?? 'none'}</option>
          )}
          {loads.map(({ label }) => (
            <option key={label}>{label}</option>
          ))}
        </select>
      )}
    </span>
  );
}
