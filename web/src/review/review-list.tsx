/** Sessions that are done, latest first. */
import { useInfiniteQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { sessionsQuery } from '../api/queries';
import { useMovementName } from '../library/use-movement-name';
import { Ledger } from '../shell/ledger';
import { More } from '../shell/more';
import { Page } from '../shell/page';
import { Await, Empty } from '../shell/states';
import { dayWords, minutesBetween, timeWords } from '../words/dates';
import { someOf } from '../words/names';

export function ReviewList() {
  const query = useInfiniteQuery({ ...sessionsQuery({ status: 'finished' }), staleTime: 0 });
  const nameOf = useMovementName();
  return (
    <Page title="Review">
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
            <Ledger
              label="Sessions"
              columns="11rem minmax(9rem, 1fr) 2fr 5rem"
              rows={sessions.map(({ id, startedAt, finishedAt, clients, movements }) => ({
                key: id,
                to: `/review/${id}`,
                lead: `${dayWords(startedAt)}, ${timeWords(startedAt)}`,
                name: clients.map(({ name }) => name).join(' and '),
                about: someOf(movements.map(nameOf)),
                aside: finishedAt && `${minutesBetween(startedAt, finishedAt)} min`,
              }))}
            />
          )
        }
      </Await>
      <More query={query} what="sessions" />
    </Page>
  );
}
