/** The floor, live: for one client, what to say now, the set in hand, the faults to watch for, and the way easier or harder. */
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState, useSyncExternalStore } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { Failed, Loading } from '../shell/states';
import { useKeys } from '../shell/use-keys';
import { ActionBar } from './action-bar';
import { ChooseMovement } from './choose-movement';
import { FaultPanel } from './fault-panel';
import { KeySheet } from './key-sheet';
import { NowPanel } from './now-panel';
import { outboxState, sendRefusedAgain, subscribeOutbox } from './outbox';
import { PainTakeover } from './pain';
import { SetPanel } from './set-panel';
import { useLane } from './use-lane';
import { useSession, type LiveSession } from './use-session';

export function FloorScreen() {
  const { sessionId = '' } = useParams();
  const { live, error, refetch } = useSession(sessionId);
  if (live) return <Floor key={sessionId} live={live} />;
  return error ? <Failed error={error} retry={() => void refetch()} /> : <Loading what="the session" />;
}

function Floor({ live }: { live: LiveSession }) {
  const { clients } = live.view;
  const [chosen, choose] = useState(clients[0]?.id ?? '');
  const [keys, showKeys] = useState(false);
  useKeys(['?'], () => showKeys(true));
  return (
    <div className="flex h-full flex-col text-xl">
      <header className="border-base-300 flex flex-wrap items-center gap-x-6 gap-y-1 border-b px-4 py-2">
        {clients.length === 1 ? (
          <h1 className="text-2xl">{clients[0]?.name}</h1>
        ) : (
          <div role="tablist" aria-label="Clients" className="flex gap-2">
            {clients.map((client) => (
              <button
                key={client.id}
                type="button"
                role="tab"
                aria-selected={client.id === chosen}
                className={`btn target ${client.id === chosen ? 'btn-primary' : ''}`}
                onClick={() => choose(client.id)}
              >
                {client.name}
              </button>
            ))}
          </div>
        )}
        <Elapsed from={live.view.startedAt} to={live.state.finishedAt} />
        <SaveState failed={live.failed} />
        <button type="button" className="btn target max-sm:hidden" aria-label="Keys" onClick={() => showKeys(true)}>
          ?
        </button>
      </header>
      {keys && <KeySheet onClose={() => showKeys(false)} />}
      {live.state.finishedAt ? <Finished live={live} /> : <LaneScreen key={chosen} live={live} clientId={chosen} />}
    </div>
  );
}

function LaneScreen({ live, clientId }: { live: LiveSession; clientId: string }) {
  const { view, error } = useLane(live, clientId);
  const navigate = useNavigate();
  const finish = () =>
    void live.tap(clientId, (record) => record('session-finished', {})).then(() => navigate(`/review/${live.view.id}`));
  if (!view) return error ? <Failed error={error} /> : <Loading what="the movement" />;
  const hurts = view.entry && view.hurt.includes(view.entry.movementId);
  return (
    <>
      <div className="min-h-0 flex-1 overflow-y-auto">
        {!view.entry ? (
          <ChooseMovement view={view} />
        ) : hurts ? (
          <PainTakeover view={view} />
        ) : (
          <div className="grid min-h-full lg:grid-cols-[minmax(0,7fr)_minmax(0,5fr)]">
            <div className="flex min-w-0 flex-col">
              <NowPanel key={`now-${view.entry.id}`} view={view} />
              <SetPanel key={`set-${view.entry.id}`} view={view} />
            </div>
            <FaultPanel view={view} />
          </div>
        )}
      </div>
      <ActionBar live={live} view={view} onFinish={finish} />
    </>
  );
}

function Finished({ live }: { live: LiveSession }) {
  return (
    <div className="space-y-4 p-6">
      <h2>This session is finished</h2>
      <div className="flex flex-wrap gap-3">
        <Link className="btn btn-primary target" to={`/review/${live.view.id}`}>
          To the review
        </Link>
        <button type="button" className="btn target" onClick={() => void live.undo()}>
          Open it again
        </button>
      </div>
    </div>
  );
}

/** Minutes since the start, computed from the times themselves. */
function Elapsed({ from, to }: { from: string; to: string | null }) {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, []);
  const seconds = Math.max(0, Math.floor(((to ? Date.parse(to) : now) - Date.parse(from)) / 1000));
  const pad = (n: number) => String(n).padStart(2, '0');
  const hours = Math.floor(seconds / 3600);
  return (
    <p role="timer" aria-label="Time since the start" className="text-2xl">
      {hours > 0 && `${hours}:`}
      {pad(Math.floor(seconds / 60) % 60)}:{pad(seconds % 60)}
    </p>
  );
}

/** Quiet while all is well; says what waits, and what the server would not take. */
function SaveState({ failed }: { failed: string | null }) {
  const { waiting, refused, why, reachable } = useSyncExternalStore(subscribeOutbox, outboxState);
  const queries = useQueryClient();
  const taps = (n: number) => (n === 1 ? '1 tap' : `${n} taps`);
  return (
    <p role="status" className={`ml-auto text-lg ${failed || refused ? 'text-error font-bold' : 'quiet'}`}>
      {failed ??
        (refused > 0 ? (
          <>
            {taps(refused)} kept here, not taken by the server: {why}{' '}
            <button
              type="button"
              className="btn btn-sm"
              onClick={() => void sendRefusedAgain().then(() => queries.invalidateQueries({ queryKey: ['session'] }))}
            >
              Send again
            </button>
          </>
        ) : waiting > 0 && !reachable ? (
          `Server away · ${taps(waiting)} kept on this device`
        ) : waiting > 0 ? (
          'Saving …'
        ) : (
          'All saved'
        ))}
    </p>
  );
}
