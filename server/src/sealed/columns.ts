/** Sealed texts as they lie in the columns of the store. */
import { isSealed, type Sealer } from './sealer.js';

/** A text as it lies in a column: JSON keeps its quotes, so that the column is JSON still. */
export const textIn = (value: string): string => (value.startsWith('"sealed:') ? (JSON.parse(value) as string) : value);

/** The columns that hold JSON. */
export const JSON_COLUMNS = new Set([
  'clients.readiness',
  'clients.today',
  'clients.limits',
  'clients.cleared',
  'digests.document',
]);

/** A text as it is put into a column. */
export function sealedFor(sealer: Sealer, plain: string, table: string, column: string): string {
  const where = `${table}.${column}`;
  const sealed = sealer.seal(plain, where);
  return JSON_COLUMNS.has(where) ? JSON.stringify(sealed) : sealed;
}

/** What such a column holds in plain; undefined where it does not open. */
export function openedFrom(sealer: Sealer, value: string, table: string, column: string): string | undefined {
  const text = textIn(value);
  return isSealed(text) ? sealer.open(text, `${table}.${column}`) : value;
}
