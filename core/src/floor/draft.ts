/** What one tap means, before it has a time and a place: drafts of events. The floor says what happened; the device stamps and keeps it. */
import type { EventOf, EventType, SessionEvent } from '../session/events.js';

export type Draft = { [T in EventType]: { id: string; type: T; data: EventOf<T>['data'] } }[EventType];

/** Makes an id that no other event has. */
export type NewId = () => string;

export const draft = <T extends EventType>(id: string, type: T, data: EventOf<T>['data']): Draft =>
  ({ id, type, data }) as Draft;

/** Drafts of one tap as events: all have its time, and each the next count of the logical clock. */
export const stampAll = (
  drafts: readonly Draft[],
  { sessionId, clientId, counter, at }: { sessionId: string; clientId: string; counter: number; at: string },
): SessionEvent[] =>
  drafts.map((one, i) => ({ ...one, sessionId, clientId, counter: counter + 1 + i, at }) as SessionEvent);
