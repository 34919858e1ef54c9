/** A live session on this device: what the server knows and what only this device knows yet, folded into one state. */
import type { SessionView } from '@waxwing/core/formats';
import {
  fold,
  lastTap,
  type EventOf,
  type EventType,
  type SessionEvent,
  type SessionState,
} from '@waxwing/core/session';
import { useQuery } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { sessionQuery } from '../api/queries';
import { eventsHere, keep } from './outbox';

/** Adds an event to the tap and gives its id, for later events of the same tap to refer to. */
export type Recorder = <T extends EventType>(type: T, data: EventOf<T>['data']) => string;

export interface LiveSession {
  view: SessionView;
  state: SessionState;
  /** Records what one tap said about a client; resolves once it is safe on this device. */
  tap: (clientId: string, say: (record: Recorder) => void) => Promise<void>;
  undo: () => Promise<void>;
  /** Set when this device could not write a tap down. */
  failed: string | null;
}

export function useSession(sessionId: string): {
  live: LiveSession | undefined;
  error: Error | null;
  refetch: () => unknown;
} {
  const query = useQuery({ ...sessionQuery(sessionId), staleTime: 0 });
  const [here, setHere] = useState<SessionEvent[]>();
  const [failed, setFailed] = useState<string | null>(null);
  const counter = useRef(0);
  const view = query.data;

  useEffect(() => {
    let current = true;
    void eventsHere(sessionId).then((events) => current && setHere(events));
    return () => {
      current = false;
    };
  }, [sessionId]);

  const state = useMemo(() => {
    if (!view || !here) return undefined;
    return fold(
      [...view.events, ...here],
      view.clients.map((client) => client.id),
    );
  }, [view, here]);

  const tap = useCallback(
    async (clientId: string, say: (record: Recorder) => void): Promise<void> => {
      // All events of a tap share one time: that is how undo knows them again.
      const at = new Date().toISOString();
      const events: SessionEvent[] = [];
      counter.current = Math.max(counter.current, state?.counter ?? 0);
      say((type, data) => {
        const id = uuidv7();
        counter.current += 1;
        events.push({ id, sessionId, clientId, counter: counter.current, at, type, data } as SessionEvent);
        return id;
      });
      try {
        await keep(events);
        setFailed(null);
        setHere((known = []) => [...known, ...events]);
      } catch (error) {
        setFailed(
          `This device could not write the tap down: ${error instanceof Error ? error.message : String(error)}`,
        );
      }
    },
    [sessionId, state?.counter],
  );

  const undo = useCallback(async () => {
    const events = state ? lastTap(state) : [];
    const [first] = events;
    if (first)
      await tap(first.clientId, (record) => {
        for (const event of events) record('undone', { eventId: event.id });
      });
  }, [tap, state]);

  const live = view && state ? { view, state, tap, undo, failed } : undefined;
  return { live, error: query.error, refetch: query.refetch };
}
