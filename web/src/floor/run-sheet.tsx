/** The order of the session for one client: what is done, now, next and later; go to, leave out, once more, put in; and what to drop when time runs out. */
import { draft, fitOf, goTo, type LaneView, leftOf, minutesOver, movementOf, skip, timeOf } from '@waxwing/core/floor';
import { inWords, label } from '@waxwing/core/movement';
import { minuteWords } from '@waxwing/core/planning';
import { doseWords } from '@waxwing/core/planning';
import { isOpen } from '@waxwing/core/progress';
import { isPending, type RunStep, shortened, type StepState, type Trim, trims } from '@waxwing/core/session';
import { Check, CircleDot, type LucideIcon, Minus } from 'lucide-react';
import { useState } from 'react';
import { useContext } from 'react';
import { v7 as uuidv7 } from 'uuid';

import { Dialog } from '../shell/dialog';
import { asStrong, Marked } from '../words/marked';
import { firstName } from '../words/names';
import { PlaceField } from '../words/place-field';
import { say } from '../words/say';
import { ChooseMovement } from './choose-movement';
import { useTimed } from './clock';
import type { LiveSession } from './use-session';
import { TapContext, useTap } from './use-tap';

interface Props {
  live: LiveSession;
  views: readonly LaneView[];
  view: LaneView;
  onClose: () => void;
}

/** The sets of one line, together. */
interface Line {
  itemId: string;
  steps: RunStep[];
}

function linesOf(steps: readonly RunStep[]): Line[] {
  const lines = new Map<string, RunStep[]>();
  for (const step of steps) lines.set(step.itemId, [...(lines.get(step.itemId) ?? []), step]);
  return [...lines].map(([itemId, own]) => ({ itemId, steps: own }));
}

export function RunSheet({ live, views, view, onClose }: Props) {
  const [adding, add] = useState(false);
  const lines = linesOf(view.steps);
  const name = firstName(view.client);
  return (
    <Dialog title={adding ? say.floor.putInFor(name) : say.floor.orderFor(name)} onClose={onClose}>
      {adding ? (
        <ChooseMovement view={view} onDone={onClose} />
      ) : (
        <>
          <Minutes live={live} views={views} />
          <Where view={view} />
          {lines.length === 0 && <p>{say.floor.nothingIsPlannedWhatYou}</p>}
          <ol className="ruled">
            {lines.map((line) => (
              <LineRow key={line.itemId} line={line} view={view} onClose={onClose} />
            ))}
          </ol>
          <button type="button" className="btn btn-primary target mt-4" onClick={() => add(true)}>
            {say.floor.putInAMovement}
          </button>
        </>
      )}
    </Dialog>
  );
}

/** Where it is held; another place has another kit, and everything follows. */
function Where({ view }: { view: LaneView }) {
  const tap = useTap(view.client.id);
  return (
    <div className="mb-4 max-w-sm">
      <PlaceField
        places={view.places}
        value={view.place.ref}
        onChange={({ ref }) => tap([draft(uuidv7(), 'place-changed', { place: ref })])}
      />
    </div>
  );
}

/** Minutes that are left, and what would bring the session in under its time. */
function Minutes({ live, views }: { live: LiveSession; views: readonly LaneView[] }) {
  const tap = useContext(TapContext);
  const toDo = leftOf(views);
  const over = useTimed((now) => minutesOver(live, toDo, now));
  const find = (id: string) => views.map((view) => movementOf(view, id)).find((movement) => movement !== undefined);
  const ways =
    over > 0
      ? trims(
          views.map(({ steps }) => steps),
          over * 60,
          timeOf(views),
        ).slice(0, 3)
      : [];
  const drop = (trim: Trim) => {
    for (const view of views) {
      const changes = shortened(view.steps, trim.itemIds);
      if (changes.length > 0)
        void tap(
          view.client.id,
          changes.map((change) => draft(uuidv7(), 'sets-changed', change)),
        );
    }
  };
  const what = ({ itemIds, blockKind, movementIds }: Trim) =>
    itemIds.length > 1
      ? say.floor.oneRoundOfThe(inWords(blockKind ?? 'circuit'))
      : say.floor.oneSetOf(find(movementIds[0] ?? '')?.name.toLowerCase() ?? 'it');
  if (toDo === 0) return null;
  return (
    <section aria-label={say.common.minutes} className="mb-4">
      <p>
        <Marked words={say.floor.leftToDo(minuteWords(toDo), over)} as={asStrong} />
      </p>
      {ways.length > 0 && (
        <ul className="mt-2 flex flex-wrap gap-2">
          {ways.map((trim) => (
            <li key={trim.itemIds.join()}>
              <button type="button" className="btn target h-auto py-2" onClick={() => drop(trim)}>
                {say.floor.dropSavesMin(what(trim), Math.max(1, Math.round(trim.saves / 60)))}
              </button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

const MARKS: Readonly<Record<StepState, { Icon: LucideIcon | null; word: string }>> = {
  done: { Icon: Check, word: 'done' },
  skipped: { Icon: Minus, word: say.floor.leftOut },
  now: { Icon: CircleDot, word: 'now' },
  next: { Icon: null, word: 'next' },
  later: { Icon: null, word: '' },
};

function LineRow({ line: { itemId, steps }, view, onClose }: { line: Line; view: LaneView; onClose: () => void }) {
  const tap = useTap(view.client.id);
  const pending = steps.find(isPending);
  const shown = pending ?? steps.at(-1);
  const now = steps.some(({ state }) => state === 'now');
  const done = steps.filter(({ state }) => state === 'done').length;
  if (!shown) return null;
  const movement = movementOf(view, shown.lane.movementId);
  const state: StepState = now ? 'now' : pending ? pending.state : done > 0 ? 'done' : 'skipped';
  const { Icon, word } = MARKS[state];
  const go = () => {
    if (pending) tap(goTo(pending, uuidv7));
    onClose();
  };
  const skipOne = () => {
    if (pending) tap(skip(pending, uuidv7));
  };
  const drop = () => tap([draft(uuidv7(), 'item-dropped', { itemId })]);
  const again = () => {
    tap([
      draft(uuidv7(), 'sets-changed', { itemId, sets: shown.of + 1 }),
      draft(uuidv7(), 'gone-to', { itemId, set: shown.of + 1 }),
    ]);
    onClose();
  };
  return (
    <li className={`flex flex-wrap items-center gap-2 py-2 ${now ? 'now-band pl-3' : ''}`}>
      <span className="flex min-w-56 flex-1 items-center gap-3">
        <span className="w-6">{Icon && <Icon aria-hidden />}</span>
        <span>
          <span className="font-bold">{movement?.name ?? label(shown.lane.movementId)}</span>
          <span className="quiet block">
            {say.floor.doneOf(
              done,
              shown.of,
              doseWords(shown.lane, movement?.dose.mode ?? 'reps'),
              word && ` · ${word}`,
            )}
          </span>
        </span>
      </span>
      {pending && !now && <RowButton onClick={go}>{say.floor.goTo}</RowButton>}
      {pending && <RowButton onClick={skipOne}>{say.floor.skipASet}</RowButton>}
      {movement && isOpen(fitOf(view, movement)) && <RowButton onClick={again}>{say.floor.onceMore}</RowButton>}
      {pending && <RowButton onClick={drop}>{say.floor.drop}</RowButton>}
    </li>
  );
}

const RowButton = ({ onClick, children }: { onClick: () => void; children: string }) => (
  <button type="button" className="btn target" onClick={onClick}>
    {children}
  </button>
);
