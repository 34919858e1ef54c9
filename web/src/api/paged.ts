/** Lists that come page by page. */
import { infiniteQueryOptions } from '@tanstack/react-query';
import { call } from './http';

interface Page<T> {
  items: T[];
  nextCursor: string | null;
}

/** A list that comes page by page. */
export const paged = <T>(queryKey: readonly unknown[], path: string, filter: Record<string, string> = {}) =>
  infiniteQueryOptions({
    queryKey,
    queryFn: ({ pageParam }) =>
      call<Page<T>>('GET', `${path}?${new URLSearchParams(pageParam ? { ...filter, cursor: pageParam } : filter)}`),
    initialPageParam: '',
    getNextPageParam: ({ nextCursor }) => nextCursor,
    select: ({ pages }) => pages.flatMap(({ items }) => items),
  });
