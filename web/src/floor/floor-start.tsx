/** The floor before a session: open sessions to go back to, plans to go by, and whom to start one with from nothing. */
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { ClientSummary } from '@waxwing/core/client';
import { MOST_CLIENTS } from '@waxwing/core/planning';
import { clientsQuery, plansQuery, sessionsQuery } from '../api/queries';
import { Await, Empty } from '../shell/states';
import { dayWords, timeWords } from '../words/dates';
import { StartSession } from './start-session';

/** Plans that are offered: the latest ones. */
const PLANS_SHOWN = 6;

export function FloorStart() {
  const { data: open = [] } = useInfiniteQuery({ ...sessionsQuery({ status: 'open' }), staleTime: 0 });
  const busy = new Set(open.flatMap((session) => session.clients.map((client) => client.id)));
  return (
    <div className="mx-auto max-w-4xl p-4 sm:p-6">
      <h1 className="mb-6">Floor</h1>
      {open.length > 0 && (
        <section className="mb-8" aria-labelledby="open-sessions">
          <h2 id="open-sessions" className="border-base-content mb-1 border-b-2 pb-1">
            Still open
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
                    since {dayWords(session.startedAt)}, {timeWords(session.startedAt)}
                  </span>
                </Link>
              </li>
            ))}
          </ul>
        </section>
      )}
      <Planned busy={busy} />
      <Await query={useQuery(clientsQuery)} what="the clients">
        {(clients) =>
          clients.length === 0 ? (
            <Empty title="Nobody to train yet">
              <Link className="btn btn-primary" to="/people">
                To the people
              </Link>
            </Empty>
          ) : (
            <FromNothing clients={clients.filter(({ id }) => !busy.has(id))} />
          )
        }
      </Await>
    </div>
  );
}

/** Plans whose people are all free, the next and the latest first. */
function Planned({ busy }: { busy: ReadonlySet<string> }) {
  const { data: plans = [] } = useInfiniteQuery({ ...plansQuery('plans'), staleTime: 0 });
  const free = plans
    .filter(({ clients }) => clients.every(({ id }) => !busy.has(id)))
    .sort((a, b) => (b.startsAt ?? b.updatedAt).localeCompare(a.startsAt ?? a.updatedAt))
    .slice(0, PLANS_SHOWN);
  if (free.length === 0) return null;
  return (
    <section className="mb-8" aria-labelledby="planned">
      <h2 id="planned" className="border-base-content mb-1 border-b-2 pb-1">
        By a plan
      </h2>
      <ul className="ruled">
        {free.map((plan) => (
          <li key={plan.id} className="flex min-h-16 items-center justify-between gap-4 px-2 py-1">
            <span>
              <span className="text-xl font-semibold">{plan.clients.map(({ name }) => name).join(', ')}</span>
              <span className="quiet block">
                {plan.name} · {plan.minutes} min
                {plan.startsAt && ` · ${dayWords(plan.startsAt)}, ${timeWords(plan.startsAt)}`}
              </span>
            </span>
            <StartSession clientIds={plan.clients.map(({ id }) => id)} planId={plan.id}>
              Start<span className="sr-only"> {plan.name}</span>
            </StartSession>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** One client at a time by one press, or up to four together. */
function FromNothing({ clients }: { clients: readonly ClientSummary[] }) {
  const [chosen, choose] = useState<readonly string[]>([]);
  const turn = (id: string) => choose(chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id]);
  return (
    <section aria-labelledby="start-with">
      <h2 id="start-with" className="border-base-content mb-1 border-b-2 pb-1">
        From nothing, with
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
                Start<span className="sr-only"> with {client.name}</span>
              </StartSession>
            )}
          </li>
        ))}
      </ul>
      {chosen.length > 1 && (
        <p className="mt-4 text-right">
          <StartSession clientIds={[...chosen]}>Start with these {chosen.length}</StartSession>
        </p>
      )}
    </section>
  );
}
