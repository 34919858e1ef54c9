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
  /** Taps that this device would not write down: they are held in memory only, and lost when the page is closed before they are sent. */
  unwritten: number;
  refused: number;
  why: string | null;
  reachable: boolean;
}

const BATCH = 200;
const RETRY_FIRST_MS = 1_000;
const RETRY_MOST_MS = 15_000;

let opened: Promise<IDBPDatabase<OutboxSchema>> | undefined;
const database = (): Promise<IDBPDatabase<OutboxSchema>> =>
  // Another try each time: storage that was refused may be allowed later.
  (opened ??= openDB<OutboxSchema>('waxwing-outbox', 1, {
    upgrade(db) {
      const events = db.createObjectStore('events', { keyPath: 'event.id' });
      events.createIndex('bySession', 'event.sessionId');
      events.createIndex('byFate', 'fate');
    },
  }).catch((error: unknown) => {
    opened = undefined;
    throw error;
  }));

let state: OutboxState = { waiting: 0, unwritten: 0, refused: 0, why: null, reachable: true };
const listeners = new Set<() => void>();

export const outboxState = (): OutboxState => state;

export function subscribeOutbox(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Events that could not be written down, by id: storage may be refused or full. */
const unwritten = new Map<string, Stored>();

/** What is stored with a fate, with what is only in memory; a storage that cannot be read has nothing. */
async function all(fate: Fate): Promise<Stored[]> {
  const written = await database()
    .then((db) => db.getAllFromIndex('events', 'byFate', fate))
    .catch(() => []);
  return [...written, ...[...unwritten.values()].filter((one) => one.fate === fate)];
}

async function tell(reachable: boolean): Promise<void> {
  // Counted, not read: an hour without a server leaves many waiting.
  const written = database()
    .then((db) => db.countFromIndex('events', 'byFate', 'waiting'))
    .catch(() => 0);
  const [waiting, refused] = await Promise.all([written, all('refused')]);
  const held = [...unwritten.values()].map(({ fate }) => fate);
  setState({
    waiting: waiting + held.filter((fate) => fate === 'waiting').length,
    unwritten: held.filter((fate) => fate !== 'sent').length,
    refused: refused.length,
    why: refused[0]?.why ?? null,
    reachable,
  });
}

function setState(next: OutboxState): void {
  state = next;
  for (const listener of listeners) listener();
}

/** Events of a session that this device has made, sent or not. */
export async function eventsHere(sessionId: string): Promise<SessionEvent[]> {
  const stored = await database()
    .then((db) => db.getAllFromIndex('events', 'bySession', sessionId))
    .catch(() => []);
  return [...stored, ...unwritten.values()].map(({ event }) => event).filter((event) => event.sessionId === sessionId);
}

/** Everything that this device holds of a session, as a file to keep: for when it cannot be written down or sent. */
export async function exportOf(sessionId: string): Promise<Blob> {
  const events = (await eventsHere(sessionId)).sort(byClock);
  return new Blob([JSON.stringify({ sessionId, events }, null, 1)], { type: 'application/json' });
}

/** Tells other pages of this device of a tap, so that two of them show one session. */
const channel = typeof window === 'undefined' ? undefined : new BroadcastChannel('waxwing-taps');

/** Calls back with taps that another page of this device has made. */
export function onTapsElsewhere(heard: (events: SessionEvent[]) => void): () => void {
  const listen = ({ data }: MessageEvent<SessionEvent[]>) => heard(data);
  channel?.addEventListener('message', listen);
  return () => channel?.removeEventListener('message', listen);
}

/**
 * Writes the events of one tap to this device, all or none; the promise resolves when they cannot be lost any more. Sending follows on its own.
 * @param safe called as soon as that is so, before anything else is done
 * Where the device will not write, they are held in memory and sent all the same, and the state says so.
 */
export async function keep(events: readonly SessionEvent[], safe: () => void = () => undefined): Promise<void> {
  // Never says that all is saved while a tap is on its way.
  setState({ ...state, waiting: state.waiting + events.length });
  try {
    await write(events.map((event) => ({ event, fate: 'waiting' })));
  } catch {
    for (const event of events) unwritten.set(event.id, { event, fate: 'waiting' });
  }
  safe();
  channel?.postMessage(events);
  await tell(state.reachable);
  void flushOutbox();
}

async function write(entries: readonly Stored[]): Promise<void> {
  const transaction = (await database()).transaction('events', 'readwrite', { durability: 'strict' });
  await Promise.all([...entries.map((one) => transaction.store.put(one)), transaction.done]);
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
    const waiting = await all('waiting');
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
  const entries = events.map((event): Stored => (why === undefined ? { event, fate } : { event, fate, why }));
  for (const one of entries) if (unwritten.has(one.event.id)) unwritten.set(one.event.id, one);
  try {
    // What was only in memory is written down now if that has become possible.
    await write(entries);
    for (const { event } of entries) unwritten.delete(event.id);
  } catch {
    for (const one of entries) unwritten.set(one.event.id, one);
  }
  await tell(true);
}

/** Gives refused events another chance, after the trainer has put the cause right. */
export async function sendRefusedAgain(): Promise<void> {
  const refused = await all('refused');
  await mark(
    refused.map(({ event }) => event),
    'waiting',
  );
  await flushOutbox();
}

if (typeof window !== 'undefined') window.addEventListener('online', () => void flushOutbox());
