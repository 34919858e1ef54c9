/** How this client is set up for the movement in hand: what was found before, and one tap to note it. */
import { setUpFor } from '@waxwing/core/client';
import { draft, type LaneView } from '@waxwing/core/floor';
import { inWords, label, type MovementSummary } from '@waxwing/core/movement';
import { type FormEvent, useState } from 'react';
import { v7 as uuidv7 } from 'uuid';

import { Dialog } from '../shell/dialog';
import { say } from '../words/say';
import { useTap } from './use-tap';

/**
 * Whole at the first set; later a word in the line that it stands in.
 */
export function SetUpNote({ view, movement }: { view: LaneView; movement: MovementSummary }) {
  const [open, setOpen] = useState(false);
  const measures = setUpFor(movement, [...view.record.setUps, ...view.lane.setUps], view.step?.lane.load?.item);
  if (measures.length === 0) return null;
  const known = measures.filter(({ value }) => value !== null);
  const fresh = (view.entry?.sets.length ?? 0) === 0;
  const words = known.map(({ measure, value }) => `${label(measure)} ${value}`).join(' · ');
  const all = words || say.floor.noteTheSetUp(measures.map(({ measure }) => inWords(measure)).join(', '));
  return (
    <>
      {!fresh && ' · '}
      <button
        type="button"
        aria-label={all}
        className={`text-left underline underline-offset-4 ${fresh ? 'target mt-1 flex items-center' : ''} ${fresh && words ? 'font-bold' : 'quiet'}`}
        onClick={() => setOpen(true)}
      >
        {fresh ? all : say.floor.setUp}
      </button>
      {open && <Noting view={view} movement={movement} measures={measures} onClose={() => setOpen(false)} />}
    </>
  );
}

function Noting({
  view,
  movement,
  measures,
  onClose,
}: {
  view: LaneView;
  movement: MovementSummary;
  measures: ReturnType<typeof setUpFor>;
  onClose: () => void;
}) {
  const tap = useTap(view.client.id);
  const [typed, type] = useState(() => new Map(measures.map(({ measure, value }) => [measure, value ?? ''])));
  const keep = (event: FormEvent) => {
    event.preventDefault();
    const changed = measures.filter(({ measure, value }) => (typed.get(measure) ?? '').trim() !== (value ?? ''));
    if (changed.length > 0)
      tap(
        changed.map(({ measure }) =>
          draft(uuidv7(), 'set-up-noted', {
            movementId: movement.id,
            measure,
            value: (typed.get(measure) ?? '').trim(),
          }),
        ),
      );
    onClose();
  };
  return (
    <Dialog title={say.floor.setUpFor(movement.name.toLowerCase())} onClose={onClose}>
      <form autoComplete="off" className="space-y-3" onSubmit={keep}>
        {measures.map(({ measure }, i) => (
          <label key={measure} className="grid gap-x-4 sm:grid-cols-[12rem_1fr] sm:items-center">
            <span>{label(measure)}</span>
            <input
              className="input input-lg w-full"
              maxLength={40}
              autoFocus={i === 0}
              value={typed.get(measure) ?? ''}
              onChange={({ target }) => type(new Map(typed).set(measure, target.value))}
            />
          </label>
        ))}
        <button type="submit" className="btn btn-primary target">
          {say.floor.keep}
        </button>
      </form>
    </Dialog>
  );
}
