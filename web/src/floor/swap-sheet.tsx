/** Swapping the movement in hand: a reason, the ranked answers with their reasons, and what was ruled out by what. */
import { afterPain, type LaneView, nextUp, swapsFrom, swapsOf, swapTo } from '@waxwing/core/floor';
import { ASIDE, type Substitute, SWAP_REASONS, type SwapReason } from '@waxwing/core/ladder';
import type { Region } from '@waxwing/core/movement';
import { useState } from 'react';
import { v7 as uuidv7 } from 'uuid';

import { Still } from '../figures/still';
import { Dialog } from '../shell/dialog';
import { LadderMark } from '../words/ladder-mark';
import { heldWords } from '../words/reasons';
import { say } from '../words/say';
import { REASON_WORDS, ruledOutWords, swapWords } from '../words/swap-words';
import { useTap } from './use-tap';

/** Pain is asked for by region in a sheet of its own. */
const CHOICES = SWAP_REASONS.filter((reason) => reason !== 'pain');

export function SwapSheet({ view, onClose }: { view: LaneView; onClose: () => void }) {
  const [reason, choose] = useState<SwapReason>('too-hard');
  const held = reason === 'too-easy' ? nextUp(view).held : null;
  return (
    <Dialog title={say.floor.swapTheMovement} onClose={onClose}>
      <div role="group" aria-label={say.common.why} className="mb-4 flex flex-wrap gap-2">
        {CHOICES.map((choice) => (
          <button
            key={choice}
            type="button"
            aria-pressed={choice === reason}
            className={`btn target ${choice === reason ? 'btn-primary' : ''}`}
            onClick={() => choose(choice)}
          >
            {REASON_WORDS[choice]}
          </button>
        ))}
      </div>
      {held ? (
        <p role="alert" className="font-bold">
          {say.common.nothingHarderNow(heldWords(held))}
        </p>
      ) : (
        <SwapAnswers view={view} reason={reason} onDone={onClose} />
      )}
    </Dialog>
  );
}

/** The answers for a reason; a tap on one takes it. */
export function SwapAnswers({
  view,
  reason,
  region,
  onDone,
}: {
  view: LaneView;
  reason: SwapReason;
  region?: Region;
  onDone: () => void;
}) {
  const tap = useTap(view.client.id);
  // What hurt has left the run: what is in hand by now is another movement.
  const hurt = reason === 'pain' ? (view.alarm?.movementId ?? null) : null;
  const { ranked, ruledOut } = hurt === null ? swapsOf(view, reason, region) : swapsFrom(view, hurt, reason, region);
  const take = ({ id }: Substitute) => {
    tap(
      hurt === null
        ? swapTo(view, id, REASON_WORDS[reason].toLowerCase(), uuidv7, ASIDE.includes(reason))
        : afterPain(view, id, uuidv7),
    );
    onDone();
  };
  return (
    <>
      {ranked.length === 0 && <p>{say.floor.nothingInTheLibraryFits}</p>}
      <ul className="ruled">
        {ranked.map((answer) => (
          <li key={answer.id}>
            <button
              type="button"
              className="hover:bg-base-200 target flex w-full items-start gap-3 px-2 py-3 text-left"
              onClick={() => take(answer)}
            >
              <span className="pt-1">
                <LadderMark
                  direction={
                    answer.levels === null || answer.levels === 0 ? 'sideways' : answer.levels < 0 ? 'easier' : 'harder'
                  }
                  size={24}
                />
              </span>
              <Still movement={answer} className="h-14 w-16 shrink-0" />
              <span>
                <span className="font-bold">{answer.name}</span>
                <span className="block">{swapWords(answer.why)}</span>
              </span>
            </button>
          </li>
        ))}
      </ul>
      {ruledOut.length > 0 && (
        <details className="mt-4">
          <summary className="target cursor-pointer py-3">{say.floor.ruledOut(ruledOut.length)}</summary>
          <ul className="ruled">
            {ruledOut.map((out) => (
              <li key={out.id} className="py-2">
                <span className="font-bold">{out.name}</span> <span className="quiet">· {ruledOutWords(out.by)}</span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </>
  );
}
