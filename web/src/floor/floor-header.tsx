/** The head of the floor: how long it has run and what is left of it, whom to watch first, whether all is saved, and the sheets that are for everybody. */
import type { Attention } from '@waxwing/core/coaching';
import { draft, type LaneView, leftOf, minutesOver, movementOf, ranFor } from '@waxwing/core/floor';
import { viewWords } from '@waxwing/core/movement';
import { minuteWords } from '@waxwing/core/planning';
import { ListOrdered, Menu, Monitor, Pause, Play, ScrollText, Volume2, VolumeX, WifiOff } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { Link } from 'react-router';
import { v7 as uuidv7 } from 'uuid';

import { Emergency } from '../shell/emergency';
import { useKeys } from '../shell/use-keys';
import { useWide } from '../shell/use-wide';
import { firstName } from '../words/names';
import { say } from '../words/say';
import { useTimed } from './clock';
import { KeySheet } from './key-sheet';
import { LogSheet } from './log-sheet';
import { MenuSheet } from './menu-sheet';
import { RunSheet } from './run-sheet';
import { SaveState } from './save-state';
import { useSound } from './sound';
import { SoundSheet } from './sound-sheet';
import type { LiveSession } from './use-session';
import { useWakeLock } from './use-wake-lock';

type Open = 'menu' | 'run' | 'log' | 'sound' | 'keys' | null;

export function FloorHeader({
  live,
  views,
  view,
  watch,
  packed,
}: {
  live: LiveSession;
  views: readonly LaneView[];
  view: LaneView;
  watch: Attention | undefined;
  /** It works on without a server. */
  packed: boolean;
}) {
  const [open, setOpen] = useState<Open>(null);
  const { muted } = useSound();
  const awake = useWakeLock();
  const wide = useWide();
  const { clients } = live.view;
  const close = () => setOpen(null);
  useKeys(['?'], () => setOpen('keys'));
  useKeys(['o'], () => setOpen('run'));
  useKeys(['l'], () => setOpen('log'));
  return (
    <header className="border-base-300 flex flex-wrap items-center gap-x-4 gap-y-1 border-b px-4 py-1 max-sm:gap-x-2 max-sm:px-3 sm:flex-nowrap sm:whitespace-nowrap">
      <h1 className={clients.length > 1 ? 'sr-only' : 'min-w-0 text-2xl max-sm:-order-2 sm:truncate'}>
        <span className="max-sm:hidden">{clients.map(({ name }) => name).join(', ')}</span>
        <span className="sm:hidden">{clients.map(firstName).join(', ')}</span>
      </h1>
      <Elapsed live={live} />
      {!live.state.finishedAt && <Left live={live} views={views} onOpen={() => setOpen('run')} />}
      {!live.state.finishedAt && clients.length > 1 && watch && <Watch views={views} watch={watch} />}
      {view.place.ref.kind !== 'studio' && <p className="quiet max-sm:hidden">{say.floor.at(view.place.name)}</p>}
      {packed && (
        <span title={say.floor.worksWithoutNetwork} className="quiet ml-auto max-sm:sr-only">
          <WifiOff aria-hidden size={20} />
          <span className="sr-only">{say.floor.worksWithoutNetwork}</span>
        </span>
      )}
      <SaveState sessionId={live.view.id} awake={awake} />
      <span className="flex shrink-0 gap-1 max-sm:-order-1 max-sm:ml-auto">
        <HeadButton name="Order of the session" onClick={() => setOpen('run')}>
          <ListOrdered aria-hidden />
        </HeadButton>
        <HeadButton name="Log" narrow onClick={() => setOpen('log')}>
          <ScrollText aria-hidden />
        </HeadButton>
        <HeadButton name={muted ? 'Sound, off' : 'Sound'} narrow onClick={() => setOpen('sound')}>
          {muted ? <VolumeX aria-hidden /> : <Volume2 aria-hidden />}
        </HeadButton>
        <Link
          className="btn target w-14 px-0 max-sm:hidden"
          aria-label={say.floor.forTheWall}
          title={say.floor.forTheWall}
          to={`/floor/${live.view.id}/wall`}
        >
          <Monitor aria-hidden />
        </Link>
        <HeadButton name="Keys" narrow onClick={() => setOpen('keys')}>
          ?
        </HeadButton>
        {!wide && (
          <>
            <HeadButton name="Other screens" onClick={() => setOpen('menu')}>
              <Menu aria-hidden />
            </HeadButton>
            <Emergency small />
          </>
        )}
      </span>
      {open === 'menu' && <MenuSheet onLog={() => setOpen('log')} onSound={() => setOpen('sound')} onClose={close} />}
      {open === 'run' && <RunSheet live={live} views={views} view={view} onClose={close} />}
      {open === 'log' && (
        <LogSheet
          live={live}
          client={view.client}
          kitOf={(id) => movementOf(view, id)?.kit}
          kit={view.place.kit}
          onClose={close}
        />
      )}
      {open === 'sound' && <SoundSheet awake={awake} onClose={close} />}
      {open === 'keys' && <KeySheet onClose={close} />}
    </header>
  );
}

