/** The first page: who comes today, with which plan, what to know first, and what is left over. Other days are one press away. */
import { DndContext, type DragEndEvent, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import type { ClientSummary } from '@waxwing/core/client';
import type { PlanSummary } from '@waxwing/core/planning';
import type { SessionSummary } from '@waxwing/core/session';
import { Link, useSearchParams } from 'react-router';

import { clientsQuery, plansBetweenQuery, sessionsBetweenQuery, studioQuery } from '../api/queries';
import { useMay } from '../door/use-door';
import { longAway } from '../people/away';
import { Page, Section } from '../shell/page';
import { Await, Empty, Wrong } from '../shell/states';
import { useSetParam } from '../shell/use-set-param';
import {
  agoWords,
  dayNumber,
  dayWords,
  longDayWords,
  momentOf,
  startOf,
  timeWords,
  today as dayOf,
} from '../words/dates';
import { Marked } from '../words/marked';
import { say } from '../words/say';
import { comersOf, visitsOf } from './day';
import { FirstSteps } from './first-steps';
import { spanAround } from './span';
import { useMovePlan } from './use-move-plan';
import { VisitRow } from './visit-row';
import { WeekStrip } from './week-strip';

export function TodayScreen() {
  const { own, train } = useMay();
  // When they come next changes with every plan.
  const clients = useQuery({ ...clientsQuery, staleTime: 0 });
  const studio = useQuery(studioQuery);
  const both = {
    data: clients.data && studio.data && { clients: clients.data, studio: studio.data },
    error: clients.error ?? studio.error,
    refetch: () => Promise.all([clients.refetch(), studio.refetch()]),
  };
  return (
    <Await query={both} what={say.today.theDay}>
      {({ clients: all, studio: here }) =>
        all.length === 0 && !own ? (
          <Page title={say.common.today}>
            <NobodyShared train={train} />
          </Page>
        ) : // Until the first session is planned or held.
        own && all.every(({ last, next }) => last === null && next === null) ? (
          <Page title={say.today.welcomeToWaxwing} about={say.today.threeStepsToYourFirst}>
            <FirstSteps studio={here} clients={all} />
          </Page>
        ) : (
          <Day clients={all} />
        )
      }
    </Await>
  );
}

function Day({ clients }: { clients: readonly ClientSummary[] }) {
  const { train: mayPlan } = useMay();
  const [params] = useSearchParams();
  const setParam = useSetParam();
  const now = new Date();
  const today = dayNumber(now);
  const asked = startOf(params.get('day') ?? '');
  const day = Number.isNaN(asked.getTime()) ? today : dayNumber(asked);
  const goTo = (one: number) => setParam('day', one === today ? '' : dayOf(momentOf({ day: one, minute: 0 })));
  const plans = useInfiniteQuery({
    ...plansBetweenQuery(...spanAround(day)),
    placeholderData: (old) => old,
    staleTime: 0,
  });
  const { data: sessions = NO_SESSIONS } = useInfiniteQuery({
    ...sessionsBetweenQuery(...spanAround(day)),
    placeholderData: (old) => old,
    staleTime: 0,
  });
  const move = useMovePlan();
  // A press on the handle is no drag yet.
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }));
  const drop = ({ active, over }: DragEndEvent) => {
    const plan = plans.data?.find(({ id }) => id === active.id);
    if (!plan?.startsAt || !over || over.id === dayNumber(new Date(plan.startsAt))) return;
    const at = new Date(plan.startsAt);
    const to = momentOf({ day: Number(over.id), minute: at.getHours() * 60 + at.getMinutes() });
    move.mutate({ planId: plan.id, at: to, weeks: 0 });
  };
  const at = momentOf({ day, minute: 0 });
  return (
    <Page
      title={day === today ? say.common.today : longDayWords(at)}
      about={day === today ? longDayWords(at) : agoWords(at.toISOString())}
      actions={
        <>
          {day !== today && (
            <button type="button" className="btn" onClick={() => goTo(today)}>
              {say.today.backToToday}
            </button>
          )}
          {mayPlan && (
            <Link className="btn btn-primary" to="/plan/new">
              {say.common.planASession}
            </Link>
          )}
        </>
      }
    >
      <DndContext sensors={sensors} onDragEnd={drop}>
        <WeekStrip day={day} today={today} comers={comersOf(plans.data ?? NO_PLANS, sessions)} onDay={goTo} />
        <Wrong error={move.error} />
        <div className="grid gap-x-10 gap-y-8 xl:grid-cols-[1fr_19rem]">
          <Await query={plans} what={say.common.whoComes}>
            {(found) => (
              <Visits day={day} today={today} plans={found} clients={clients} sessions={sessions} mayPlan={mayPlan} />
            )}
          </Await>
          {day === today && <Aside clients={clients} plans={plans.data ?? NO_PLANS} sessions={sessions} now={now} />}
        </div>
      </DndContext>
    </Page>
  );
}

/** Somebody new here, before anybody lets them see a client. */
const NobodyShared = ({ train }: { train: boolean }) => (
  <Empty title={say.today.nobodyIsSharedWithYou}>
    <p>{say.today.whoeverTrainsAClientLets}</p>
    {train && (
      <Link to="/people/new" className="btn btn-primary">
        {say.today.addAClientOfYour}
      </Link>
    )}
  </Empty>
);

