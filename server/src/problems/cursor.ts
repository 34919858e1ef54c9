/** Lists come page by page; a cursor says where the page before ended. */
import { invalid } from './problem.js';

export interface Page<T> {
  items: T[];
  nextCursor: string | null;
}

export const cursorOf = (...parts: readonly (string | number)[]): string => parts.join(',');

/** The parts of a cursor; null for the first page. @throws 422 for one that no page gave */
export function readCursor(cursor: string | undefined, parts: number): string[] | null {
  if (cursor === undefined || cursor === '') return null;
  const found = cursor.split(',');
  if (found.length !== parts) throw invalid([{ path: 'cursor', message: 'is not the nextCursor of a page' }]);
  return found;
}
