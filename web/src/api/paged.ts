/** Lists that come page by page. */
import { infiniteQueryOptions } from '@tanstack/react-query';

interface Page<T> {
  items: T[];
  nextCursor: string | null;
}

/**
 * A list that comes page by page.
 * @param ask for the page after a cursor, or the first
 */
export const paged = <T>(queryKey: readonly unknown[], ask: (after: { cursor?: string }) => Promise<Page<T>>) =>
  infiniteQueryOptions({
    queryKey,
    queryFn: ({ pageParam }) => ask(pageParam ? { cursor: pageParam } : {}),
    initialPageParam: '',
    getNextPageParam: ({ nextCursor }) => nextCursor,
    select: ({ pages }) => pages.flatMap(({ items }) => items),
  });
