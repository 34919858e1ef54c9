/** The clock of a circuit by time: everybody works and rests by it, and it tells who goes where when the turn changes. */
import {
  changesSide,
  clockWords,
  draft,
  endRounds,
  goTo,
  type LaneView,
  logRound,
  logTurns,
  movementOf,
  roundsDone,
  sideNext,
  sideNow,
  startTimer,
  timerOf,
} from '@waxwing/core/floor';
import { label } from '@waxwing/core/movement';
import {
  clockRest,
  isEvery,
  minuteWords,
  type RoundSide,
  roundsIn,
  turnSeconds,
  workEachWords,
} from '@waxwing/core/planning';
import { isPending, momentsLeft, type RunStep, type Timer, timerAt } from '@waxwing/core/session';
import { ArrowLeftRight, Circle, Square } from 'lucide-react';
import { useEffect } from 'react';
import { v7 as uuidv7 } from 'uuid';

import { useKeys } from '../shell/use-keys';
import { asStrong, Marked } from '../words/marked';
import { firstName } from '../words/names';
import { say } from '../words/say';
import { useTimed } from './clock';
import { speak } from './sound';
import { useClockSounds } from './use-floor-sounds';
import type { LiveSession } from './use-session';

interface Props {
  live: LiveSession;
  views: readonly LaneView[];
  view: LaneView;
}

export function BlockClock({ live, views, view }: Props) {
  const clock = live.state.clocks.at(-1);
  const running = clock?.stoppedAt === null ? clock : undefined;
  const inBlock = views.filter((one) => one.step?.block?.id === running?.blockId);
  useClockSounds(running, inBlock.some(changesSide));
  const planned = live.view.programme?.plan.blocks.find(({ id }) => id === running?.blockId);
  if (running && planned && roundsIn(planned) !== null)
    return <RoundsClock clock={running} live={live} views={views} />;
  if (running) return <Running clock={running} live={live} views={views} inBlock={inBlock} />;
  const block = view.step?.block;
  if (!block) return null;
  if (turnSeconds(block) === null && roundsIn(block) === null) return <Together live={live} views={views} />;
  return <Start block={block} live={live} views={views} />;
}

/** Everybody has the same hold before them, such as a finisher: one press starts it for all. */
function Together({ live, views }: Pick<Props, 'live' | 'views'>) {
  const held = views.filter((one) => one.movement?.dose.mode === 'time' && !one.closed && !one.alarm);
  const [first] = held;
  const same = held.every((one) => one.step?.itemId === first?.step?.itemId && timerOf(one) === undefined);
  const ready = held.length > 1 && held.length === views.length && first?.step != null && same;
  const start = () => {
    for (const one of held) void live.tap(one.client.id, startTimer(one, sideNext(one), uuidv7));
  };
  useKeys(ready ? ['i'] : [], start);
  if (!ready) return null;
  return (
    <section aria-label={say.common.clock} className="border-base-300 flex items-center gap-4 border-b px-4 py-2">
      <p className="flex-1 font-bold">{first.movement?.name}</p>
      <button type="button" className="btn btn-primary target" onClick={start}>
        {say.floor.startForEverybody}
      </button>
    </section>
  );
}

type GoneRound = NonNullable<RunStep['block']>;

const stepsIn = (view: LaneView, blockId: string | null): RunStep[] =>
  view.steps.filter((step) => step.block?.id === blockId);

