/** The rest of a list that comes page by page. */
import { say } from '../words/say';
export function More({
  query: { hasNextPage, isFetchingNextPage, fetchNextPage },
  what,
}: {
  query: { hasNextPage: boolean; isFetchingNextPage: boolean; fetchNextPage: () => unknown };
  what: string;
}) {
  if (!hasNextPage) return null;
  return (
    <button type="button" className="btn mt-4" disabled={isFetchingNextPage} onClick={() => void fetchNextPage()}>
      {isFetchingNextPage ? say.shell.fetchingMore : say.shell.showMore(what)}
    </button>
  );
}
