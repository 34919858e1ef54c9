/** What a screen shows when it has nothing to show yet, nothing at all, or something went wrong. */
import type { ReactNode } from 'react';
import { isRouteErrorResponse, Link, useRouteError } from 'react-router';
import { ProblemError } from '../api/http';

export const Loading = ({ what }: { what: string }) => (
  <p role="status" className="quiet p-8 text-lg">
    Fetching {what} …
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
    status === 0 ? 'The server does not answer' : status === 404 ? 'There is nothing here' : 'This did not work';
  return (
    <div role="alert" className="max-w-xl px-6 py-12">
      <h2 className="mb-2">{title}</h2>
      <p className="quiet mb-4 text-lg">
        {status === 0
          ? 'Check that Waxwing is still running on the machine that serves it. Nothing that you tapped is lost.'
          : error.message}
      </p>
      {retry && (
        <button type="button" className="btn btn-primary" onClick={retry}>
          Try again
        </button>
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
    <Empty title={missing ? 'There is no such page' : 'This screen broke'}>
      <p>
        {missing
          ? 'The address may be mistyped, or what it showed is gone.'
          : 'Reload the page. Nothing that you tapped is lost.'}
      </p>
      <Link className="btn btn-primary" to="/library">
        To the library
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
