/**
 * Events that say something of somebody's health, or hold a note: their data lies sealed within the JSON of the event. The rest of it stays
 * plain, so that the store can order and find it.
 */
import { isTold, type SessionEvent } from '@waxwing/core/session';

import { parsed } from '../database/json-column.js';
import { isSealed, type Sealer } from './sealer.js';

const WHERE = 'events.data';

/** As SQL over `document`: what may have to be sealed, or is. Words that only look like it cost a look. */
export const MAY_BE_TOLD = ['"pain-reported"', '"note-written"', '"despite"', '"why":"', '"sealed:']
  .map((word) => `instr(document, '${word}') > 0`)
  .join(' OR ');

/** What an event is known by: it opens in its own place of its own session only, and for nobody else. */
const rowOf = ({ id, sessionId, clientId }: Pick<SessionEvent, 'id' | 'sessionId' | 'clientId'>): string =>
  [id, sessionId, clientId].join('/');

/** An event as it is stored. */
export const eventText = (event: SessionEvent, sealer: Sealer): string =>
  JSON.stringify(
    isTold(event) ? { ...event, data: sealer.seal(JSON.stringify(event.data), WHERE, rowOf(event)) } : event,
  );

/** A stored event; undefined for one that is damaged, or whose key is not here. */
export function eventFrom(text: string, sealer: Sealer): SessionEvent | undefined {
  const event = parsed(text) as (Omit<SessionEvent, 'data'> & { data: unknown }) | undefined;
  if (!isSealed(event?.data)) return event as SessionEvent | undefined;
  const plain = sealer.open(event.data, WHERE, rowOf(event));
  const data = plain === undefined ? undefined : parsed(plain);
  return data === undefined ? undefined : ({ ...event, data } as SessionEvent);
}

/** A stored event sealed with the key that seals now; null where it is so already, or cannot be. @param lost thrown for a key that is not here */
export function resealed(text: string, sealer: Sealer, lost: Error | null): string | null {
  const data = (parsed(text) as { data?: unknown } | undefined)?.data;
  if (isSealed(data)) {
    if (lost && !sealer.knows(data)) throw lost;
    if (sealer.isCurrent(data)) return null;
  }
  const event = eventFrom(text, sealer);
  if (!event) return null;
  return isTold(event) ? eventText(event, sealer) : null;
}