function Start({ block, live, views }: { block: GoneRound; live: LiveSession; views: readonly LaneView[] }) {
  const { id: blockId } = block;
  const together = roundsIn(block);
  const all = views.flatMap((view) => stepsIn(view, blockId));
  const count = together === null ? Math.max(1, ...all.map(({ turn }) => (turn ?? 0) + 1)) : 1;
  const rest =
    together !== null || isEvery(block) ? 0 : clockRest(momentsLeft(views.map((view) => view.steps)), blockId);
  const works = Array.from({ length: count }, (_, turn) => {
    const round = all.find((step) => step.turn === turn)?.set;
    return together ?? turnSeconds(block, round) ?? 1;
  });
  const work = works[0] ?? 1;
  const differ = works.some((one) => one !== work);
  const start = () => {
    const times = { work, rest, count, ...(differ && { works }) };
    void live.tap(views[0]?.client.id ?? '', [
      draft(uuidv7(), 'timer-started', { entryId: null, blockId, side: 'both', ...times }),
    ]);
    if (together === null) return;
    // Where no turn says what is now, everybody goes to the block by hand.
    for (const view of views) {
      const first = stepsIn(view, blockId).find(isPending);
      if (first) void live.tap(view.client.id, goTo(first, uuidv7));
    }
  };
  useKeys(['i'], start);
  return (
    <section
      aria-label={say.common.clock}
      className="border-base-300 flex flex-wrap items-center gap-4 border-b px-4 py-2"
    >
      <p className="flex-1">
        {together !== null ? (
          <Marked words={say.floor.asManyRoundsAsGo(minuteWords(together))} as={asStrong} />
        ) : isEvery(block) ? (
          <Marked words={say.floor.turnsEvery(count, work)} as={asStrong} />
        ) : (
          <Marked
            words={say.floor.circuitByTime(count, differ ? workEachWords(block) : say.common.inSeconds(work), rest)}
            as={asStrong}
          />
        )}
      </p>
      <button type="button" className="btn btn-primary target" onClick={start}>
        {say.floor.startTheClock}
      </button>
    </section>
  );
}

function Running({
  clock,
  live,
  views,
  inBlock,
}: {
  clock: Timer;
  live: LiveSession;
  views: readonly LaneView[];
  /** Who works by the clock now. */
  inBlock: readonly LaneView[];
}) {
  const [phase, pieceText, words, running, sides] = useTimed((now) => {
    const state = timerAt(clock, now);
    const inWork = sideWords(inBlock, views.length, clock, now);
    return [state.phase, state.piece, clockWords(Math.max(0, state.left)), state.running ? 'runs' : '', inWork].join(
      '|',
    );
  }).split('|');
  const piece = Number(pieceText);
  const { blockId } = clock;
  const by = (type: 'timer-paused' | 'timer-resumed' | 'timer-stopped') =>
    void live.tap(views[0]?.client.id ?? '', [draft(uuidv7(), type, { timerId: clock.id })]);
  // Turns that are over and of which nothing is logged yet.
  const over = phase === 'work' ? piece - 1 : piece;
  const openOf = (view: LaneView) =>
    stepsIn(view, blockId).filter((step) => isPending(step) && step.turn !== null && step.turn <= over);
  const open = views.flatMap(openOf);
  const logAll = () => {
    for (const view of views) void live.tap(view.client.id, logTurns(view, openOf(view), clock, uuidv7));
    if (phase === 'over') by('timer-stopped');
  };
  const changes = phase === 'rest' ? changesAt(views, blockId, piece + 1) : [];
  const told = changes.map(({ name, to }) => `${name}: ${to}`).join('. ');
  useEffect(() => {
    if (told) speak(told);
  }, [told]);
  useKeys(['i'], () => (open.length > 0 ? logAll() : by(running ? 'timer-paused' : 'timer-resumed')));
  const Shape = phase === 'work' ? Square : Circle;
  return (
    <section
      aria-label={say.common.clock}
      className="border-base-300 flex flex-wrap items-center gap-x-4 gap-y-1 border-b px-4 py-2"
    >
      <p
        role="timer"
        aria-label={say.floor.clockOfTheCircuit}
        className={`flex items-center gap-2 px-3 py-1 text-4xl leading-none font-bold ${phase === 'work' ? 'bg-accent text-accent-content' : ''}`}
      >
        <Shape aria-hidden size={26} fill={phase === 'work' ? 'currentColor' : 'none'} />
        {phase === 'over' ? say.floor.over : words}
      </p>
      <p>
        {phase === 'work' ? say.floor.work : phase === 'rest' ? say.floor.change : say.floor.allTurnsDone}
        {phase !== 'over' && say.floor.turnOf(piece + 1, clock.count)}
        {!running && say.floor.held}
      </p>
      <p role="status" className="min-w-72 flex-1 font-bold">
        {changes.map(({ name, to }) => (
          <span key={name} className="mr-4 inline-block">
            {name} → {to}
          </span>
        ))}
        {phase === 'work' && sides && (
          <span className="inline-flex items-center gap-2">
            <ArrowLeftRight aria-hidden />
            {sides}
          </span>
        )}
      </p>
      {open.length > 0 && (
        <button type="button" className="btn btn-primary target" onClick={logAll}>
          {say.floor.logSets(open.length)}
        </button>
      )}
      <button type="button" className="btn target" onClick={() => by(running ? 'timer-paused' : 'timer-resumed')}>
        {running ? say.floor.hold : say.common.goOn}
      </button>
      <button type="button" className="btn target" onClick={() => by('timer-stopped')}>
        {say.floor.stop}
      </button>
    </section>
  );
}