const NO_PLANS: readonly PlanSummary[] = [];
const NO_SESSIONS: readonly SessionSummary[] = [];

function Visits({
  day,
  today,
  plans,
  clients,
  sessions,
  mayPlan,
}: {
  day: number;
  today: number;
  plans: readonly PlanSummary[];
  clients: readonly ClientSummary[];
  sessions: readonly SessionSummary[];
  mayPlan: boolean;
}) {
  const visits = visitsOf(day, plans, clients, sessions, new Date());
  const next = visits.find(({ state }) => state === 'running') ?? visits.find(({ state }) => state === 'coming');
  if (visits.length > 0)
    return (
      <ol className="ruled border-base-content self-start border-t-2">
        {visits.map((visit) => (
          <VisitRow
            key={visit.key}
            visit={visit}
            clients={clients}
            isToday={day === today}
            isNext={visit === next}
            mayPlan={mayPlan}
          />
        ))}
      </ol>
    );
  const later = plans
    .filter(({ startsAt, session }) => startsAt !== null && !session && dayNumber(new Date(startsAt)) > day)
    .toSorted((a, b) => (a.startsAt ?? '').localeCompare(b.startsAt ?? ''))[0];
  return (
    <div className="border-base-content self-start border-t-2 py-8">
      <p className="text-2xl font-bold">{day < today ? say.today.nobodyWasPlanned : say.today.nobodyComes}</p>
      {day >= today && later?.startsAt && (
        <p className="mt-2 text-lg">
          <Marked
            words={say.today.nextCome(
              later.clients.map(({ name }) => name).join(say.common.and),
              dayWords(later.startsAt),
              timeWords(later.startsAt),
            )}
            as={(who) => (
              <Link className="link" to={`/plan/${later.id}`}>
                {who}
              </Link>
            )}
          />
        </p>
      )}
      {day === today && (
        <p className="mt-4">
          <Link className="btn btn-lg" to="/floor">
            {say.today.startWithoutAPlan}
          </Link>
        </p>
      )}
    </div>
  );
}

/** People of whom nobody thinks today, and what earlier days left. */
function Aside({
  clients,
  plans,
  sessions,
  now,
}: {
  clients: readonly ClientSummary[];
  plans: readonly PlanSummary[];
  sessions: readonly SessionSummary[];
  now: Date;
}) {
  const today = dayNumber(now);
  const left = sessions.filter(
    ({ startedAt, finishedAt }) => finishedAt === null && dayNumber(new Date(startedAt)) < today,
  );
  const unheld = plans.filter(
    ({ startsAt, session }) =>
      startsAt !== null &&
      !session &&
      dayNumber(new Date(startsAt)) < today &&
      today - dayNumber(new Date(startsAt)) <= 7,
  );
  const undated = plans.filter(({ startsAt, session }) => startsAt === null && !session);
  const away = longAway(clients, now);
  const loose = [
    ...left.map(({ id, clients: who, startedAt }) => ({
      key: id,
      to: `/floor/${id}`,
      name: who.map(({ name }) => name).join(say.common.and),
      what: say.today.sessionOfNotFinished(dayWords(startedAt)),
    })),
    ...unheld.map(({ id, clients: who, startsAt }) => ({
      key: id,
      to: `/plan/${id}`,
      name: who.map(({ name }) => name).join(say.common.and),
      what: say.today.planOfNotUsed(dayWords(startsAt ?? '')),
    })),
    ...undated.map(({ id, name, clients: who }) => ({
      key: id,
      to: `/plan/${id}`,
      name: who.map((client) => client.name).join(say.common.and),
      what: say.today.noDayYet(name),
    })),
  ];
  return (
    <div className="space-y-8">
      {loose.length > 0 && (
        <Section title={say.today.leftOver}>
          <Lines lines={loose} />
        </Section>
      )}
      {away.length > 0 && (
        <Section title={say.today.notHereForLong}>
          <Lines
            lines={away.slice(0, NEXT).map(({ id, name, last }) => ({
              key: id,
              to: `/people/${id}`,
              name,
              what: say.today.lastNoPlan(agoWords(last ?? '', now)),
            }))}
          />
        </Section>
      )}
      <Section title={say.common.nextDays}>
        <Lines
          lines={plans
            .filter(({ startsAt, session }) => startsAt !== null && !session && dayNumber(new Date(startsAt)) > today)
            .toSorted((a, b) => (a.startsAt ?? '').localeCompare(b.startsAt ?? ''))
            .slice(0, NEXT)
            .map(({ id, clients: who, startsAt }) => ({
              key: id,
              to: `/plan/${id}`,
              name: who.map(({ name }) => name).join(say.common.and),
              what: `${dayWords(startsAt ?? '')}, ${timeWords(startsAt ?? '')}`,
            }))}
        />
      </Section>
    </div>
  );
}

/** More lines than these nobody reads beside the day. */
const NEXT = 5;

function Lines({ lines }: { lines: readonly { key: string; to: string; name: string; what: string }[] }) {
  if (lines.length === 0) return <p className="quiet">{say.today.nothingPlanned}</p>;
  return (
    <ul className="ruled">
      {lines.map(({ key, to, name, what }) => (
        <li key={key}>
          <Link to={to} className="hover:bg-base-200 block py-2">
            <span className="block font-semibold">{name}</span>
            <span className="quiet">{what}</span>
          </Link>
        </li>
      ))}
    </ul>
  );
}
