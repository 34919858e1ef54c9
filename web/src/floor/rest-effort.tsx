/** After a set: how it felt, what nobody counted, and what the next one should be. */
import { effortOf, holdWords } from '@waxwing/core/dosage';
import {
  draft,
  type LaneView,
  movementOf,
  type Proposal,
  proposalFor,
  swapTo,
  takeProposal,
  unanswered,
} from '@waxwing/core/floor';
import { type DoseMode, type Effort, EFFORTS, label } from '@waxwing/core/movement';
import { doseWords } from '@waxwing/core/planning';
import { useState } from 'react';
import { v7 as uuidv7 } from 'uuid';

import { useKeys } from '../shell/use-keys';
import { whyWords } from '../words/reasons';
import { say } from '../words/say';
import { MarkLine } from './mark-line';
import { useTap } from './use-tap';

/** How the last set felt, asked until it is answered; then what the next one should be. */
export function RestEffort({ view }: { view: LaneView }) {
  const tap = useTap(view.client.id);
  const asked = unanswered(view);
  const tell = (effort: Effort, left?: number) => {
    if (asked)
      tap(
        asked.sets.map((set) =>
          draft(uuidv7(), 'effort-felt', { setId: set.id, effort, ...(left === undefined ? {} : { left }) }),
        ),
      );
  };
  useKeys(['1', '2', '3', '4'], (key) => {
    const effort = EFFORTS[Number(key) - 1];
    if (effort) tell(effort);
  });
  return (
    <div className="mt-2 min-h-16">
      <Counted view={view} />
      {asked ? (
        <div
          role="group"
          aria-label={say.floor.howDidItFeel}
          className="grid grid-cols-4 items-center gap-2 sm:grid-cols-[auto_repeat(4,1fr)_auto]"
        >
          <span className="max-w-40 pr-1 leading-tight max-sm:col-span-4">
            {asked.name ? say.floor.whoFelt(asked.name) : say.common.felt}
          </span>
          {EFFORTS.map((effort) => (
            <button key={effort} type="button" className="btn target px-1" onClick={() => tell(effort)}>
              {label(effort)}
            </button>
          ))}
          <RepsLeft onLeft={(left) => tell(effortOf(left), left)} />
        </div>
      ) : (
        <Next view={view} />
      )}
      <MarkLine view={view} />
    </div>
  );
}

/** Reps of a turn that went by the clock, where somebody did count them. */
function Counted({ view: { client, justDone } }: { view: LaneView }) {
  const tap = useTap(client.id);
  const [typed, type] = useState('');
  if (!justDone?.set.uncounted) return null;
  const { entry, set, movement } = justDone;
  const open = entry.sets.filter(({ uncounted }) => uncounted).length;
  const amount = Number(typed);
  const right = typed !== '' && Number.isInteger(amount) && amount >= 0 && amount <= 999;
  const keep = () => {
    const { id: setId, kg, loadLabel } = set;
    if (right) tap([draft(uuidv7(), 'set-corrected', { setId, amount, kg, loadLabel })]);
    type('');
  };
  return (
    <form
      aria-label={say.floor.counted}
      className="mb-2 flex flex-wrap items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <span>
        {say.floor.repsCounted(movement?.name ?? say.floor.thatTurn, set.side === 'both' ? '' : `, ${set.side}`)}
      </span>
      <input
        className="input input-lg w-24"
        inputMode="numeric"
        aria-label={say.floor.countedReps}
        value={typed}
        onChange={({ target }) => type(target.value)}
      />
      <button type="submit" className="btn target" disabled={!right}>
        {say.floor.keep}
      </button>
      <span className="quiet">{open === 1 ? say.floor.withoutItTheTimeIs : say.floor.turnsByTheClockSo(open)}</span>
    </form>
  );
}

/** Reps left by number, for those who ask that way. */
function RepsLeft({ onLeft }: { onLeft: (left: number) => void }) {
  return (
    <select
      className="select target w-24 max-sm:col-span-4 max-sm:w-full"
      aria-label={say.floor.repsLeft}
      value=""
      onChange={(event) => onLeft(Number(event.target.value))}
    >
      <option value="" disabled>
        {say.floor.repsLeftTitle}
      </option>
      {Array.from({ length: 9 }, (_, n) => (
        <option key={n} value={n}>
          {say.floor.repsLeftOf(n)}
        </option>
      ))}
    </select>
  );
}

/** The next dose with its reason; one tap takes it. */
function Next({ view }: { view: LaneView }) {
  const tap = useTap(view.client.id);
  const proposal = proposalFor(view);
  const last = view.entry?.sets.findLast((set) => set.effort !== null);
  const take = (one: Proposal) => {
    if (one.to) tap(swapTo(view, one.to.id, one.step.kind === 'rung-up' ? 'ready' : say.floor.tooHard, uuidv7));
    else if (one.changes) tap(takeProposal(view, one, uuidv7));
  };
  useKeys(['j'], () => proposal && take(proposal));
  if (!proposal) return last ? <p className="quiet pt-3">{say.floor.lastSetFelt(last.effort ?? '')}</p> : null;
  const words = proposal.to
    ? proposal.to.name.toLowerCase()
    : view.movement && doseTaken(proposal, view.movement.dose.mode);
  return (
    <div className="flex items-center gap-3">
      <p className="min-w-0 flex-1 leading-snug">
        {last && <span className="sr-only">{say.floor.lastSetFelt(last.effort ?? '')} </span>}
        {whyWords(proposal.why, (id) => movementOf(view, id)?.name ?? id)}
      </p>
      {(proposal.changes || proposal.to) && (
        <button type="button" className="btn target h-auto shrink-0 py-2" onClick={() => take(proposal)}>
          {say.floor.take(words ?? '')}
        </button>
      )}
    </div>
  );
}

/** A dose in words; a hold that was broken goes on in its pieces. */
const doseTaken = ({ dose, why }: Proposal, mode: DoseMode): string => {
  const broken = why.find((reason) => reason.code === 'pieces');
  return broken && broken.next.length > 1 ? holdWords(broken.next) : doseWords(dose, mode);
};
