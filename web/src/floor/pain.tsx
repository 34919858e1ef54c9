/** Pain: reported by region and quality in one tap. Sharp pain takes over the screen until the movement is left. */
import { EMERGENCY_ADVICE, PAIN_ADVICE, PAIN_QUALITIES } from '@waxwing/core/coaching';
import { inWords, label, REGIONS } from '@waxwing/core/movement';
import { Sheet } from '../shell/sheet';
import { SwapAnswers } from './swap-sheet';
import { entryFor, type LaneView } from './lane';

export function PainSheet({ view, onClose }: { view: LaneView; onClose: () => void }) {
  return (
    <Sheet title="Where does it hurt, and how?" onClose={onClose}>
      <p className="quiet mb-3">
        Sharp, sudden, in a joint, on one side, pins and needles: sharp. Heavy or burning and even is effort, not pain.
      </p>
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
                aria-label={`${label(quality)} pain: ${inWords(region)}`}
                onClick={() => {
                  view.tap((record) =>
                    record('pain-reported', {
                      // The pain belongs to the movement in hand, even when nothing else was recorded of it yet.
                      entryId: view.movement ? entryFor(view, record) : null,
                      region,
                      quality,
                    }),
                  );
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
    </Sheet>
  );
}

/** Shown instead of the set while the movement in hand is the one that hurt. */
export function PainTakeover({ view }: { view: LaneView }) {
  const pain = view.lane.pains.findLast((p) => p.quality === 'sharp' && p.movementId === view.movement?.id);
  if (!pain) return null;
  return (
    <div className="grid min-h-full lg:grid-cols-2">
      <section role="alert" className="alarm space-y-4 p-6">
        <p className="text-4xl font-bold">Stop: sharp pain at the {inWords(pain.region)}</p>
        <p className="text-2xl">{PAIN_ADVICE.sharp}</p>
        <p className="font-bold">{EMERGENCY_ADVICE}</p>
      </section>
      <section aria-label="Instead" className="p-6">
        <h2 className="mb-2">Instead, if all else is well</h2>
        <SwapAnswers view={view} reason="pain" region={pain.region} onDone={() => undefined} />
      </section>
    </div>
  );
}
