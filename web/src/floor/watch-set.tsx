/** The set in hand watched by the camera: a live count, and what was seen at its end, as buttons of the usual flow. */
import {
  adviceFor,
  atStay,
  doseNow,
  draft,
  type JustDone,
  type LaneView,
  seeFault,
  sideNext,
} from '@waxwing/core/floor';
import type { Fault, Movement } from '@waxwing/core/movement';
import { amountWords, type Answer, outcomeFrom, type Reading, sentencesOf, typicalOf } from '@waxwing/core/sight';
import { useRef, useState } from 'react';
import { v7 as uuidv7 } from 'uuid';

import { useLiveWatch } from '../sight/use-live-watch';
import { say } from '../words/say';
import { give } from './give';
import { speak } from './sound';
import { useTap } from './use-tap';
import { useWakeLock } from './use-wake-lock';

interface Props {
  view: LaneView;
  movement: Movement;
  onClose: () => void;
}

/** A fault as it was measured in the set before, by kind. */
type Before = ReadonlyMap<string, Answer>;

const OUTCOME_NAMES: Readonly<Record<NonNullable<ReturnType<typeof outcomeFrom>>, string>> = say.floor.outcomeNames;

export function WatchSet({ view, movement, onClose }: Props) {
  const [seen, setSeen] = useState<Reading | null>(null);
  const [before, setBefore] = useState<Before>(new Map());
  const [again, setAgain] = useState(0);
  if (!seen) return <Watching key={again} view={view} movement={movement} onEnd={setSeen} onClose={onClose} />;
  return (
    <Seen
      view={view}
      movement={movement}
      reading={seen}
      before={before}
      onNext={() => {
        setBefore(
          new Map(seen.answers.filter(({ seen: reps }) => reps.length > 0).map((answer) => [answer.kind, answer])),
        );
        setSeen(null);
        setAgain(again + 1);
      }}
      onClose={onClose}
    />
  );
}

function Watching({
  view,
  movement,
  onEnd,
  onClose,
}: {
  view: LaneView;
  movement: Movement;
  onEnd: (reading: Reading) => void;
  onClose: () => void;
}) {
  const tap = useTap(view.client.id);
  const video = useRef<HTMLVideoElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [facing, setFacing] = useState<'environment' | 'user'>('environment');
  const [aloud, setAloud] = useState(false);
  const told = useRef(0);
  const dose = doseNow(view);
  const counts = movement.dose.mode === 'reps' && !dose?.parts;
  useWakeLock();
  const live = useLiveWatch({
    movement,
    tempo: dose?.tempo ?? movement.dose.tempo,
    video,
    canvas,
    facing,
    onReps: (count) => {
      const more = count - told.current;
      if (more <= 0) return;
      told.current = count;
      if (aloud) speak(String(count));
      if (!counts) return;
      // As if it had been counted by hand: the counter of the set fills, and stays the trainer's to correct.
      const side = sideNext(view);
      tap(
        atStay(view, uuidv7, (entryId) =>
          Array.from({ length: more }, () => draft(uuidv7(), 'rep-counted', { entryId, side })),
        ),
      );
    },
  });
  const { reading } = live;
  const last = reading?.reps.at(-1);
  if (live.trouble)
    return (
      <div role="alert" className="mb-3">
        <p className="mb-2">{live.trouble}</p>
        <button type="button" className="btn target" onClick={onClose}>
          {say.floor.goOnWithout}
        </button>
      </div>
    );
  return (
    <section aria-label={say.common.watching} className="mb-3 flex gap-4">
      <div className="bg-neutral relative w-fit max-w-[55%] self-start">
        <video ref={video} muted playsInline className="block max-h-[36vh] max-w-full" />
        <canvas
          ref={canvas}
          className="absolute inset-0 h-full w-full"
          onClick={(event) => {
            const { left, top, width, height } = event.currentTarget.getBoundingClientRect();
            live.pick((event.clientX - left) / width, (event.clientY - top) / height);
          }}
        />
        {live.opening !== null && (
          <progress className="progress absolute inset-x-4 bottom-4 w-auto" value={live.opening} max={1} />
        )}
      </div>
      <div className="flex min-w-0 flex-1 flex-col gap-2">
        <p role="status" className="text-7xl leading-none font-bold tabular-nums">
          {reading ? countWords(reading) : '–'}
        </p>
        <p className="quiet flex-1 leading-tight">
          {!reading
            ? say.floor.lookingForTheWholeBody
            : reading.blind
              ? say.floor.watchThisOneFromThe
              : reading.count === 'rough'
                ? say.floor.tooUnsteadyToCountCount
                : last && !reading.holds
                  ? say.floor.loweringSOfRisingS(last.lower.toFixed(1), reading.tempo.lower, last.rise.toFixed(1))
                  : say.floor.tapSomebodyElseInThe}
        </p>
        <button type="button" className="btn btn-primary target" onClick={() => (reading ? onEnd(reading) : onClose())}>
          {say.floor.stopWatching}
        </button>
        <button
          type="button"
          aria-pressed={aloud}
          className={`btn target ${aloud ? 'btn-primary' : ''}`}
          onClick={() => setAloud(!aloud)}
        >
          {say.floor.sayTheCount}
        </button>
        {/* Once reps are counted the count stays with this camera. */}
        {!last && (
          <button
            type="button"
            className="btn target"
            onClick={() => setFacing(facing === 'user' ? 'environment' : 'user')}
          >
            {say.common.otherCamera}
          </button>
        )}
      </div>
    </section>
  );
}

