/** A live session on this device: what the server knows, what other devices sent and what only this device knows yet, folded into one state. */
import type { LaterEvents, SessionView } from '@waxwing/core/formats';
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
import { call } from '../api/http';
import { sessionQuery } from '../api/queries';
import { floorClock } from './clock';
import { eventsHere, keep, onTapsElsewhere } from './outbox';

/** Adds an event to the tap and gives its id, for later events of the same tap to refer to. */
export type Recorder = <T extends EventType>(type: T, data: EventOf<T>['data']) => string;

export interface LiveSession {
  view: SessionView;
  state: SessionState;
  /** Records what one tap said about a client; resolves once it is safe on this device. */
  tap: (clientId: string, say: (record: Recorder) => void) => Promise<void>;
  /** Takes back the last tap. */
  undo: () => Promise<void>;
  /** Takes back some events, whenever they were. */
  takeBack: (events: readonly SessionEvent[]) => Promise<void>;
}

/** How often other devices' taps are asked for. */
const LOOK_MS = 3_000;

export function useSession(sessionId: string): {
  live: LiveSession | undefined;
  error: Error | null;
  refetch: () => unknown;
} {
  const query = useQuery({ ...sessionQuery(sessionId), staleTime: 0 });
  const [here, setHere] = useState<SessionEvent[]>();
  const counter = useRef(0);
  const stamped = useRef('');
  const view = query.data;

  useEffect(() => {
    let current = true;
    void eventsHere(sessionId).then((events) => {
      if (!current) return;
      // Whatever this device's clock says now, it is later than its own taps.
      for (const { at } of events) floorClock.atLeast(Date.parse(at));
      setHere((known = []) => [...events, ...known]);
    });
    const stop = onTapsElsewhere((events) => {
      const own = events.filter((event) => event.sessionId === sessionId);
      if (own.length > 0) setHere((known = []) => [...known, ...own]);
    });
    return () => {
      current = false;
      stop();
    };
  }, [sessionId]);

  const later = useLater(sessionId, view);
  const state = useMemo(() => {
    if (!view || !here) return undefined;
    // Most of what this device made has come back from the server: each is folded once.
    const once = new Map([...view.events, ...later, ...here].map((event) => [event.id, event]));
    return fold(
      [...once.values()],
      view.clients.map((client) => client.id),
    );
  }, [view, later, here]);

  const tap = useCallback(
    async (clientId: string, say: (record: Recorder) => void): Promise<void> => {
      // All events of a tap share one time, and no two taps do: that is how undo knows them again.
      const now = new Date(floorClock.now()).toISOString();
      const at = now > stamped.current ? now : new Date(Date.parse(stamped.current) + 1).toISOString();
      stamped.current = at;
      const events: SessionEvent[] = [];
      counter.current = Math.max(counter.current, state?.counter ?? 0);
      say((type, data) => {
        const id = uuidv7();
        counter.current += 1;
        events.push({ id, sessionId, clientId, counter: counter.current, at, type, data } as SessionEvent);
        return id;
      });
      await keep(events, () => setHere((known = []) => [...known, ...events]));
    },
    [sessionId, state?.counter],
  );

  const takeBack = useCallback(
    async (events: readonly SessionEvent[]) => {
      const [first] = events;
      if (first)
        await tap(first.clientId, (record) => {
          for (const event of events) record('undone', { eventId: event.id });
        });
    },
    [tap],
  );
  const undo = useCallback(() => takeBack(state ? lastTap(state) : []), [takeBack, state]);

  const live = view && state ? { view, state, tap, undo, takeBack } : undefined;
  return { live, error: query.error, refetch: query.refetch };
}

/** What came to the server since the session was read, from whichever device. */
function useLater(sessionId: string, view: SessionView | undefined): readonly SessionEvent[] {
  const [later, setLater] = useState<readonly SessionEvent[]>([]);
  const place = useRef(0);
  // A session that is over is not waited for.
  const from = view?.finishedAt === null ? view.place : undefined;
  useEffect(() => {
    if (from === undefined) return undefined;
    place.current = Math.max(place.current, from);
    let asking = false;
    const look = async () => {
      if (asking || document.hidden) return;
      asking = true;
      try {
        const answer = await call<LaterEvents>('GET', `/sessions/${sessionId}/events?after=${place.current}`);
        place.current = answer.place;
        if (answer.events.length > 0) setLater((known) => [...known, ...answer.events]);
      } catch {
        // The server is away; the outbox says so.
      } finally {
        asking = false;
      }
    };
    const timer = setInterval(() => void look(), LOOK_MS);
    return () => clearInterval(timer);
  }, [sessionId, from]);
  return later;
}
