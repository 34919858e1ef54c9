/** All clients of a session side by side: who works, who rests, who is ready, with the load and the time of each. A tap brings one forward. */
import { type Attention, whomToWatch } from '@waxwing/core/coaching';
import {
  doseNow,
  heldNow,
  type LanePhase,
  laneTime,
  type LaneView,
  likelihood,
  placesTaken,
} from '@waxwing/core/floor';
import { viewWords } from '@waxwing/core/movement';
import { doseWords } from '@waxwing/core/planning';
import { Check, Circle, Eye, type LucideIcon, Octagon, Pause, Square, Triangle } from 'lucide-react';

import { useKeys } from '../shell/use-keys';
import { firstName } from '../words/names';
import { say } from '../words/say';
import { useLaneTime, useTimed } from './clock';
import { useLaneSounds } from './use-floor-sounds';

const KEYS = ['5', '6', '7', '8'];

/** Each state has a shape as well as a word. */
export const PHASES: Readonly<Record<LanePhase, { word: string; Icon: LucideIcon }>> = {
  work: { word: say.floor.work, Icon: Square },
  paused: { word: say.common.held, Icon: Pause },
  over: { word: say.floor.time, Icon: Check },
  rest: { word: say.floor.rest, Icon: Circle },
  ready: { word: say.floor.readyNow, Icon: Triangle },
  idle: { word: '', Icon: Triangle },
};

/** Whom to watch now: of those who work, or else of those who do not rest, the one with the most to be seen. */
export function useAttention(views: readonly LaneView[]): Attention | undefined {
  const phases = useTimed((now) => views.map((view) => laneTime(view, now).phase).join()).split(',');
  const at = (...wanted: LanePhase[]) => views.filter((_, i) => wanted.includes(phases[i] as LanePhase));
  const [first] =
    [at('work', 'paused'), at('over', 'ready', 'idle'), views].map(attentionOf).find((all) => all.length > 0) ?? [];
  return first;
}

function attentionOf(views: readonly LaneView[]): Attention[] {
  return whomToWatch(
    views.flatMap((view) =>
      view.page && view.step
        ? [
            {
              clientId: view.client.id,
              faults: view.page.movement.faults,
              likely: likelihood(view),
              taken: placesTaken(view),
            },
          ]
        : [],
    ),
  );
}

export function LaneStrip({
  views,
  watch,
  chosen,
  choose,
}: {
  views: readonly LaneView[];
  watch: Attention | undefined;
  chosen: string;
  choose: (clientId: string) => void;
}) {
  useKeys(KEYS, (key) => {
    const view = views[KEYS.indexOf(key)];
    if (view) choose(view.client.id);
  });
  return (
    <div
      role="tablist"
      aria-label={say.common.clients}
      className="border-base-content grid grid-cols-2 gap-x-1 border-b-2 px-1 lg:flex"
    >
      {views.map((view, i) => (
        <LaneCard
          key={view.client.id}
          view={view}
          index={i}
          chosen={view.client.id === chosen}
          watch={watch?.clientId === view.client.id ? watch : null}
          onChoose={() => choose(view.client.id)}
        />
      ))}
    </div>
  );
}

function LaneCard({
  view,
  index,
  chosen,
  watch,
  onChoose,
}: {
  view: LaneView;
  index: number;
  chosen: boolean;
  watch: Attention | null;
  onChoose: () => void;
}) {
  const { phase, words } = useLaneTime(view);
  useLaneSounds(view, index);
  const { client, movement, step, waits } = view;
  const stop = view.alarm !== null || view.closed !== null;
  const { word, Icon } = PHASES[phase];
  const dose = doseNow(view);
  return (
    <button
      type="button"
      role="tab"
      aria-selected={chosen}
      className={`min-w-0 flex-1 cursor-pointer px-3 py-2 text-left text-xl leading-tight ${
        stop ? 'alarm' : chosen ? 'bg-primary text-primary-content' : 'bg-base-200'
      } ${phase === 'work' ? 'now-band' : ''}`}
      onClick={onChoose}
    >
      <span className="flex items-baseline justify-between gap-2">
        <span className="flex min-w-0 items-baseline gap-2 font-bold">
          <span className="truncate">{firstName(client)}</span>
          {watch && (
            <span
              className="flex items-center gap-1 self-center"
              title={say.floor.watchFor(watch.fault.name.toLowerCase())}
            >
              <Eye aria-hidden size={24} />
              <span className="sr-only">
                {say.floor.watchFirst(viewWords(watch.view, view.movement?.position).toLowerCase())}
              </span>
            </span>
          )}
        </span>
        <span className="flex shrink-0 items-baseline gap-1.5 text-2xl font-bold whitespace-nowrap">
          {stop ? (
            <Octagon aria-hidden size={20} />
          ) : (
            word && <Icon aria-hidden size={18} fill={phase === 'rest' ? 'none' : 'currentColor'} />
          )}
          <span className="text-xl max-sm:sr-only">{stop ? say.floor.stop : word}</span>
          {words}
        </span>
      </span>
      <span className="block truncate">{waits ? say.floor.waitsThisTurn : (movement?.name ?? say.floor.allDone)}</span>
      <span className="block truncate">
        {step && dose && movement
          ? say.floor.setAndDose(
              step.set,
              step.of,
              doseWords(dose, movement.dose.mode),
              heldNow(view) !== null && !stop,
            )
          : ' '}
      </span>
    </button>
  );
}