const countWords = ({ holds, reps, count }: Reading): string =>
  count === 'rough'
    ? '–'
    : holds
      ? `${Math.round(reps.reduce((sum, { stay }) => sum + stay, 0))} s`
      : String(reps.length);

function Seen({
  view,
  movement,
  reading,
  before,
  onNext,
  onClose,
}: {
  view: LaneView;
  movement: Movement;
  reading: Reading;
  before: Before;
  onNext: () => void;
  onClose: () => void;
}) {
  const tap = useTap(view.client.id);
  const [marked, mark] = useState<ReadonlySet<string>>(new Set());
  const last: JustDone | null = view.justDone?.entry.id === view.entry?.id && view.rest ? view.justDone : null;
  const faultOf = (kind: string): Fault | undefined => movement.faults.find((fault) => fault.kind === kind);
  const said = sentencesOf(reading, (kind) => faultOf(kind)?.name ?? kind);
  const see = (fault: Fault) => {
    tap(seeFault(view, fault.id, last, uuidv7));
    mark(new Set([...marked, fault.id]));
  };
  return (
    <section aria-label={say.floor.seenByTheCamera} className="border-base-content mb-3 border-2 p-3">
      <p className="mb-2 font-bold">{said.facts.join(' ')}</p>
      {said.seen.map(({ kind, words }) => {
        const fault = faultOf(kind);
        if (!fault) return null;
        return marked.has(fault.id) ? (
          <p key={kind} className="mb-2 font-bold">
            {say.floor.marked(fault.name)}
          </p>
        ) : (
          <button
            key={kind}
            type="button"
            className="btn target mb-2 h-auto w-full justify-start py-2 text-left"
            onClick={() => see(fault)}
          >
            {words}
          </button>
        );
      })}
      {[...before].map(([kind, was]) => (
        <Came
          key={kind}
          view={view}
          fault={faultOf(kind)}
          was={was}
          now={reading.answers.find((answer) => answer.kind === kind)}
        />
      ))}
      {said.notSeen.length > 0 && <p className="quiet leading-tight">{say.common.notSeen(said.notSeen.join(', '))}</p>}
      {said.cannot.map(({ why, kinds }) => (
        <p key={why} className="quiet leading-tight">
          {say.common.cantTell(why, kinds.join(', '))}
        </p>
      ))}
      <div className="mt-2 grid grid-cols-2 gap-2">
        <button type="button" className="btn btn-primary target" onClick={onNext}>
          {say.floor.watchTheNextSet}
        </button>
        <button type="button" className="btn target" onClick={onClose}>
          {say.floor.doneWatching}
        </button>
      </div>
    </section>
  );
}

/** What came of a correction, measured against the set before, offered as the outcome. */
function Came({
  view,
  fault,
  was,
  now,
}: {
  view: LaneView;
  fault: Fault | undefined;
  was: Answer;
  now: Answer | undefined;
}) {
  const tap = useTap(view.client.id);
  const [at] = useState(() => new Date().toISOString());
  const advice = adviceFor(view, at);
  const outcome = now && outcomeFrom(was, now);
  // Only what is being coached has an outcome: a stop is never talked away by a camera.
  if (!fault || !now || !outcome || advice.kind !== 'correct' || advice.primary.fault.id !== fault.id) return null;
  const { correction, addresses } = advice.primary;
  return (
    <div className="mb-2">
      <p>
        {say.floor.beforeNow(
          fault.name,
          amountWords(typicalOf(was), was.unit),
          amountWords(Math.max(0, typicalOf(now)), now.unit),
        )}
      </p>
      <button
        type="button"
        className="btn btn-primary target w-full"
        onClick={() => tap(give(view, fault, correction, addresses, outcome))}
      >
        {say.floor.noteIt(OUTCOME_NAMES[outcome])}
      </button>
    </div>
  );
}
