/** The clock of a circuit by time: everybody works and rests by it, and it tells who goes where when the turn changes. */
import { clockWords, draft, type LaneView, logTurns, movementOf } from '@waxwing/core/floor';
import { label } from '@waxwing/core/movement';
import { clockRest } from '@waxwing/core/planning';
import { firstSide, isPending, momentsLeft, type RunStep, type Timer, timerAt } from '@waxwing/core/session';
import { ArrowLeftRight, Circle, Square } from 'lucide-react';
import { useEffect } from 'react';
import { useKeys } from '../shell/use-keys';
import { v7 as uuidv7 } from 'uuid';
import { useTimed } from './clock';
import { speak } from './sound';
import { useClockSounds } from './use-floor-sounds';
import type { LiveSession } from './use-session';
import { firstName } from '../words/names';

interface Props {
  live: LiveSession;
  views: readonly LaneView[];
  view: LaneView;
}

export function BlockClock({ live, views, view }: Props) {
  const clock = live.state.clocks.at(-1);
  const running = clock?.stoppedAt === null ? clock : undefined;
  const sided = views.filter((one) => one.step?.block?.id === running?.blockId && one.movement?.sides === 'each');
  useClockSounds(running, sided.length > 0);
  if (running) return <Running clock={running} live={live} views={views} sided={sided} />;
  const block = view.step?.block;
  if (block?.kind !== 'circuit' || block.workSeconds === null) return null;
  return <Start blockId={block.id} work={block.workSeconds} live={live} views={views} />;
}

const stepsIn = (view: LaneView, blockId: string | null): RunStep[] =>
  view.steps.filter((step) => step.block?.id === blockId);

function Start({
  blockId,
  work,
  live,
  views,
}: {
  blockId: string;
  work: number;
  live: LiveSession;
  views: readonly LaneView[];
}) {
  const all = views.flatMap((view) => stepsIn(view, blockId));
  const count = Math.max(1, ...all.map(({ turn }) => (turn ?? 0) + 1));
  const rest = clockRest(momentsLeft(views.map((view) => view.steps)), blockId);
  const start = () =>
    void live.tap(views[0]?.client.id ?? '', [
      draft(uuidv7(), 'timer-started', { entryId: null, blockId, side: 'both', work, rest, count }),
    ]);
  useKeys(['i'], start);
  return (
    <section aria-label="Clock" className="border-base-300 flex flex-wrap items-center gap-4 border-b px-4 py-2">
      <p className="flex-1">
        Circuit by time: <strong>{count} turns</strong> of {work} s, {rest} s between.
      </p>
      <button type="button" className="btn btn-primary target" onClick={start}>
        Start the clock
      </button>
    </section>
  );
}

function Running({
  clock,
  live,
  views,
  sided,
}: {
  clock: Timer;
  live: LiveSession;
  views: readonly LaneView[];
  /** Who does one side, then the other in this turn. */
  sided: readonly LaneView[];
}) {
  const [phase, pieceText, words, running, half] = useTimed((now) => {
    const state = timerAt(clock, now);
    const late = state.phase === 'work' && state.left <= clock.work * 500;
    return `${state.phase}|${state.piece}|${clockWords(Math.max(0, state.left))}|${state.running ? 'runs' : ''}|${late ? 'late' : ''}`;
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
    for (const view of views) void live.tap(view.client.id, logTurns(view, openOf(view), clock.work, uuidv7));
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
      aria-label="Clock"
      className="border-base-300 flex flex-wrap items-center gap-x-4 gap-y-1 border-b px-4 py-2"
    >
      <p
        role="timer"
        aria-label="Clock of the circuit"
        className={`flex items-center gap-2 px-3 py-1 text-4xl leading-none font-bold ${phase === 'work' ? 'bg-accent text-accent-content' : ''}`}
      >
        <Shape aria-hidden size={26} fill={phase === 'work' ? 'currentColor' : 'none'} />
        {phase === 'over' ? 'Over' : words}
      </p>
      <p>
        {phase === 'work' ? 'Work' : phase === 'rest' ? 'Change' : 'All turns done'}
        {phase !== 'over' && ` · turn ${piece + 1} of ${clock.count}`}
        {!running && ' · held'}
      </p>
      <p role="status" className="min-w-0 flex-1 font-bold">
        {changes.map(({ name, to }) => (
          <span key={name} className="mr-4 inline-block">
            {name} → {to}
          </span>
        ))}
        {phase === 'work' && sided.length > 0 && (
          <span className="inline-flex items-center gap-2">
            <ArrowLeftRight aria-hidden />
            {sided.map(({ client }) => firstName(client)).join(', ')}: {sideAt(sided, half !== '')} side
          </span>
        )}
      </p>
      {open.length > 0 && (
        <button type="button" className="btn btn-primary target" onClick={logAll}>
          Log {open.length === 1 ? '1 set' : `${open.length} sets`}
        </button>
      )}
      <button type="button" className="btn target" onClick={() => by(running ? 'timer-paused' : 'timer-resumed')}>
        {running ? 'Hold' : 'Go on'}
      </button>
      <button type="button" className="btn target" onClick={() => by('timer-stopped')}>
        Stop
      </button>
    </section>
  );
}

/** The side of a turn: left first in the first round, right first in the second. */
const sideAt = (sided: readonly LaneView[], late: boolean): 'left' | 'right' => {
  const first = firstSide(sided[0]?.step?.set ?? 1);
  return late === (first === 'left') ? 'right' : 'left';
};

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
