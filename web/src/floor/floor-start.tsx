/** The floor before a session: open sessions to go back to, plans to go by, and whom to start one with from nothing. */
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import type { ClientSummary } from '@waxwing/core/client';
import { MOST_CLIENTS, type PlanSummary } from '@waxwing/core/planning';
import { useState } from 'react';
import { Link } from 'react-router';

import { clientsQuery, plansBetweenQuery, sessionsQuery } from '../api/queries';
import { Page } from '../shell/page';
import { Await, Empty } from '../shell/states';
import { dayWords, timeWords, today } from '../words/dates';
import { say } from '../words/say';
import { shelve, spanOf } from './plan-shelves';
import { StartSession } from './start-session';

/** Plans of later days, or without a time, that are offered. */
const NEXT_SHOWN = 6;

export function FloorStart() {
  const { data: open = [] } = useInfiniteQuery({ ...sessionsQuery({ status: 'open' }), staleTime: 0 });
  const busy = new Set(open.flatMap((session) => session.clients.map((client) => client.id)));
  const [from, to] = useState(spanOf)[0];
  const plans = useInfiniteQuery({ ...plansBetweenQuery(from, to), staleTime: 0 });
  const clients = useQuery(clientsQuery);
  // Both at once: nothing jumps down under a finger that was about to press it.
  const both = {
    data: plans.data && clients.data && { plans: plans.data, clients: clients.data },
    error: plans.error ?? clients.error,
    refetch: () => Promise.all([plans.refetch(), clients.refetch()]),
  };
  return (
    <Page title={say.common.floor} width="reading">
      {open.length > 0 && (
        <section className="mb-8" aria-labelledby="open-sessions">
          <h2 id="open-sessions" className="border-base-content mb-1 border-b-2 pb-1">
            {say.floor.stillOpen}
          </h2>
          <ul className="ruled">
            {open.map((session) => (
              <li key={session.id}>
                <Link
                  className="hover:bg-base-200 now-band target flex items-center justify-between gap-4 px-3"
                  to={`/floor/${session.id}`}
                >
                  <span className="font-semibold">{session.clients.map((client) => client.name).join(', ')}</span>
                  <span className="quiet text-base">
                    {say.floor.since(dayWords(session.startedAt), timeWords(session.startedAt))}
                  </span>
                </Link>
              </li>
            ))}
          </ul>
        </section>
      )}
      <Await query={both} what={say.common.whoComes}>
        {({ plans: planned, clients: all }) =>
          all.length === 0 ? (
            <Empty title={say.floor.nobodyToTrainYet}>
              <Link className="btn btn-primary" to="/people">
                {say.floor.toThePeople}
              </Link>
            </Empty>
          ) : (
            <>
              <Planned plans={planned} busy={busy} />
              <FromNothing clients={all.filter(({ id }) => !busy.has(id))} />
            </>
          )
        }
      </Await>
    </Page>
  );
}

/** The plans of today by their time, those of the next days, those without a time, and what is done already. */
function Planned({ plans, busy }: { plans: readonly PlanSummary[]; busy: ReadonlySet<string> }) {
  const { todays, done, next, undated } = shelve(plans, busy, today());
  return (
    <>
      <Plans title={say.common.today} plans={todays} when={({ startsAt }) => startsAt && timeWords(startsAt)} />
      <Plans
        title={say.common.nextDays}
        plans={next.slice(0, NEXT_SHOWN)}
        when={({ startsAt }) => startsAt && `${dayWords(startsAt)}, ${timeWords(startsAt)}`}
      />
      <Plans title={say.floor.withoutATime} plans={undated.slice(0, NEXT_SHOWN)} when={() => null} />
      {done.length > 0 && (
        <section className="mb-8" aria-labelledby="done">
          <h2 id="done" className="border-base-content mb-1 border-b-2 pb-1">
            {say.floor.doneToday}
          </h2>
          <ul className="ruled">
            {done.map((plan) => (
              <li key={plan.id}>
                <Link
                  className="hover:bg-base-200 target flex items-center justify-between gap-4 px-2"
                  to={`/review/${plan.session?.id ?? ''}`}
                >
                  <span className="font-semibold">{namesOf(plan)}</span>
                  <span className="quiet text-base">{plan.name}</span>
                </Link>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

function Plans({
  title,
  plans,
  when,
}: {
  title: string;
  plans: readonly PlanSummary[];
  when: (plan: PlanSummary) => string | null;
}) {
  if (plans.length === 0) return null;
  return (
    <section className="mb-8" aria-label={title}>
      <h2 className="border-base-content mb-1 border-b-2 pb-1">{title}</h2>
      <ul className="ruled">
        {plans.map((plan) => (
          <li key={plan.id} className="flex min-h-16 items-center justify-between gap-4 px-2 py-1">
            <span>
              <span className="text-xl font-semibold">{namesOf(plan)}</span>
              <span className="quiet block">
                {[when(plan), plan.name, say.common.inMinutes(plan.minutes)].filter(Boolean).join(' · ')}
              </span>
            </span>
            <StartSession clientIds={plan.clients.map(({ id }) => id)} planId={plan.id}>
              {say.common.start}
              <span className="sr-only"> {plan.name}</span>
            </StartSession>
          </li>
        ))}
      </ul>
    </section>
  );
}

const namesOf = ({ clients }: PlanSummary): string => clients.map(({ name }) => name).join(', ');

/** One client at a time by one press, or up to four together. */
function FromNothing({ clients }: { clients: readonly ClientSummary[] }) {
  const [chosen, choose] = useState<readonly string[]>([]);
  const turn = (id: string) => choose(chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id]);
  return (
    <section aria-labelledby="start-with">
      <h2 id="start-with" className="border-base-content mb-1 border-b-2 pb-1">
        {say.floor.withoutAPlan}
      </h2>
      <ul className="ruled">
        {clients.map((client) => (
          <li key={client.id} className="flex min-h-16 items-center justify-between gap-4 px-2">
            <label className="flex flex-1 cursor-pointer items-center gap-4 py-1">
              <input
                type="checkbox"
                className="checkbox"
                checked={chosen.includes(client.id)}
                disabled={!chosen.includes(client.id) && chosen.length >= MOST_CLIENTS}
                onChange={() => turn(client.id)}
              />
              <span>
                <span className="text-xl font-semibold">{client.name}</span>
                <span className="quiet block">{client.goal}</span>
              </span>
            </label>
            {chosen.length < 2 && (
              <StartSession clientIds={[client.id]}>
                {say.common.start}
                <span className="sr-only">{say.common.with(client.name)}</span>
              </StartSession>
            )}
          </li>
        ))}
      </ul>
      {chosen.length > 1 && (
        <p className="mt-4 text-right">
          <StartSession clientIds={[...chosen]}>{say.floor.startWithThese(chosen.length)}</StartSession>
        </p>
      )}
    </section>
  );
}
