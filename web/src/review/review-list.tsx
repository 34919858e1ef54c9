/** Sessions that are done, latest first. */
import { useInfiniteQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { sessionsQuery } from '../api/queries';
import { More } from '../shell/more';
import { Await, Empty } from '../shell/states';
import { dayWords, minutesBetween, timeWords } from '../words/dates';

export function ReviewList() {
  const query = useInfiniteQuery({ ...sessionsQuery({ status: 'finished' }), staleTime: 0 });
  return (
    <div className="mx-auto max-w-4xl p-4 sm:p-6">
      <h1 className="mb-6">Review</h1>
      <Await query={query} what="the sessions">
        {(sessions) =>
          sessions.length === 0 ? (
            <Empty title="No finished sessions yet">
              <p>What happened in a session shows here when it is finished.</p>
              <Link className="btn btn-primary" to="/floor">
                To the floor
              </Link>
            </Empty>
          ) : (
            <ul className="ruled border-base-content border-t-2">
              {sessions.map((session) => (
                <li key={session.id}>
                  <Link
                    to={`/review/${session.id}`}
                    className="hover:bg-base-200 grid grid-cols-[8rem_1fr_auto] gap-4 px-2 py-3"
                  >
                    <span>
                      {dayWords(session.startedAt)} <span className="quiet">{timeWords(session.startedAt)}</span>
                    </span>
                    <span className="text-lg font-semibold">
                      {session.clients.map((client) => client.name).join(' and ')}
                    </span>
                    <span className="quiet">
                      {session.finishedAt && `${minutesBetween(session.startedAt, session.finishedAt)} min`}
                    </span>
                  </Link>
                </li>
              ))}
            </ul>
          )
        }
      </Await>
      <More query={query} what="sessions" />
    </div>
  );
}
