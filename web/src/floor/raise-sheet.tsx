/** Harder without another weight: the levers that this movement has, each one tap with what it comes to. */
import { type LaneView, movementOf, type Raise, raisesFor, setDose, swapTo } from '@waxwing/core/floor';
import { doseWords } from '@waxwing/core/planning';
import { v7 as uuidv7 } from 'uuid';

import { Dialog } from '../shell/dialog';
import { say } from '../words/say';
import { useTap } from './use-tap';

const TITLES: Readonly<Record<Raise['lever'], string>> = say.floor.titles;

export function RaiseSheet({ view, onClose }: { view: LaneView; onClose: () => void }) {
  const tap = useTap(view.client.id);
  const raises = raisesFor(view);
  const mode = view.movement?.dose.mode ?? 'reps';
  const words = (raise: Raise): string => {
    if ('movementId' in raise) return movementOf(view, raise.movementId)?.name ?? raise.movementId;
    const { dose } = raise;
    if (raise.lever === 'rest') return say.floor.secondsRest(dose.rest ?? 0);
    return raise.lever === 'reps' ? doseWords(dose, mode) : say.floor.doseAndTempo(doseWords(dose, mode), dose.tempo);
  };
  const take = (raise: Raise) => {
    tap('movementId' in raise ? swapTo(view, raise.movementId, 'harder', uuidv7) : setDose(view, raise.dose, uuidv7));
    onClose();
  };
  return (
    <Dialog title={say.floor.harderWithoutMoreWeight} onClose={onClose}>
      {raises.length === 0 && <p>{say.floor.nothingHereMakesItHarder}</p>}
      <div className="grid gap-2 sm:grid-cols-2">
        {raises.map((raise) => (
          <button
            key={raise.lever}
            type="button"
            className="btn target h-auto flex-col items-start gap-0 py-2 text-left"
            onClick={() => take(raise)}
          >
            <span>{TITLES[raise.lever]}</span>
            <span className="font-normal">{words(raise)}</span>
          </button>
        ))}
      </div>
    </Dialog>
  );
}
