/** The floor, live: one to four clients, each with what to say now, the set in hand, the faults to watch for, and the way easier or harder. */
import { useQueryClient } from '@tanstack/react-query';
import { draft, dropNow, type LaneView } from '@waxwing/core/floor';
import { becauseWords } from '@waxwing/core/formats';
import { useEffect, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { v7 as uuidv7 } from 'uuid';

import { LooksFor } from '../figures/skins';
import { Failed, Loading } from '../shell/states';
import { say } from '../words/say';
import { ActionBar } from './action-bar';
import { BlockClock } from './block-clock';
import { ChooseMovement } from './choose-movement';
import { ClosedCard } from './closed-card';
import { FaultPanel, MarkJustDone } from './fault-panel';
import { FinishSheet, openLines } from './finish-sheet';
import { FloorHeader } from './floor-header';
import { LaneStrip, useAttention } from './lane-strip';
import { NowPanel } from './now-panel';
import { unpack } from './pack';
import { PainTakeover } from './pain';
import { RestEffort } from './rest-effort';
import { SetPanel } from './set-panel';
import { useLaneSounds } from './use-floor-sounds';
import { useLanes } from './use-lanes';
import { type LiveSession, useSession } from './use-session';
import { TapContext } from './use-tap';

export function FloorScreen() {
  const { sessionId = '' } = useParams();
  const queries = useQueryClient();
  const { live, error, refetch } = useSession(sessionId);
  const [looked, setLooked] = useState(false);
  const away = error !== null && !live;
  // The server is away: what was put down when the session was opened is enough to go on.
  useEffect(() => {
    if (away) void unpack(sessionId, queries).then(() => setLooked(true));
  }, [away, sessionId, queries]);
  if (live) return <Floor key={sessionId} live={live} />;
  return error && looked ? (
    <Failed error={error} retry={() => void refetch()} />
  ) : (
    <Loading what={say.common.theSession} />
  );
}

const NOBODY: readonly LaneView[] = [];

function Floor({ live }: { live: LiveSession }) {
  const { views, error, packed } = useLanes(live);
  const [chosen, choose] = useState(live.view.clients[0]?.id ?? '');
  const watch = useAttention(views ?? NOBODY);
  const view = views?.find(({ client }) => client.id === chosen);
  if (!views || !view) return error ? <Failed error={error} /> : <Loading what={say.common.theMovements} />;
  return (
    <TapContext value={live.tap}>
      <div className="flex h-full flex-col text-xl">
        <FloorHeader live={live} views={views} view={view} watch={watch} packed={packed} />
        {live.state.finishedAt ? (
          <Finished live={live} />
        ) : (
          <>
            <BlockClock live={live} views={views} view={view} />
            {views.length > 1 ? (
              <LaneStrip views={views} watch={watch} chosen={chosen} choose={choose} />
            ) : (
              <LaneSound key={chosen} view={view} />
            )}
            <LaneScreen key={chosen} live={live} views={views} view={view} />
          </>
        )}
      </div>
    </TapContext>
  );
}

/** The sounds of a lane that has no card. */
function LaneSound({ view }: { view: LaneView }) {
  useLaneSounds(view, 0);
  return null;
}

function LaneScreen({ live, views, view }: { live: LiveSession; views: readonly LaneView[]; view: LaneView }) {
  const navigate = useNavigate();
  const finish = () =>
    void live.tap(view.client.id, [draft(uuidv7(), 'session-finished', {})]).then(() => {
      // Whether the server has all of it is asked for once more.
      void live.settle();
      return navigate(`/review/${live.view.id}`);
    });
  const [finishing, setFinishing] = useState(false);
  // What was only put in on the way was meant for as long as there was time.
  const asks = live.view.programme !== null && views.some((one) => openLines(one).length > 0);
  const askOrFinish = () => (asks ? setFinishing(true) : finish());
  const { movement, entry, step, alarm, closed } = view;
  // Another movement, or another stay at it, begins afresh: nothing typed for the one before stays.
  const stay = `${movement?.id ?? ''} ${step?.itemId ?? entry?.id ?? ''}`;
  // What is closed is done only on purpose, and then for this stay alone.
  const [allTheSame, setAllTheSame] = useState('');
  const despite = closed && allTheSame === stay ? becauseWords(closed.fit.because).slice(0, 400) : null;
  return (
    <LooksFor value={view.client.looks ?? null}>
      <div className={`min-h-0 flex-1 overflow-y-auto ${views.length > 1 ? 'many' : ''}`}>
        {alarm ? (
          <PainTakeover view={view} pain={alarm} />
        ) : !movement ? (
          <>
            <SetPanel view={view} views={views} despite={despite} />
            {view.steps.length > 0 && !dropNow(view) && <AllDone view={view} />}
            <ChooseMovement view={view} />
          </>
        ) : closed && despite === null ? (
          <ClosedCard view={view} onAllTheSame={() => setAllTheSame(stay)} />
        ) : (
          // Beside one another each scrolls by itself: a long list of faults does not push the set below the fold. Below one another what is to be
          // said about a fault stays at the top, whatever is scrolled.
          <div className="flex min-h-full flex-col lg:grid lg:h-full lg:grid-cols-[minmax(0,7fr)_minmax(0,5fr)] lg:*:min-h-0 lg:*:overflow-y-auto">
            <div className="contents min-w-0 flex-col lg:flex">
              <NowPanel key={`now ${stay}`} view={view} />
              <SetPanel key={`set ${stay}`} view={view} views={views} despite={despite} />
            </div>
            <FaultPanel view={view} />
          </div>
        )}
      </div>
      <ActionBar live={live} views={views} view={view} onFinish={askOrFinish} />
      {finishing && <FinishSheet views={views} onFinish={finish} onClose={() => setFinishing(false)} />}
    </LooksFor>
  );
}

/** Everything that was planned is done; how the last set felt may still be asked. */
function AllDone({ view }: { view: LaneView }) {
  return (
    <section aria-label={say.common.done} className="border-base-content border-b-2 p-5">
      <h2 className="text-3xl">{say.floor.allDone}</h2>
      <p className="mb-3">{say.floor.finishTheSessionOrAdd}</p>
      <div className="max-w-xl">
        <MarkJustDone view={view} />
      </div>
      <RestEffort view={view} />
    </section>
  );
}

function Finished({ live }: { live: LiveSession }) {
  return (
    <div className="space-y-4 p-6">
      <h2>{say.floor.thisSessionIsFinished}</h2>
      <div className="flex flex-wrap gap-3">
        <Link className="btn btn-primary target" to={`/review/${live.view.id}`}>
          {say.floor.toTheReview}
        </Link>
        <button type="button" className="btn target" onClick={() => void live.undo()}>
          {say.common.openItAgain}
        </button>
      </div>
    </div>
  );
}
