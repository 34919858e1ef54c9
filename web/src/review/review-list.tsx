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
import { say } from '../words/say';

export function ReviewList() {
  const query = useInfiniteQuery({ ...sessionsQuery({ status: 'finished' }), staleTime: 0 });
  const nameOf = useMovementName();
  return (
    <Page title={say.common.review}>
      <Await query={query} what={say.review.theSessions}>
        {(sessions) =>
          sessions.length === 0 ? (
            <Empty title={say.review.noFinishedSessionsYet}>
              <p>{say.review.whatHappenedInASession}</p>
              <Link className="btn btn-primary" to="/floor">
                {say.common.toTheFloor}
              </Link>
            </Empty>
          ) : (
            <Ledger
              label={say.common.sessions}
              columns="11rem minmax(9rem, 1fr) 2fr 5rem"
              rows={sessions.map(({ id, startedAt, finishedAt, clients, movements }) => ({
                key: id,
                to: `/review/${id}`,
                lead: `${dayWords(startedAt)}, ${timeWords(startedAt)}`,
                name: clients.map(({ name }) => name).join(say.common.and),
                about: someOf(movements.map(nameOf)),
                aside: finishedAt && say.common.inMinutes(minutesBetween(startedAt, finishedAt)),
              }))}
            />
          )
        }
      </Await>
      <More query={query} what={say.common.sessionsWord} />
    </Page>
  );
}
