/** A live session on this device: what the server knows, what other devices sent and what only this device knows yet, folded into one state. */
import { useQuery } from '@tanstack/react-query';
import { draft, stampAll } from '@waxwing/core/floor';
import { fold, lastTap, type SessionEvent, type SessionState, type SessionView } from '@waxwing/core/session';
import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { v7 as uuidv7 } from 'uuid';

import { call } from '../api/http';
import { sessionQuery } from '../api/queries';
import { floorClock } from './clock';
import { agree, eventsHere, heardOf, keep, onTapsElsewhere, queueState, subscribeQueue } from './tap-queue';
import type { Tap } from './use-tap';

export interface LiveSession {
  view: SessionView;
  state: SessionState;
  /** Records what one tap said about a client; resolves once it is safe on this device. */
  tap: Tap;
  /** Takes back the last tap. */
  undo: () => Promise<void>;
  /** Takes back some events, whenever they were. */
  takeBack: (events: readonly SessionEvent[]) => Promise<void>;
  /** Asks whether the server has everything, and sends what it misses. */
  settle: () => Promise<void>;
}

/** How often other devices' taps are asked for. */
const LOOK_MS = 3_000;
/** What was read a moment ago is not read again. */
export const JUST_READ_MS = 3_000;
/** A time of this device that is ahead by more came from a clock that was wrong. */
const BELIEVED_MS = 12 * 3_600_000;

export function useSession(sessionId: string): {
  live: LiveSession | undefined;
  error: Error | null;
  refetch: () => unknown;
} {
  // Its address asks for it each time that it is opened.
  const query = useQuery({ ...sessionQuery(sessionId), staleTime: JUST_READ_MS });
  const [made, setMade] = useState<{ sessionId: string; events: readonly SessionEvent[] }>();
  const counter = useRef(0);
  const stamped = useRef(0);
  const view = query.data;
  // What was made for another session is none of this one's.
  const here = made?.sessionId === sessionId ? made.events : undefined;
  const add = useCallback(
    (events: readonly SessionEvent[]) =>
      setMade((known) => ({
        sessionId,
        events: [...(known?.sessionId === sessionId ? known.events : []), ...events],
      })),
    [sessionId],
  );

  useEffect(() => {
    let current = true;
    void eventsHere(sessionId).then((events) => {
      if (!current) return;
      // Whatever this device's clock says now, it is later than its own taps, unless they were made by a clock that was wrong.
      for (const { at } of events) if (Date.parse(at) - Date.now() < BELIEVED_MS) floorClock.atLeast(Date.parse(at));
      add(events);
    });
    const stop = onTapsElsewhere((events) => {
      const own = events.filter((event) => event.sessionId === sessionId);
      if (own.length > 0) add(own);
    });
    return () => {
      current = false;
      stop();
    };
  }, [sessionId, add]);

  const [later, behind] = useLater(sessionId, view);
  const events = useMemo(() => {
    if (!view || !here) return undefined;
    // Most of what this device made has come back from the server, some of it with another time: the server's counts.
    return [...new Map([...here, ...view.events, ...later].map((event) => [event.id, event])).values()];
  }, [view, later, here]);
  const state = useMemo(
    () =>
      view &&
      events &&
      fold(
        events,
        view.clients.map((client) => client.id),
      ),
    [view, events],
  );

  const known = useRef<readonly SessionEvent[]>([]);
  useEffect(() => {
    known.current = events ?? [];
  }, [events]);
  const settle = useCallback(() => agree(sessionId, known.current), [sessionId]);
  const reachable = useSyncExternalStore(subscribeQueue, () => queueState().trouble === null);
  const ready = events !== undefined;
  // When it is opened, when the server is back, and when the server knows less than it told.
  useEffect(() => {
    if (ready && reachable) void settle();
  }, [ready, reachable, behind, settle]);

  const tap = useCallback<Tap>(
    async (clientId, drafts) => {
      if (drafts.length === 0) return;
      // All events of a tap share one time, and no two taps do: that is how undo knows them again.
      const now = floorClock.now();
      const ahead = stamped.current - now;
      const time = ahead >= 0 && ahead < BELIEVED_MS ? stamped.current + 1 : now;
      stamped.current = time;
      const from = Math.max(counter.current, state?.counter ?? 0);
      const made = stampAll(drafts, { sessionId, clientId, counter: from, at: new Date(time).toISOString() });
      counter.current = from + made.length;
      await keep(made, () => add(made));
    },
    [sessionId, state?.counter, add],
  );

  const takeBack = useCallback(
    async (events: readonly SessionEvent[]) => {
      const [first] = events;
      if (first)
        await tap(
          first.clientId,
          events.map((event) => draft(uuidv7(), 'undone', { eventId: event.id })),
        );
    },
    [tap],
  );
  const undo = useCallback(() => takeBack(state ? lastTap(state) : []), [takeBack, state]);

  const live = view && state ? { view, state, tap, undo, takeBack, settle } : undefined;
  return { live, error: query.error, refetch: query.refetch };
}

/** What came to the server since the session was read, from whichever device; and how often it was found to know less than it told before. */
function useLater(sessionId: string, view: SessionView | undefined): [readonly SessionEvent[], number] {
  const [later, setLater] = useState<{ sessionId: string; events: readonly SessionEvent[] }>();
  const [behind, fellBehind] = useState(0);
  const place = useRef(0);
  // A session that is over is not waited for.
  const from = view?.id === sessionId && view.finishedAt === null ? view.place : undefined;
  useEffect(() => {
    if (from === undefined || !view) return undefined;
    heardOf(view, view.last);
    place.current = from;
    let asking = false;
    const look = async () => {
      if (asking || document.hidden) return;
      asking = true;
      try {
        const answer = await call('GET /sessions/{id}/events', {
          id: sessionId,
          query: { after: String(place.current) },
        });
        if (heardOf(view, answer.last)) fellBehind((n) => n + 1);
        place.current = Math.min(answer.place, answer.last);
        if (answer.events.length > 0)
          setLater((known) => ({
            sessionId,
            events: [...(known?.sessionId === sessionId ? known.events : []), ...answer.events],
          }));
      } catch {
        // The server is away, or has forgotten the session; the tap queue says so.
      } finally {
        asking = false;
      }
    };
    const timer = setInterval(() => void look(), LOOK_MS);
    return () => clearInterval(timer);
  }, [sessionId, from, view]);
  return [later?.sessionId === sessionId ? later.events : NONE, behind];
}

const NONE: readonly SessionEvent[] = [];
