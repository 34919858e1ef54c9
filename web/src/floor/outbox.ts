/**
 * The outbox: every tap is written to this device first, and only then shown and sent.
 * Events stay here until the server has them and beyond, so that a reload, a stopped server or a lost network loses nothing.
 */
import { byClock, type SessionEvent } from '@waxwing/core/session';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { call, ProblemError } from '../api/http';

type Fate = 'waiting' | 'sent' | 'refused';

interface Stored {
  event: SessionEvent;
  fate: Fate;
  /** Why the server refused it. */
  why?: string;
}

interface OutboxSchema extends DBSchema {
  events: { key: string; value: Stored; indexes: { bySession: string; byFate: Fate } };
}

/** What the trainer is told of the queue. */
export interface OutboxState {
  waiting: number;
  refused: number;
  why: string | null;
  reachable: boolean;
}

const BATCH = 200;
const RETRY_FIRST_MS = 1_000;
const RETRY_MOST_MS = 15_000;

let opened: Promise<IDBPDatabase<OutboxSchema>> | undefined;
const database = () =>
  (opened ??= openDB<OutboxSchema>('waxwing-outbox', 1, {
    upgrade(db) {
      const events = db.createObjectStore('events', { keyPath: 'event.id' });
      events.createIndex('bySession', 'event.sessionId');
      events.createIndex('byFate', 'fate');
    },
  }));

let state: OutboxState = { waiting: 0, refused: 0, why: null, reachable: true };
const listeners = new Set<() => void>();

export const outboxState = (): OutboxState => state;

export function subscribeOutbox(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

async function tell(reachable: boolean): Promise<void> {
  const db = await database();
  const [waiting, refused] = await Promise.all([
    db.countFromIndex('events', 'byFate', 'waiting'),
    db.getAllFromIndex('events', 'byFate', 'refused'),
  ]);
  state = { waiting, refused: refused.length, why: refused[0]?.why ?? null, reachable };
  for (const listener of listeners) listener();
}

/** Events of a session that this device has made, sent or not. */
export async function eventsHere(sessionId: string): Promise<SessionEvent[]> {
  const stored = await (await database()).getAllFromIndex('events', 'bySession', sessionId);
  return stored.map(({ event }) => event);
}

/** Writes the events of one tap to this device, all or none; the promise resolves when they cannot be lost any more. Sending follows on its own. */
export async function keep(events: readonly SessionEvent[]): Promise<void> {
  const transaction = (await database()).transaction('events', 'readwrite', { durability: 'strict' });
  await Promise.all([
    ...events.map((event) => transaction.store.put({ event, fate: 'waiting' as const })),
    transaction.done,
  ]);
  await tell(state.reachable);
  void flushOutbox();
}

let flushing: Promise<void> | undefined;
let again = false;
let retry: ReturnType<typeof setTimeout> | undefined;
let pause = RETRY_FIRST_MS;

/** Sends what is waiting, oldest first; tries again by itself while the server does not answer. */
export function flushOutbox(): Promise<void> {
  again = true;
  return (flushing ??= sendAll().finally(() => {
    flushing = undefined;
    // A tap that came after the last look and before this moment found a sender that was already done.
    if (again && state.reachable) void flushOutbox();
  }));
}

async function sendAll(): Promise<void> {
  clearTimeout(retry);
  while (again) {
    again = false;
    const waiting = await (await database()).getAllFromIndex('events', 'byFate', 'waiting');
    for (const sessionId of new Set(waiting.map(({ event }) => event.sessionId))) {
      const events = waiting.map(({ event }) => event).filter((event) => event.sessionId === sessionId);
      events.sort(byClock);
      for (let i = 0; i < events.length; i += BATCH)
        if (!(await send(sessionId, events.slice(i, i + BATCH)))) {
          await tell(false);
          retry = setTimeout(() => void flushOutbox(), pause);
          pause = Math.min(pause * 2, RETRY_MOST_MS);
          return;
        }
    }
  }
  pause = RETRY_FIRST_MS;
  await tell(true);
}

/** Sends one batch. What the server refuses is set aside with its reason, and the rest goes again. False when nothing answered. */
async function send(sessionId: string, events: readonly SessionEvent[]): Promise<boolean> {
  if (events.length === 0) return true;
  try {
    await call('POST', `/sessions/${sessionId}/events`, { events });
    await mark(events, 'sent');
    return true;
  } catch (error) {
    if (!(error instanceof ProblemError) || error.status === 0 || error.status >= 500) return false;
    const bad = new Map(
      error.errors.map(({ path, message }) => [Number(/^events\[(\d+)\]/.exec(path)?.[1] ?? NaN), message]),
    );
    const refused = events.filter((_, i) => bad.has(i));
    // An answer that names none of them refuses the whole batch: nothing is dropped, all of it is shown as refused.
    await mark(refused.length > 0 ? refused : events, 'refused', [...bad.values()][0] ?? error.message);
    return send(sessionId, refused.length > 0 ? events.filter((_, i) => !bad.has(i)) : []);
  }
}

async function mark(events: readonly SessionEvent[], fate: Fate, why?: string): Promise<void> {
  const transaction = (await database()).transaction('events', 'readwrite');
  await Promise.all([
    ...events.map((event) => transaction.store.put(why === undefined ? { event, fate } : { event, fate, why })),
    transaction.done,
  ]);
  await tell(true);
}

/** Gives refused events another chance, after the trainer has put the cause right. */
export async function sendRefusedAgain(): Promise<void> {
  const db = await database();
  const refused = await db.getAllFromIndex('events', 'byFate', 'refused');
  await Promise.all(refused.map(({ event }) => db.put('events', { event, fate: 'waiting' })));
  await flushOutbox();
}

if (typeof window !== 'undefined') window.addEventListener('online', () => void flushOutbox());
