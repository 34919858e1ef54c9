/** Pain: reported by place and quality in one tap. Sharp pain stops what runs and takes over the screen until something else is begun. */
import {
  BODY_SIDES,
  type BodySide,
  EMERGENCY_ADVICE,
  PAIN_ADVICE,
  PAIN_QUALITIES,
  painPlace,
} from '@waxwing/core/client';
import { goTo, type LaneView, movementOf, nextOpen, reportPain } from '@waxwing/core/floor';
import { inWords, label, REGIONS } from '@waxwing/core/movement';
import { useState } from 'react';
import { v7 as uuidv7 } from 'uuid';

import { Dialog } from '../shell/dialog';
import { say } from '../words/say';
import { SwapAnswers } from './swap-sheet';
import { useTap } from './use-tap';

export function PainSheet({ view, onClose }: { view: LaneView; onClose: () => void }) {
  const tap = useTap(view.client.id);
  const [side, choose] = useState<BodySide>();
  return (
    <Dialog title={say.floor.whereDoesItHurtAnd} onClose={onClose}>
      <p className="quiet mb-3">{say.floor.sharpSuddenInAJoint}</p>
      <div role="group" aria-label={say.floor.side} className="mb-3 grid max-w-md grid-cols-3 gap-2">
        {BODY_SIDES.map((one) => (
          <button
            key={one}
            type="button"
            aria-pressed={one === side}
            className={`btn target ${one === side ? 'btn-primary' : ''}`}
            onClick={() => choose(one === side ? undefined : one)}
          >
            {label(one)}
          </button>
        ))}
      </div>
      <ul className="grid gap-x-6 sm:grid-cols-2">
        {REGIONS.map((region) => (
          <li
            key={region}
            className="border-base-300 grid grid-cols-[1fr_auto_auto] items-center gap-2 border-t py-1.5"
          >
            <span className="font-semibold">{label(region)}</span>
            {PAIN_QUALITIES.map((quality) => (
              <button
                key={quality}
                type="button"
                className={`btn target ${quality === 'sharp' ? 'alarm' : ''}`}
                aria-label={say.floor.painAt(label(quality), inWords(region))}
                onClick={() => {
                  tap(reportPain(view, { region, quality, ...(side ? { side } : {}) }, uuidv7));
                  onClose();
                }}
              >
                {label(quality)}
              </button>
            ))}
          </li>
        ))}
      </ul>
      <p className="mt-4 font-bold">{EMERGENCY_ADVICE}</p>
    </Dialog>
  );
}

/** Shown instead of the set until something else is begun. */
export function PainTakeover({ view, pain }: { view: LaneView; pain: NonNullable<LaneView['alarm']> }) {
  const tap = useTap(view.client.id);
  const next = nextOpen(view);
  return (
    <div className="grid min-h-full lg:grid-cols-2">
      <section role="alert" className="alarm space-y-4 p-6">
        <p className="text-4xl font-bold">
          {pain.region === null ? say.floor.stopSharpPain : say.floor.stopSharpPainAtThe(painPlace(pain))}
        </p>
        <p className="text-2xl">{PAIN_ADVICE.sharp}</p>
        <p className="font-bold">{EMERGENCY_ADVICE}</p>
      </section>
      <section aria-label={say.floor.instead} className="p-6">
        {next && (
          <button
            type="button"
            className="btn btn-primary target mb-4 h-auto w-full py-2"
            onClick={() => tap(goTo(next, uuidv7))}
          >
            {say.floor.goOnTo((movementOf(view, next.lane.movementId)?.name ?? '').toLowerCase())}
          </button>
        )}
        {pain.region === null && <p className="mb-2">{say.floor.placeOfPainNotTold}</p>}
        {pain.movementId !== null && pain.region !== null && (
          <>
            <h2 className="mb-2">{say.floor.insteadOfItIfAll}</h2>
            <SwapAnswers view={view} reason="pain" region={pain.region} onDone={() => undefined} />
          </>
        )}
      </section>
    </div>
  );
}
