/** The faults to watch for, grouped by where to stand, each one tap; and the place to stand for this set. */
import { groupByView, MOST_SETS_PLANNED, whereToStand, type Likelihood } from '@waxwing/core/coaching';
import { aimOf } from '@waxwing/core/dosage';
import { VIEW_WORDS, type Fault, type Movement, type View } from '@waxwing/core/movement';
import { progressOf, type Entry } from '@waxwing/core/session';
import { useKeys } from '../shell/use-keys';
import { SeverityMark } from '../words/severity-mark';
import { StandPlan } from './stand-plan';
import { likelihood, type LaneView } from './use-lane';

const KEYS = ['q', 'w', 'e', 'r', 't', 'y', 'z', 'x'];

export function FaultPanel({ view }: { view: LaneView }) {
  const { page, entry } = view;
  const faults = page?.movement.faults ?? [];
  const likely = likelihood(view);
  const groups = groupByView(faults, likely);
  const ordered = groups.flatMap((group) => group.faults);
  const see = (fault: Fault) => {
    if (entry) view.tap((record) => record('fault-seen', { entryId: entry.id, faultId: fault.id }));
  };
  useKeys(KEYS, (key) => {
    const fault = ordered[KEYS.indexOf(key)];
    if (fault) see(fault);
  });
  const stand = page && entry ? placeFor(page.movement, entry, likely) : undefined;
  return (
    <section aria-label="Faults" className="border-base-300 border-t p-5 lg:border-t-0 lg:border-l">
      {stand && (
        <div className="mb-4 flex items-center gap-4">
          <StandPlan view={stand} />
          <p>
            <span className="quiet block">Stand for this set</span>
            <span className="text-2xl font-bold">{VIEW_WORDS[stand]}</span>
          </p>
        </div>
      )}
      <h2 className="sr-only">What do you see?</h2>
      {groups.map(({ view: place, faults: group }) => (
        <div key={place} className="mb-3">
          <h3 className="mb-1">Shows best {VIEW_WORDS[place].toLowerCase()}</h3>
          <ul className="space-y-2">
            {group.map((fault) => (
              <li key={fault.id}>
                <FaultButton
                  fault={fault}
                  seen={entry?.faults.find((f) => f.faultId === fault.id)}
                  onSee={() => see(fault)}
                />
              </li>
            ))}
          </ul>
        </div>
      ))}
    </section>
  );
}

/** The view for the set in hand, from the best plan for all sets of the movement. */
function placeFor(movement: Movement, entry: Entry, likely: Likelihood): View | undefined {
  if (movement.faults.length === 0) return undefined;
  const { setNumber } = progressOf(entry, movement.sides);
  const sets = Math.min(MOST_SETS_PLANNED, Math.max(aimOf(movement).sets[1], setNumber));
  return whereToStand(movement.faults, sets, likely)[(setNumber - 1) % sets];
}

function FaultButton({
  fault,
  seen,
  onSee,
}: {
  fault: Fault;
  seen: { times: number; open: boolean } | undefined;
  onSee: () => void;
}) {
  const open = seen?.open ?? false;
  return (
    <button
      type="button"
      aria-pressed={open}
      title={fault.looksLike}
      className={`btn target h-auto w-full justify-start gap-3 py-2 text-left font-semibold ${open ? 'border-error border-2' : ''}`}
      onClick={onSee}
    >
      <SeverityMark severity={fault.severity} size={24} />
      <span className="flex-1">{fault.name}</span>
      {seen && (
        <span className="quiet text-lg font-normal">
          {open ? 'seen' : 'fixed'} ×{seen.times}
        </span>
      )}
    </button>
  );
}
