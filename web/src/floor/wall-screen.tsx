/**
 * A session for a large screen on the wall: the clock, and for everybody what they do now at their own level, on which side, and what is next,
 * with one movement that anybody can do. Nothing is tapped here, and nothing of a client is shown but the first name.
 */
import { clockWords, laneTime, type LaneView, movementOf, roundsDone, sideNow } from '@waxwing/core/floor';
import { fallbackForAll } from '@waxwing/core/ladder';
import { label, type MovementSummary } from '@waxwing/core/movement';
import { doseWords, roundsIn } from '@waxwing/core/planning';
import { avoidedBy } from '@waxwing/core/progress';
import { type Timer, timerAt } from '@waxwing/core/session';
import { Link, useParams } from 'react-router';

import { Failed, Loading } from '../shell/states';
import { asStrong, Marked } from '../words/marked';
import { firstName } from '../words/names';
import { say } from '../words/say';
import { useTimed } from './clock';
import { TeachFigure } from './teach-figure';
import { useLanes } from './use-lanes';
import { type LiveSession, useSession } from './use-session';
import { useWakeLock } from './use-wake-lock';

export function WallScreen() {
  const { sessionId = '' } = useParams();
  const { live, error, refetch } = useSession(sessionId);
  if (live) return <Wall live={live} />;
  return error ? <Failed error={error} retry={() => void refetch()} /> : <Loading what={say.common.theSession} />;
}

function Wall({ live }: { live: LiveSession }) {
  useWakeLock();
  const { views, error } = useLanes(live);
  if (!views) return error ? <Failed error={error} /> : <Loading what={say.common.theMovements} />;
  const clock = live.state.clocks.at(-1);
  const running = clock?.stoppedAt === null ? clock : undefined;
  return (
    <div className="flex h-full flex-col gap-4 p-6">
      <h1 className="sr-only">{say.floor.forTheWall}</h1>
      <div className="flex items-center gap-6">
        {running ? (
          <WallClock clock={running} views={views} />
        ) : (
          <p className="text-4xl font-bold">{live.state.finishedAt ? say.floor.finished : say.floor.noClockRuns}</p>
        )}
        <Link className="btn target ml-auto" to={`/floor/${live.view.id}`}>
          {say.common.backToTheFloor}
        </Link>
      </div>
      <ul className={`grid min-h-0 flex-1 content-start gap-4 ${views.length > 1 ? 'sm:grid-cols-2' : ''}`}>
        {views.map((view) => (
          <Person key={view.client.id} view={view} clock={running} />
        ))}
      </ul>
      <Fallback views={views} />
    </div>
  );
}

const PHASE_WORDS = say.floor.phaseWords;

function WallClock({ clock, views }: { clock: Timer; views: readonly LaneView[] }) {
  const [phase = 'work', words, piece, running] = useTimed((now) => {
    const state = timerAt(clock, now);
    return `${state.phase}|${clockWords(Math.max(0, state.left))}|${state.piece + 1}|${state.running ? 'runs' : ''}`;
  }).split('|');
  const block = views[0]?.programme?.plan.blocks.find(({ id }) => id === clock.blockId);
  const free = block !== undefined && roundsIn(block) !== null;
  return (
    <p
      role="timer"
      aria-label={say.common.clock}
      className={`flex flex-wrap items-baseline gap-x-6 px-4 py-2 font-bold ${phase === 'work' ? 'bg-accent text-accent-content' : ''}`}
    >
      <span className="text-[clamp(4rem,16vw,12rem)] leading-none tabular-nums">{words}</span>
      <span className="text-4xl">
        {PHASE_WORDS[phase as keyof typeof PHASE_WORDS]}
        {!free && phase !== 'over' && say.floor.pieceOf(piece, clock.count)}
        {running === '' && phase !== 'over' && say.floor.held}
      </span>
    </p>
  );
}

/** What somebody does now, and what comes after it. */
function Person({ view, clock }: { view: LaneView; clock: Timer | undefined }) {
  const { movement, step, waits, client } = view;
  const words = useTimed((now) => (view.clock ? '' : laneTime(view, now).words));
  const side = useTimed((now) => sideWords(view, clock, now));
  const next = view.steps.find(({ state }) => state === 'next');
  const nextName = next && movementOf(view, next.lane.movementId)?.name;
  // While the clock says to change, where to go is what counts.
  const changes = useTimed((now) => view.clock !== null && timerAt(view.clock, now).phase === 'rest');
  const shown = changes && next ? view.pageOf(next.lane.movementId) : view.page;
  const block = view.programme?.plan.blocks.find(({ id }) => id === clock?.blockId);
  const rounds = block && roundsIn(block) !== null ? roundsDone(view, block.id) : null;
  return (
    <li className="border-base-content flex min-w-0 gap-4 border-t-4 pt-3">
      {shown && (changes || !waits) && <TeachFigure key={shown.movement.id} movement={shown.movement} />}
      <div className="min-w-0">
        <p className="text-3xl font-bold">
          {firstName(client)} {words && <span className="tabular-nums">{words}</span>}
          {rounds !== null && <span className="ml-3">{say.floor.rounds(rounds)}</span>}
        </p>
        <p className="text-[clamp(2rem,4.5vw,4rem)] leading-tight font-bold text-balance">
          {changes && nextName ? `→ ${nextName}` : waits ? say.floor.waits : (movement?.name ?? say.floor.allDone)}
        </p>
        {!changes && !waits && movement && step && (
          <p className="text-3xl">
            {doseOf(view, movement)}
            {side && <strong> · {side}</strong>}
          </p>
        )}
        {!changes && nextName && <p className="quiet text-2xl">{say.floor.nextName(nextName)}</p>}
      </div>
    </li>
  );
}

/** What is asked for now: by a clock of work and rest only the weight. */
function doseOf({ step }: LaneView, movement: MovementSummary): string {
  if (!step) return '';
  if (step.block?.workSeconds != null) return step.lane.load?.label ?? '';
  return doseWords(step.lane, movement.dose.mode);
}

/** The side in work: by the clock its first half is one side, and the second the other. */
function sideWords(view: LaneView, clock: Timer | undefined, now: number): string {
  const side = sideNow(view, view.clock ? clock : undefined, now);
  if (side === null) return '';
  return side === 'alternating' ? say.floor.inTurn : say.floor.sideOf(label(side));
}

/** One movement that anybody here can do instead. */
function Fallback({ views }: { views: readonly LaneView[] }) {
  const [first] = views;
  if (!first) return null;
  const people = views.map(({ client, standing }) => ({
    clientId: client.id,
    limits: standing.limits,
    avoid: avoidedBy(standing),
  }));
  const now = views.flatMap(({ movement }) => movement?.id ?? []);
  const fallback = fallbackForAll(first.catalog, now, people, first.kit);
  if (!fallback) return null;
  return (
    <p className="border-base-300 border-t pt-3 text-3xl">
      <Marked words={say.floor.anybodyAnyTime(fallback.name)} as={asStrong} />
    </p>
  );
}
