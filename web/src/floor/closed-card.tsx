/** A planned movement that must not be done now: why, what there is instead, and the deliberate way to do it all the same. */
import { draft, goTo, type LaneView, movementOf, nextOther, skip, swapTo } from '@waxwing/core/floor';
import { becauseWords } from '@waxwing/core/formats';
import { Octagon } from 'lucide-react';
import { v7 as uuidv7 } from 'uuid';

import { say } from '../words/say';
import { useTap } from './use-tap';

export function ClosedCard({ view, onAllTheSame }: { view: LaneView; onAllTheSame: () => void }) {
  const { closed, movement, step } = view;
  const tap = useTap(view.client.id);
  if (!closed || !movement) return null;
  const { fit, instead } = closed;
  const next = nextOther(view);
  return (
    <div className="grid min-h-full lg:grid-cols-2">
      <section role="alert" aria-label={say.floor.closed} className="alarm space-y-3 p-6">
        <p className="flex items-center gap-3 text-4xl font-bold">
          <Octagon aria-hidden size={36} />
          {say.floor.notNow(movement.name.toLowerCase())}
        </p>
        <p className="text-2xl first-letter:uppercase">{becauseWords(fit.because)}.</p>
        <p>{say.floor.whatALimitOrA}</p>
      </section>
      <section aria-label={say.floor.instead} className="flex flex-col gap-3 p-6">
        {instead ? (
          <button
            type="button"
            className="btn btn-primary h-auto min-h-16 w-full py-2 text-2xl"
            onClick={() => tap(swapTo(view, instead.id, say.floor.insteadOf(movement.name.toLowerCase()), uuidv7))}
          >
            {say.floor.take(instead.name.toLowerCase())}
          </button>
        ) : (
          <p className="text-2xl font-bold">{say.floor.nothingNearItIsOpen}</p>
        )}
        {next && (
          <button type="button" className="btn target h-auto py-2" onClick={() => tap(goTo(next, uuidv7))}>
            {say.floor.goOnTo((movementOf(view, next.lane.movementId)?.name ?? '').toLowerCase())}
          </button>
        )}
        {step && (
          <>
            <button type="button" className="btn target" onClick={() => tap(skip(step, uuidv7))}>
              {say.floor.skipThisSet}
            </button>
            <button
              type="button"
              className="btn target"
              onClick={() => tap([draft(uuidv7(), 'item-dropped', { itemId: step.itemId })])}
            >
              {say.floor.leaveItOutToday}
            </button>
          </>
        )}
        <button type="button" className="btn btn-ghost target mt-4 self-start underline" onClick={onAllTheSame}>
          {say.floor.doItAllTheSame}
        </button>
      </section>
    </div>
  );
}
