/** One session after it: what was done, what was seen and what fixed it, pain, and what is next and why. */
import { useQueries, useQuery, useQueryClient } from '@tanstack/react-query';
import { PAIN_ADVICE, painPlace } from '@waxwing/core/client';
import type { Outcome } from '@waxwing/core/coaching';
import { partsWords } from '@waxwing/core/dosage';
import type { MovementPage } from '@waxwing/core/ladder';
import { inWords, label, type Movement, spokenOf, UNIT_WORDS } from '@waxwing/core/movement';
import { isAround } from '@waxwing/core/planning';
import type { NextStep } from '@waxwing/core/progress';
import {
  type Entry,
  type Lane,
  movementIn,
  movesOf,
  type SessionView,
  type SetRecord,
  stepsOf,
  totalsOf,
} from '@waxwing/core/session';
import { lazy, useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';

import { movementQuery, recordQuery, studioQuery } from '../api/queries';
import { useMay } from '../door/use-door';
import { Log } from '../floor/log-sheet';
import { SaveState } from '../floor/save-state';
import { queueState, subscribeQueue } from '../floor/tap-queue';
import { type LiveSession, useSession } from '../floor/use-session';
import { Dialog } from '../shell/dialog';
import { PageHead } from '../shell/page';
import { Failed, Loading } from '../shell/states';
import { useBrief } from '../today/use-brief';
import { dayWords, minutesBetween, timeWords } from '../words/dates';
import { say } from '../words/say';
import { SeverityMark } from '../words/severity-mark';
import { doneWords, nextWords, seenWords } from '../words/told-words';
import { useNextTime } from '../words/use-next-time';

/** Charts come in a chunk of their own. */
const OverWeeks = lazy(async () => ({ default: (await import('./over-weeks')).OverWeeks }));

export function ReviewScreen() {
  const { sessionId = '' } = useParams();
  // The same fold as on the floor: what this device has not sent yet is part of the review.
  const { live, error, refetch } = useSession(sessionId);
  if (live) return <Review live={live} />;
  return error ? <Failed error={error} retry={() => void refetch()} /> : <Loading what={say.common.theSession} />;
}

function Review({ live }: { live: LiveSession }) {
  const { view, state } = live;
  const { train } = useMay();
  const end = state.log.findLast(({ type }) => type === 'session-finished');
  return (
    <article className="page">
      <PageHead
        title={view.clients.map((client) => client.name).join(say.common.and)}
        back={{ to: '/review', name: say.common.review }}
        about={`${dayWords(view.startedAt)}, ${timeWords(view.startedAt)} · ${
          state.finishedAt
            ? say.common.inMinutes(minutesBetween(view.startedAt, state.finishedAt))
            : say.review.notFinished
        }`}
        actions={
          <>
            <SaveState sessionId={view.id} />
            <nav aria-label={say.review.setsAsAFile} className="flex gap-2">
              {train && (
                <a className="btn btn-sm" href={`/api/sessions/${view.id}/sets.csv`}>
                  {say.review.setsAsCsv}
                </a>
              )}
              <a
                className="btn btn-sm"
                href={`/api/sessions/${view.id}/sets`}
                download={`waxwing-sets-${view.id}.json`}
              >
                {say.review.json}
              </a>
            </nav>
            {end && (
              <button type="button" className="btn btn-sm" onClick={() => void live.takeBack([end])}>
                {say.common.openItAgain}
              </button>
            )}
            {!state.finishedAt && (
              <Link className="btn btn-primary" to={`/floor/${view.id}`}>
                {say.common.backToTheFloor}
              </Link>
            )}
          </>
        }
      />
      {Object.values(state.lanes).map((lane) => (
        <LaneReview key={lane.clientId} lane={lane} view={view} live={live} />
      ))}
    </article>
  );
}

function LaneReview({ lane, view, live }: { lane: Lane; view: SessionView; live: LiveSession }) {
  const queries = useQueryClient();
  const planned = (view.programme?.plan.blocks ?? []).flatMap(({ items }) =>
    items.flatMap(({ lanes }) => lanes.flatMap((one) => (one.clientId === lane.clientId ? [one.movementId] : []))),
  );
  const done = [
    ...new Set(lane.entries.flatMap(({ movementId, withId }) => [movementId, ...(withId ? [withId] : [])])),
  ];
  const ids = [...new Set([...done, ...planned])];
  const pages = useQueries({ queries: ids.map((id) => movementQuery(id)) });
  const { data: record } = useQuery({ ...recordQuery(lane.clientId), staleTime: 0 });
  const { data: studio } = useQuery(studioQuery);
  const [correcting, correct] = useState(false);
  // The record is the server's: it is asked again once this device has nothing left to send.
  useEffect(
    () =>
      subscribeQueue(() => {
        if (queueState().waiting === 0)
          void queries.invalidateQueries({ queryKey: recordQuery(lane.clientId).queryKey });
      }),
    [queries, lane.clientId],
  );
  const find = (id: string) => pages.find((page) => page.data?.movement.id === id)?.data;
  const nextTime = useNextTime(
    lane.clientId,
    record,
    lane.pains,
    (movementId, faultId) => find(movementId)?.movement.faults.find((fault) => fault.id === faultId),
    view.programme && { purpose: view.programme.plan.purpose, place: view.programme.plan.place },
  );
  const client = view.clients.find(({ id }) => id === lane.clientId);
  if (pages.some((page) => page.isPending) || !client) return <Loading what={say.common.theMovements} />;
  const steps = lane.entries.flatMap(({ movementId, sets }) =>
    sets.length > 0 ? (nextTime(movementId)?.step ?? []) : [],
  );
  return (
    <section className="mb-10">
      {view.clients.length > 1 && <h2 className="mb-3 text-2xl">{client.name}</h2>}
      <Told
        lane={lane}
        view={view}
        finishedAt={live.state.finishedAt}
        find={(id) => find(id)?.movement}
        steps={steps}
      />
      <div className="grid gap-x-10 gap-y-8 lg:grid-cols-[3fr_2fr]">
        <Part title={say.common.done}>
          {lane.entries.length === 0 && <p className="quiet">{say.review.noMovementWasStarted}</p>}
          <ul className="ruled">
            {lane.entries.map((entry) => (
              <EntryRow
                key={entry.id}
                entry={entry}
                movement={find(entry.movementId)?.movement}
                other={entry.withId === undefined ? undefined : find(entry.withId)?.movement}
              />
            ))}
          </ul>
          <NotDone lane={lane} view={view} find={(id) => find(id)?.movement} />
          <button type="button" className="btn btn-sm mt-3" onClick={() => correct(true)}>
            {say.review.correctTheRecord}
            <span className="sr-only">{say.review.ofClient(client.name)}</span>
          </button>
          {correcting && (
            <Dialog title={say.review.recordOf(client.name)} onClose={() => correct(false)}>
              <Log live={live} client={client} kitOf={(id) => find(id)?.movement.kit} kit={studio?.kit ?? []} />
            </Dialog>
          )}
        </Part>
        <div className="space-y-8">
          <Pains lane={lane} />
          <Moves lane={lane} nameOf={(id) => find(id)?.movement.name ?? label(id)} />
          <Notes lane={lane} />
          <Part title={say.review.seenAndSaid}>
            <FaultRows lane={lane} find={(id) => find(id)?.movement} />
          </Part>
          <Part title={say.review.nextTimeTitle}>
            <NextTime ids={done} lane={lane} view={view} find={find} nextTime={nextTime} />
          </Part>
        </div>
      </div>
      {record && <OverWeeks record={record} movements={done.flatMap((id) => find(id)?.movement ?? [])} />}
    </section>
  );
}

/** The session in three sentences. */
function Told({
  lane,
  view,
  finishedAt,
  find,
  steps,
}: {
  lane: Lane;
  view: SessionView;
  finishedAt: string | null;
  find: (id: string) => Movement | undefined;
  steps: readonly NextStep[];
}) {
  const brief = useBrief(lane.clientId);
  return (
    <div className="mb-6 max-w-4xl text-xl leading-snug">
      <p>{doneWords(lane, find, finishedAt === null ? null : minutesBetween(view.startedAt, finishedAt))}</p>
      <p>{seenWords(lane, find)}</p>
      <p className="min-h-7">{brief && nextWords(brief.notes, steps, brief.nameOf)}</p>
    </div>
  );
}

/** What was planned and not done, or done in fewer sets, or left out. */
function NotDone({ lane, view, find }: { lane: Lane; view: SessionView; find: (id: string) => Movement | undefined }) {
  const steps = stepsOf(view.programme, lane, find);
  const dropped = (view.programme?.plan.blocks ?? []).flatMap(({ items }) =>
    items.flatMap(({ id, lanes }) => {
      const own = lanes.find(({ clientId }) => clientId === lane.clientId);
      return own && lane.course.dropped.includes(id) ? [{ itemId: id, movementId: own.movementId, open: null }] : [];
    }),
  );
  const short = [...new Set(steps.map(({ itemId }) => itemId))].flatMap((itemId) => {
    const own = steps.filter((step) => step.itemId === itemId);
    const open = own.filter(({ state }) => state !== 'done').length;
    return open > 0
      ? [{ itemId, movementId: own[0]?.lane.movementId ?? '', open: say.review.openOf(open, own.length) }]
      : [];
  });
  const rows = [...short, ...dropped];
  if (rows.length === 0) return null;
  return (
    <div className="mt-4">
      <h3 className="font-bold">{say.review.plannedAndNotDone}</h3>
      <ul>
        {rows.map(({ itemId, movementId, open }) => (
          <li key={itemId}>
            {find(movementId)?.name ?? label(movementId)} <span className="quiet">· {open ?? say.review.dropped}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** Rungs that were changed on the floor: the next plan goes on from there. */
function Moves({ lane, nameOf }: { lane: Lane; nameOf: (id: string) => string }) {
  const moves = movesOf(lane);
  if (moves.length === 0) return null;
  return (
    <Part title={say.review.rungsMoved}>
      <ul className="ruled">
        {moves.map(({ from, to, why, at }) => (
          <li key={`${at} ${to}`} className="py-2">
            {nameOf(from)} → <strong>{nameOf(to)}</strong>
            {why && <span className="quiet"> · {why}</span>}
          </li>
        ))}
      </ul>
    </Part>
  );
}

function Notes({ lane }: { lane: Lane }) {
  if (lane.notes.length === 0) return null;
  return (
    <Part title={say.common.notes}>
      <ul className="ruled">
        {lane.notes.map(({ id, text }) => (
          <li key={id} className="py-2">
            {text}
          </li>
        ))}
      </ul>
    </Part>
  );
}

const Part = ({ title, children }: { title: string; children: React.ReactNode }) => (
  <section>
    <h2 className="border-base-content mb-1 border-b-2 pb-1">{title}</h2>
    {children}
  </section>
);

const side = { both: '', left: 'L ', right: 'R ' } as const;

/** One set: its side, what was done, and its weight where the sets differ in it. */
function setWords(
  { side: one, amount, uncounted, pieces, parts, drops, loadLabel }: SetRecord,
  weighed: boolean,
  unit: string,
): string {
  const done = parts
    ? partsWords(parts)
    : `${amount}${uncounted ? say.review.sByTheClock : pieces ? ` (${pieces.join(' + ')})` : ''}`;
  const lighter = drops
    .filter((drop) => drop.amount > 0)
    .map((drop) => say.review.then(drop.amount, drop.loadLabel ?? say.common.noWeight));
  const load = weighed || lighter.length > 0 ? say.review.unitsWith(unit, loadLabel ?? say.common.noWeight) : '';
  return `${side[one]}${done}${load}${lighter.join('')}`;
}

function EntryRow({
  entry,
  movement,
  other,
}: {
  entry: Entry;
  movement: Movement | undefined;
  /** Done in the same rep. */
  other: Movement | undefined;
}) {
  const sides = movement?.sides ?? 'both';
  const mode = movement?.dose.mode ?? 'reps';
  const totals = totalsOf(entry, sides, mode);
  const unit = UNIT_WORDS[mode];
  const loads = new Set(entry.sets.map(({ loadLabel }) => loadLabel));
  const load = loads.size === 1 ? entry.sets[0]?.loadLabel : null;
  const dropped = entry.sets.some(({ drops }) => drops.some(({ amount }) => amount > 0));
  const byClock = entry.sets.every(({ uncounted }) => uncounted);
  return (
    <li className="grid gap-x-4 py-2.5 sm:grid-cols-[1fr_auto]">
      <div>
        <Link className="link text-lg font-semibold" to={`/library/${entry.movementId}`}>
          {movement?.name ?? label(entry.movementId)}
        </Link>
        {other && <span>{say.common.with(other.name.toLowerCase())}</span>}
        {entry.why && <span className="quiet"> · {entry.why}</span>}
        <p>
          {entry.sets.length === 0 ? (
            <span className="quiet">{say.review.noSetLogged}</span>
          ) : (
            <>
              {entry.sets.map((set) => setWords(set, loads.size > 1 || dropped, unit)).join(' · ')}{' '}
              {loads.size > 1 || dropped || byClock || entry.sets.some(({ parts }) => parts) ? '' : unit}
              {load && !dropped && ` · ${load}`}
            </>
          )}
        </p>
        {entry.sets.some((set) => set.effort) && (
          <p className="quiet text-sm">
            {say.review.felt([...new Set(entry.sets.flatMap((set) => set.effort ?? []))].join(', '))}
          </p>
        )}
      </div>
      {entry.sets.length > 0 && (
        <p className="quiet text-sm sm:text-right">
          {byClock ? say.common.sets(entry.sets.length) : say.review.setsInAll(totals.sets, totals.amount, unit)}
          {totals.pulses > 0 && say.review.pulses(totals.pulses)}
          {totals.held > 0 && say.review.sHeld(totals.held)}
          {sides === 'each' && totals.left !== totals.right && (
            <strong className="text-base-content block">{say.review.leftRight(totals.left, totals.right)}</strong>
          )}
          {totals.volumeKg > 0 && <span className="block">{say.review.kgMoved(totals.volumeKg)}</span>}
        </p>
      )}
    </li>
  );
}

const OUTCOME_WORDS: Readonly<Record<Outcome, string>> = say.review.outcomeWords;

function FaultRows({ lane, find }: { lane: Lane; find: (id: string) => Movement | undefined }) {
  const rows = lane.entries.flatMap((entry) =>
    entry.faults.map((seen) => {
      const movement = movementIn(entry, find);
      return { entry, seen, movement, fault: movement?.faults.find((f) => f.id === seen.faultId) };
    }),
  );
  if (rows.length === 0) return <p className="quiet py-2">{say.review.noFaultMarked}</p>;
  return (
    <ul className="ruled">
      {rows.map(({ entry, seen, movement, fault }) => (
        <li key={`${entry.id}/${seen.faultId}`} className="py-2">
          <p className="flex items-center gap-2">
            {fault && <SeverityMark severity={fault.severity} />}
            <span className="font-semibold">{fault?.name ?? label(seen.faultId)}</span>
            <span className="quiet">
              · {movement?.name}
              {say.review.stillOpenFixed(seen.open)}
            </span>
          </p>
          <ul className="ml-7 text-sm">
            {entry.corrections
              .filter((given) => given.addresses.includes(seen.faultId))
              .map((given) => {
                const correction = movement?.faults
                  .find((f) => f.id === given.faultId)
                  ?.corrections.find((c) => c.id === given.correctionId);
                const spoken = correction && spokenOf(correction, movement?.cues ?? []);
                return (
                  <li key={given.eventId}>
                    {spoken ? `“${spoken}”` : (correction?.do ?? label(given.correctionId))}{' '}
                    <strong>{given.outcome ? OUTCOME_WORDS[given.outcome] : say.review.given}</strong>
                  </li>
                );
              })}
          </ul>
        </li>
      ))}
    </ul>
  );
}

function Pains({ lane }: { lane: Lane }) {
  if (lane.pains.length === 0) return null;
  return (
    <Part title={say.common.pain}>
      <ul className="ruled">
        {lane.pains.map((pain) => (
          <li key={pain.id} className="py-2">
            <p className="text-error text-lg font-semibold">
              {say.review.atThe(label(pain.quality), painPlace(pain))}
              {pain.movementId && say.review.inMovement(inWords(pain.movementId))}
            </p>
            <p className="text-sm">{PAIN_ADVICE[pain.quality]}</p>
          </li>
        ))}
      </ul>
    </Part>
  );
}

/** For each movement what comes next. */
function NextTime({
  ids,
  lane,
  view,
  find,
  nextTime,
}: {
  ids: readonly string[];
  lane: Lane;
  view: SessionView;
  find: (id: string) => MovementPage | undefined;
  nextTime: ReturnType<typeof useNextTime>;
}) {
  const done = ids.filter((id) => lane.entries.some(({ movementId, sets }) => movementId === id && sets.length > 0));
  if (done.length === 0) return <p className="quiet py-2">{say.review.nothingWasDoneThatCould}</p>;
  // Nobody is asked how a warm-up or a stretch felt: it is done again, unless something was seen in it.
  const around = new Set(
    (view.programme?.plan.blocks ?? []).filter(isAround).flatMap(({ items }) => items.map(({ id }) => id)),
  );
  const again = done.filter((id) =>
    lane.entries.every(
      ({ movementId, itemId, faults, sets }) =>
        movementId !== id ||
        (around.has(itemId ?? '') && faults.length === 0 && sets.every(({ effort }) => effort === null)),
    ),
  );
  const nameOf = (id: string) => find(id)?.movement.name ?? label(id);
  return (
    <ul className="ruled">
      {done
        .filter((id) => !again.includes(id))
        .map((id) => (
          <li key={id} className="py-2">
            <span className="font-semibold">{nameOf(id)}</span>: {nextTime(id)?.words ?? '…'}
          </li>
        ))}
      {again.length > 0 && (
        <li className="py-2">
          <span className="font-semibold">{say.review.warmUpAndStretch}</span>
          {say.review.theSameAgain(again.map(nameOf).join(', '))}
        </li>
      )}
    </ul>
  );
}
