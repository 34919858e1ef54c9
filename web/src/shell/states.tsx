/** What a screen shows when it has nothing to show yet, nothing at all, or something went wrong. */
import type { ReactNode } from 'react';
import { isRouteErrorResponse, Link, useRouteError } from 'react-router';

import { ProblemError } from '../api/http';
import { say } from '../words/say';

export const Loading = ({ what }: { what: string }) => (
  <p role="status" className="quiet p-8 text-lg">
    {say.shell.fetching(what)}
  </p>
);

export const Empty = ({ title, children }: { title: string; children?: ReactNode }) => (
  <div className="max-w-xl px-6 py-12">
    <h2 className="mb-2">{title}</h2>
    <div className="quiet space-y-4 text-lg">{children}</div>
  </div>
);

/** An error with what can be done about it. */
export function Failed({ error, retry }: { error: Error; retry?: () => void }) {
  const status = error instanceof ProblemError ? error.status : -1;
  const title =
    status === 0 ? say.shell.serverAway : status === 404 ? say.shell.thereIsNothingHere : say.shell.thisDidNotWork;
  return (
    <div role="alert" className="max-w-xl px-6 py-12">
      <h2 className="mb-2">{title}</h2>
      <p className="quiet mb-4 text-lg">
        {status === 0
          ? say.shell.checkThatWaxwingIsStill
          : status === 404
            ? say.shell.theAddressMayBeMistyped
            : error.message}
      </p>
      {status === 404 ? (
        <Link className="btn btn-primary" to="/">
          {say.shell.toToday}
        </Link>
      ) : (
        retry && (
          <button type="button" className="btn btn-primary" onClick={retry}>
            {say.shell.tryAgain}
          </button>
        )
      )}
    </div>
  );
}

/** What went wrong with something that was just pressed, beside it; nothing when all is well. */
export const Wrong = ({ error }: { error: Error | null }) =>
  error && (
    <p role="alert" className="text-error mt-2 first-letter:uppercase">
      {error.message}
    </p>
  );

/** An address that leads nowhere, or a screen that broke. */
export function BrokenScreen() {
  const error = useRouteError();
  if (error instanceof ProblemError) return <Failed error={error} retry={() => window.location.reload()} />;
  const missing = !error || (isRouteErrorResponse(error) && error.status === 404);
  return (
    <Empty title={missing ? say.shell.thereIsNoSuchPage : say.shell.thisScreenBroke}>
      <p>{missing ? say.shell.theAddressMayBeMistyped : say.shell.reloadThePageNothingThat}</p>
      <Link className="btn btn-primary" to="/library">
        {say.common.toTheLibrary}
      </Link>
    </Empty>
  );
}

/** One query's data, or its loading or error state. */
export function Await<T>({
  query,
  what,
  children,
}: {
  query: { data: T | undefined; error: Error | null; refetch: () => unknown };
  what: string;
  children: (data: T) => ReactNode;
}) {
  if (query.data !== undefined) return children(query.data);
  if (query.error) return <Failed error={query.error} retry={() => void query.refetch()} />;
  return <Loading what={what} />;
}