function HeadButton({
  name,
  narrow,
  onClick,
  children,
}: {
  name: string;
  /** Where there is little room it is in the menu. */
  narrow?: boolean;
  onClick: () => void;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      className={`btn target w-14 px-0 max-sm:w-12 ${narrow ? 'max-lg:hidden' : ''}`}
      aria-label={name}
      title={name}
      onClick={onClick}
    >
      {children}
    </button>
  );
}

/** Minutes since the start, computed from the times themselves; with a plan, out of how many. */
function Elapsed({ live }: { live: LiveSession }) {
  const seconds = useTimed((now) => Math.floor(ranFor(live, now) / 1000));
  const pad = (n: number) => String(n).padStart(2, '0');
  const hours = Math.floor(seconds / 3600);
  const { programme } = live.view;
  const stands = live.state.breaks.at(-1)?.to === null;
  const clientId = live.view.clients[0]?.id ?? '';
  const turn = () => void live.tap(clientId, [draft(uuidv7(), stands ? 'session-resumed' : 'session-paused', {})]);
  return (
    <p className="flex items-center gap-2 text-2xl max-sm:-order-2">
      <span role="timer" aria-label={say.floor.timeSinceTheStart}>
        {hours > 0 && `${hours}:`}
        {pad(Math.floor(seconds / 60) % 60)}:{pad(seconds % 60)}
      </span>
      {programme && <span className="quiet text-xl max-sm:hidden">{say.floor.ofMin(programme.plan.minutes)}</span>}
      {!live.state.finishedAt && (
        <button
          type="button"
          className={`btn target ${stands ? 'bg-accent text-accent-content px-3' : 'w-14 px-0 max-sm:w-12'}`}
          aria-label={stands ? say.floor.goOnWithTheSession : say.floor.break}
          onClick={turn}
        >
          {stands ? (
            <>
              <Play aria-hidden size={20} />
              {say.floor.breakGoOn}
            </>
          ) : (
            <Pause aria-hidden size={20} />
          )}
        </button>
      )}
    </p>
  );
}

const LAST_MINUTES = 5 * 60;

function Left({ live, views, onOpen }: { live: LiveSession; views: readonly LaneView[]; onOpen: () => void }) {
  const toDo = leftOf(views);
  const over = useTimed((now) => minutesOver(live, toDo, now));
  if (toDo === 0) return null;
  // Seconds only matter when few are left.
  if (over === 0)
    return (
      <p className="quiet">
        {say.floor.timeLeft(toDo >= LAST_MINUTES ? say.common.inMinutes(Math.round(toDo / 60)) : minuteWords(toDo))}
      </p>
    );
  return (
    <button type="button" className="btn target border-base-content border-2 px-3" onClick={onOpen}>
      {say.floor.minutesOver(over)}
    </button>
  );
}

/** The client with the most to be seen, and from where. */
function Watch({ views, watch }: { views: readonly LaneView[]; watch: Attention }) {
  const view = views.find(({ client }) => client.id === watch.clientId);
  return (
    <p className="min-w-0 truncate max-sm:hidden">
      <span className="quiet">{say.floor.watch}</span> <strong>{view && firstName(view.client)}</strong>{' '}
      {viewWords(watch.view, view?.movement?.position).toLowerCase()}
      <span className="quiet max-xl:hidden">: {watch.fault.name.toLowerCase()}</span>
    </p>
  );
}
