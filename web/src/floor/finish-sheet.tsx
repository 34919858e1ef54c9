/** Finishing with lines open asks once what becomes of them. */
import { draft, type LaneView, movementOf } from '@waxwing/core/floor';
import { label } from '@waxwing/core/movement';
import { isPending } from '@waxwing/core/session';
import { useContext } from 'react';
import { v7 as uuidv7 } from 'uuid';

import { Dialog } from '../shell/dialog';
import { firstName } from '../words/names';
import { say } from '../words/say';
import { TapContext } from './use-tap';

interface Open {
  movementId: string;
  name: string;
  sets: number;
}

/** Movements of which sets are still to do, with how many. */
export function openLines(view: LaneView): Open[] {
  const sets = new Map<string, number>();
  for (const { lane } of view.steps.filter(isPending)) sets.set(lane.movementId, (sets.get(lane.movementId) ?? 0) + 1);
  return [...sets].map(([movementId, n]) => ({
    movementId,
    name: movementOf(view, movementId)?.name ?? label(movementId),
    sets: n,
  }));
}

export function FinishSheet({
  views,
  onFinish,
  onClose,
}: {
  views: readonly LaneView[];
  onFinish: () => void;
  onClose: () => void;
}) {
  const tap = useContext(TapContext);
  const open = views.map((view) => ({ view, lines: openLines(view) })).filter(({ lines }) => lines.length > 0);
  const keep = () => {
    for (const { view, lines } of open)
      void tap(view.client.id, [
        draft(uuidv7(), 'left-for-next', { movementIds: lines.map(({ movementId }) => movementId) }),
      ]);
    onFinish();
  };
  return (
    <Dialog title={say.floor.notAllOfItIs} onClose={onClose}>
      <ul className="ruled mb-4">
        {open.map(({ view, lines }) => (
          <li key={view.client.id} className="py-2">
            {views.length > 1 && <strong>{firstName(view.client)}: </strong>}
            {lines.map(({ name, sets }) => `${name}, ${say.common.sets(sets)}`).join(' · ')}
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="btn btn-primary target" onClick={keep}>
          {say.floor.finishAndKeepItFor}
        </button>
        <button type="button" className="btn target" onClick={onFinish}>
          {say.floor.finishAndLeaveItOut}
        </button>
        <button type="button" className="btn target" onClick={onClose}>
          {say.floor.notYet}
        </button>
      </div>
    </Dialog>
  );
}