/** As many rounds as go into a time: the seconds left, and a counter for everybody. */
function RoundsClock({ clock, live, views }: { clock: Timer; live: LiveSession; views: readonly LaneView[] }) {
  const [phase, words, running] = useTimed((now) => {
    const state = timerAt(clock, now);
    return `${state.phase}|${clockWords(Math.max(0, state.left))}|${state.running ? 'runs' : ''}`;
  }).split('|');
  const { blockId } = clock;
  if (blockId === null) return null;
  const first = views[0]?.client.id ?? '';
  const by = (type: 'timer-paused' | 'timer-resumed' | 'timer-stopped') =>
    void live.tap(first, [draft(uuidv7(), type, { timerId: clock.id })]);
  const end = () => {
    for (const view of views) void live.tap(view.client.id, endRounds(view, blockId, uuidv7));
    by('timer-stopped');
  };
  return (
    <section
      aria-label={say.common.clock}
      className="border-base-300 flex flex-wrap items-center gap-3 border-b px-4 py-2"
    >
      <p
        role="timer"
        aria-label={say.floor.clockOfTheRounds}
        className={`px-3 py-1 text-4xl leading-none font-bold ${phase === 'work' ? 'bg-accent text-accent-content' : ''}`}
      >
        {phase === 'over' ? say.floor.time : words}
      </p>
      {!running && phase !== 'over' && <p>{say.floor.heldWord}</p>}
      <div className="order-last grid basis-full grid-cols-2 gap-2 lg:grid-cols-4">
        {views.map((view) => (
          <button
            key={view.client.id}
            type="button"
            className="btn target"
            onClick={() => void live.tap(view.client.id, logRound(view, blockId, uuidv7))}
          >
            <span className="truncate font-normal">{say.floor.roundDone(firstName(view.client))}</span>
            <span className="text-2xl">{roundsDone(view, blockId)}</span>
          </button>
        ))}
      </div>
      <span className="flex-1" />
      {phase !== 'over' && (
        <button type="button" className="btn target" onClick={() => by(running ? 'timer-paused' : 'timer-resumed')}>
          {running ? say.floor.hold : say.common.goOn}
        </button>
      )}
      <button type="button" className={`btn target ${phase === 'over' ? 'btn-primary' : ''}`} onClick={end}>
        {say.floor.endTheRounds}
      </button>
    </section>
  );
}

/** `Osei, Ilka: left side · Hugo: sides in turn`. @param all how many are in the session */
function sideWords(views: readonly LaneView[], all: number, clock: Timer, now: number): string {
  const on = new Map<RoundSide | null, LaneView[]>();
  for (const view of views) {
    const side = sideNow(view, clock, now);
    on.set(side, [...(on.get(side) ?? []), view]);
  }
  return [...on]
    .flatMap(([side, those]) => {
      if (side === null) return [];
      const who =
        those.length === all && all > 1 ? say.floor.everybody : those.map(({ client }) => firstName(client)).join(', ');
      return side === 'alternating' ? `${who}: ${say.floor.inTurn}` : say.floor.whoseSide(who, side);
    })
    .join(' · ');
}

/** Where everybody goes at a turn. */
function changesAt(views: readonly LaneView[], blockId: string | null, turn: number): { name: string; to: string }[] {
  return views.map((view) => {
    const step = stepsIn(view, blockId).find((one) => one.turn === turn);
    return {
      name: firstName(view.client),
      to: step ? (movementOf(view, step.lane.movementId)?.name ?? label(step.lane.movementId)) : 'waits',
    };
  });
}
