/** The floor before a session: open sessions to go back to, and whom to start one with. */
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { clientsQuery, sessionsQuery } from '../api/queries';
import { Await, Empty } from '../shell/states';
import { dayWords, timeWords } from '../words/dates';
import { StartSession } from './start-session';

export function FloorStart() {
  const { data: open = [] } = useQuery({ ...sessionsQuery({ status: 'open' }), staleTime: 0 });
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
      <Await query={useQuery(clientsQuery)} what="the clients">
        {(clients) =>
          clients.length === 0 ? (
            <Empty title="Nobody to train yet">
              <Link className="btn btn-primary" to="/people">
                To the people
              </Link>
            </Empty>
          ) : (
            <section aria-labelledby="start-with">
              <h2 id="start-with" className="border-base-content mb-1 border-b-2 pb-1">
                Start with
              </h2>
              <ul className="ruled">
                {clients
                  .filter((client) => !busy.has(client.id))
                  .map((client) => (
                    <li key={client.id} className="flex min-h-16 items-center justify-between gap-4 px-2">
                      <span>
                        <span className="text-xl font-semibold">{client.name}</span>
                        <span className="quiet block">{client.goal}</span>
                      </span>
                      <StartSession clientIds={[client.id]}>
                        Start<span className="sr-only"> with {client.name}</span>
                      </StartSession>
                    </li>
                  ))}
              </ul>
            </section>
          )
        }
      </Await>
    </div>
  );
}
