/** Starts a session with some clients and goes to the floor, or back to the one that is still open. */
import { useInfiniteQuery, useMutation, useQueryClient } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { Link, useNavigate } from 'react-router';
import { v7 as uuidv7 } from 'uuid';

import { call } from '../api/http';
import { sessionKeys } from '../api/keys';
import { sessionQuery, sessionsQuery } from '../api/queries';
import { say } from '../words/say';

export function StartSession({
  clientIds,
  planId,
  quiet = false,
  children,
}: {
  clientIds: string[];
  /** The plan to go by. */
  planId?: string;
  /** Where it is not the next thing to do. */
  quiet?: boolean;
  children: ReactNode;
}) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [clientId] = clientIds;
  const { data: open = [], isPending } = useInfiniteQuery(
    sessionsQuery({ ...(clientId ? { clientId } : {}), status: 'open' }),
  );
  const start = useMutation({
    mutationFn: () =>
      call('POST /sessions', { body: { id: uuidv7(), clientIds, planId, startedAt: new Date().toISOString() } }),
    onSuccess: async (session) => {
      queries.setQueryData(sessionQuery(session.id).queryKey, session);
      void queries.invalidateQueries({ queryKey: sessionKeys.lists });
      await navigate(`/floor/${session.id}`);
    },
  });
  const running = open[0];
  if (running)
    return (
      <Link className="btn btn-primary" to={`/floor/${running.id}`}>
        {say.floor.backToTheOpenSession}
      </Link>
    );
  return (
    <span>
      {/* Until it is known whether one is open, a second one is not started by the way. */}
      <button
        type="button"
        className={`btn ${quiet ? '' : 'btn-primary'}`}
        disabled={isPending || start.isPending}
        onClick={() => start.mutate()}
      >
        {children}
      </button>
      {start.error && (
        <span role="alert" className="text-error block max-w-xs text-sm">
          {start.error.message}
        </span>
      )}
    </span>
  );
}
