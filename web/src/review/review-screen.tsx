/** One session after it: what was done, what was seen and what fixed it, pain, and what is next and why. */
import type { ClientRecord, SessionView } from '@waxwing/core/formats';
import { PAIN_ADVICE, type Outcome } from '@waxwing/core/coaching';
import { readiness, signWords } from '@waxwing/core/ladder';
import { inWords, label, type Movement } from '@waxwing/core/movement';
import { totalsOf, type Entry, type Lane, type SetRecord } from '@waxwing/core/session';
import { useQueries, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { Link, useParams } from 'react-router';
import { movementQuery, recordQuery } from '../api/queries';
import { outboxState, subscribeOutbox } from '../floor/outbox';
import { useSession, type LiveSession } from '../floor/use-session';
import { Failed, Loading } from '../shell/states';
import { dayWords, minutesBetween, timeWords } from '../words/dates';
import { SeverityMark } from '../words/severity-mark';

export function ReviewScreen() {
  const { sessionId = '' } = useParams();
  // The same fold as on the floor: what this device has not sent yet is part of the review.
  const { live, error, refetch } = useSession(sessionId);
  if (live) return <Review live={live} />;
  return error ? <Failed error={error} retry={() => void refetch()} /> : <Loading what="the session" />;
}

function Review({ live }: { live: LiveSession }) {
  const { view, state } = live;
  return (
    <article className="mx-auto max-w-6xl p-4 sm:p-6">
      <header className="mb-6 flex flex-wrap items-end justify-between gap-4">
        <div>
          <p className="quiet text-sm">
            <Link className="link" to="/review">
              Review
            </Link>
          </p>
          <h1>{view.clients.map((client) => client.name).join(' and ')}</h1>
          <p className="quiet text-lg">
            {dayWords(view.startedAt)}, {timeWords(view.startedAt)}
            {state.finishedAt ? ` · ${minutesBetween(view.startedAt, state.finishedAt)} min` : ' · not finished'}
          </p>
        </div>
        {!state.finishedAt && (
          <Link className="btn btn-primary" to={`/floor/${view.id}`}>
            Back to the floor
          </Link>
        )}
      </header>
      {Object.values(state.lanes).map((lane) => (
        <LaneReview key={lane.clientId} lane={lane} view={view} />
      ))}
    </article>
  );
}

function LaneReview({ lane, view }: { lane: Lane; view: SessionView }) {
  const queries = useQueryClient();
  const ids = [...new Set(lane.entries.map((entry) => entry.movementId))];
  const pages = useQueries({ queries: ids.map((id) => movementQuery(id)) });
  const { data: record } = useQuery({ ...recordQuery(lane.clientId), staleTime: 0 });
  // The record is the server's: it is asked again once this device has nothing left to send.
  useEffect(
    () =>
      subscribeOutbox(() => {
        if (outboxState().waiting === 0)
          void queries.invalidateQueries({ queryKey: recordQuery(lane.clientId).queryKey });
      }),
    [queries, lane.clientId],
  );
  if (pages.some((page) => page.isPending)) return <Loading what="the movements" />;
  const find = (id: string) => pages.find((page) => page.data?.movement.id === id)?.data;
  return (
    <section className="mb-10">
      {view.clients.length > 1 && (
        <h2 className="mb-3 text-2xl">{view.clients.find((client) => client.id === lane.clientId)?.name}</h2>
      )}
      <div className="grid gap-x-10 gap-y-8 lg:grid-cols-[3fr_2fr]">
        <Part title="Done">
          {lane.entries.length === 0 && <p className="quiet">No movement was started.</p>}
          <ul className="ruled">
            {lane.entries.map((entry) => (
              <EntryRow key={entry.id} entry={entry} movement={find(entry.movementId)?.movement} />
            ))}
          </ul>
        </Part>
        <div className="space-y-8">
          <Pains lane={lane} />
          <Part title="Seen and said">
            <FaultRows lane={lane} find={(id) => find(id)?.movement} />
          </Part>
          <Part title="Next time">
            <NextTime ids={ids} lane={lane} find={find} record={record} />
          </Part>
        </div>
      </div>
    </section>
  );
}

const Part = ({ title, children }: { title: string; children: React.ReactNode }) => (
  <section>
    <h2 className="border-base-content mb-1 border-b-2 pb-1">{title}</h2>
    {children}
  </section>
);

const side = { both: '', left: 'L ', right: 'R ' } as const;

const setWords = (set: SetRecord): string => `${side[set.side]}${set.amount}`;

function EntryRow({ entry, movement }: { entry: Entry; movement: Movement | undefined }) {
  const sides = movement?.sides ?? 'both';
  const totals = totalsOf(entry, sides);
  const unit = movement?.dose.mode === 'time' ? 's' : 'reps';
  const load = entry.sets.at(-1)?.loadLabel;
  return (
    <li className="grid gap-x-4 py-2.5 sm:grid-cols-[1fr_auto]">
      <div>
        <Link className="link text-lg font-semibold" to={`/library/${entry.movementId}`}>
          {movement?.name ?? label(entry.movementId)}
        </Link>
        {entry.why && <span className="quiet"> · {entry.why}</span>}
        <p>
          {entry.sets.length === 0 ? (
            <span className="quiet">no set logged</span>
          ) : (
            <>
              {entry.sets.map(setWords).join(' · ')} {unit}
              {load && ` · ${load}`}
            </>
          )}
        </p>
        {entry.sets.some((set) => set.effort) && (
          <p className="quiet text-sm">felt {[...new Set(entry.sets.flatMap((set) => set.effort ?? []))].join(', ')}</p>
        )}
      </div>
      {entry.sets.length > 0 && (
        <p className="quiet text-sm sm:text-right">
          {totals.sets === 1 ? '1 set' : `${totals.sets} sets`} · {totals.amount} {unit} in all
          {sides === 'each' && totals.left !== totals.right && (
            <strong className="text-base-content block">
              left {totals.left}, right {totals.right}
            </strong>
          )}
          {totals.volumeKg > 0 && <span className="block">{totals.volumeKg} kg moved</span>}
        </p>
      )}
    </li>
  );
}

const OUTCOME_WORDS: Readonly<Record<Outcome, string>> = {
  fixed: 'fixed',
  better: 'better',
  same: 'no change',
  worse: 'worse',
};

function FaultRows({ lane, find }: { lane: Lane; find: (id: string) => Movement | undefined }) {
  const rows = lane.entries.flatMap((entry) =>
    entry.faults.map((seen) => {
      const movement = find(entry.movementId);
      return { entry, seen, movement, fault: movement?.faults.find((f) => f.id === seen.faultId) };
    }),
  );
  if (rows.length === 0) return <p className="quiet py-2">No fault was marked.</p>;
  return (
    <ul className="ruled">
      {rows.map(({ entry, seen, movement, fault }) => (
        <li key={`${entry.id}/${seen.faultId}`} className="py-2">
          <p className="flex items-center gap-2">
            {fault && <SeverityMark severity={fault.severity} />}
            <span className="font-semibold">{fault?.name ?? label(seen.faultId)}</span>
            <span className="quiet">
              · {movement?.name} · {seen.open ? 'still open' : 'fixed'}
            </span>
          </p>
          <ul className="ml-7 text-sm">
            {entry.corrections
              .filter((given) => given.addresses.includes(seen.faultId))
              .map((given) => {
                const correction = movement?.faults
                  .find((f) => f.id === given.faultId)
                  ?.corrections.find((c) => c.id === given.correctionId);
                const cue = movement?.cues.find((c) => c.id === correction?.cueId);
                return (
                  <li key={given.eventId}>
                    “{cue?.text ?? correction?.text ?? label(given.correctionId)}”{' '}
                    <strong>{given.outcome ? OUTCOME_WORDS[given.outcome] : 'given'}</strong>
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
    <Part title="Pain">
      <ul className="ruled">
        {lane.pains.map((pain) => (
          <li key={pain.id} className="py-2">
            <p className="text-error text-lg font-semibold">
              {label(pain.quality)} at the {inWords(pain.region)}
              {pain.movementId && ` in ${inWords(pain.movementId)}`}
            </p>
            <p className="text-sm">{PAIN_ADVICE[pain.quality]}</p>
          </li>
        ))}
      </ul>
    </Part>
  );
}

interface NextTimeProps {
  ids: readonly string[];
  lane: Lane;
  find: (id: string) =>
    | {
        movement: Movement;
        harder: { to: string; name: string; readyWhen?: Parameters<typeof readiness>[0] | undefined }[];
      }
    | undefined;
  record: ClientRecord | undefined;
}

/** For each movement: up when its sign is met and nothing speaks against it, else stay, with the reason. */
function NextTime({ ids, lane, find, record }: NextTimeProps) {
  const lines = ids.flatMap((id) => {
    const page = find(id);
    const entries = lane.entries.filter((entry) => entry.movementId === id && entry.sets.length > 0);
    if (!page || entries.length === 0) return [];
    return [{ id, name: page.movement.name, text: proposal(page, entries, lane, record) }];
  });
  if (lines.length === 0) return <p className="quiet py-2">Nothing was done that could be built on.</p>;
  return (
    <ul className="ruled">
      {lines.map(({ id, name, text }) => (
        <li key={id} className="py-2">
          <span className="font-semibold">{name}</span>: {text}
        </li>
      ))}
    </ul>
  );
}

function proposal(
  page: NonNullable<ReturnType<NextTimeProps['find']>>,
  entries: readonly Entry[],
  lane: Lane,
  record: ClientRecord | undefined,
): string {
  const { movement, harder } = page;
  if (lane.pains.some((pain) => pain.movementId === movement.id)) return 'ask about the pain first; nothing goes up.';
  const open = movement.faults.find(
    (fault) => fault.severity !== 'polish' && entries.at(-1)?.faults.some((f) => f.open && f.faultId === fault.id),
  );
  if (open) return `stay, and solve “${open.name.toLowerCase()}” first.`;
  const step = harder.find((h) => h.readyWhen);
  if (!step?.readyWhen) return 'stay at this rung.';
  const { ready, met, needed } = readiness(step.readyWhen, record?.sets[movement.id] ?? []);
  if (ready) return `ready for ${step.name}.`;
  return `stay; ${met} of ${needed} sessions towards ${step.name} (${signWords(step.readyWhen)}).`;
}
