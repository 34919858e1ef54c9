/**
 * The tap queue: every tap is written to this device first, and only then shown and sent.
 * Events stay here beyond that, because an answer is not the last word: a server may come back from an older copy.
 * So this device asks what the server really has, and sends what is missing again. Only then is all of it saved.
 */
import { byClock, isTold, type SessionEvent, type SessionView } from '@waxwing/core/session';
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';

import { call, isRefusal, ProblemError, type Trouble, troubleOf } from '../api/http';
import { openHere, type SealedHere, sealHere } from './device-key';

type Fate = 'waiting' | 'sent' | 'refused';

interface Stored {
  event: SessionEvent;
  fate: Fate;
  /** Why the server refused it. */
  why?: string;
}

/** The same as it is written down: the data of what says something private is sealed. */
interface Written extends Omit<Stored, 'event'> {
  event: Omit<SessionEvent, 'data'> & { data?: unknown };
  sealed?: SealedHere;
}

interface QueueSchema extends DBSchema {
  events: { key: string; value: Written; indexes: { bySession: string; byFate: Fate } };
}

async function toWrite(one: Stored): Promise<Written> {
  if (!isTold(one.event)) return one;
  const { data, ...event } = one.event;
  return { ...one, event, sealed: await sealHere(data) };
}

/** What was written down; what cannot be opened any more is left out. */
const asRead = async (all: readonly Written[]): Promise<Stored[]> =>
  (
    await Promise.all(
      all.map(async ({ sealed, ...one }): Promise<Stored[]> => {
        if (!sealed) return [one as Stored];
        const data = await openHere(sealed).catch(() => undefined);
        return data === undefined ? [] : [{ ...one, event: { ...one.event, data } as SessionEvent }];
      }),
    )
  ).flat();

/** What the trainer is told of the queue. */
export interface QueueState {
  waiting: number;
  /** Taps that this device would not write down: they are held in memory only, and lost when the page is closed before they are sent. */
  unwritten: number;
  refused: number;
  why: string | null;
  /** Why nothing is taken in now; null while taps get through. */
  trouble: Trouble | null;
}

const BATCH = 200;
const RETRY_FIRST_MS = 1_000;
const RETRY_MOST_MS = 15_000;
/** How long events stay here after the server has them. */
const KEPT_MS = 14 * 86_400_000;
/** Ids asked for in one request. */
const ASKED = 2_000;

let opened: Promise<IDBPDatabase<QueueSchema>> | undefined;
const database = (): Promise<IDBPDatabase<QueueSchema>> =>
  // Another try each time: storage that was refused may be allowed later.
  // The name is as old as the taps that lie there.
  (opened ??= openDB<QueueSchema>('waxwing-outbox', 1, {
    upgrade(db) {
      const events = db.createObjectStore('events', { keyPath: 'event.id' });
      events.createIndex('bySession', 'event.sessionId');
      events.createIndex('byFate', 'fate');
    },
  }).catch((error: unknown) => {
    opened = undefined;
    throw error;
  }));

let state: QueueState = { waiting: 0, unwritten: 0, refused: 0, why: null, trouble: null };
const listeners = new Set<() => void>();

export const queueState = (): QueueState => state;

export function subscribeQueue(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Everything that this page made or sends again, by id: what is stored may be wiped while the page is open. */
const held = new Map<string, Stored>();
/** Ids of those that are not written down here. */
const unwritten = new Set<string>();

/** What is stored with a fate, with what is only in memory; a storage that cannot be read has nothing. */
async function all(fate: Fate): Promise<Stored[]> {
  const written = await database()
    .then((db) => db.getAllFromIndex('events', 'byFate', fate))
    .then(asRead)
    .catch((): Stored[] => []);
  const byId = new Map(written.map((one) => [one.event.id, one]));
  for (const [id, one] of held)
    if (one.fate === fate) byId.set(id, one);
    else byId.delete(id);
  return [...byId.values()];
}

/** The same, but ids only: an hour without a server leaves many waiting, and they are counted at every tap. */
async function idsOf(fate: Fate): Promise<Set<string>> {
  const written = await database()
    .then((db) => db.getAllKeysFromIndex('events', 'byFate', fate))
    .catch(() => []);
  const ids = new Set(written);
  for (const [id, one] of held)
    if (one.fate === fate) ids.add(id);
    else ids.delete(id);
  return ids;
}

async function tell(trouble: Trouble | null): Promise<void> {
  const [waiting, refused] = await Promise.all([idsOf('waiting'), idsOf('refused')]);
  if (trouble) agreed.clear();
  setState({
    waiting: waiting.size,
    unwritten: [...unwritten].filter((id) => held.get(id)?.fate !== 'sent').length,
    refused: refused.size,
    why: refused.size > 0 ? ((await all('refused'))[0]?.why ?? null) : null,
    trouble,
  });
}

function setState(next: QueueState): void {
  state = next;
  for (const listener of listeners) listener();
}

/** Events of a session that this device has made, sent or not. */
export async function eventsHere(sessionId: string): Promise<SessionEvent[]> {
  const stored = await database()
    .then((db) => db.getAllFromIndex('events', 'bySession', sessionId))
    .then(asRead)
    .catch((): Stored[] => []);
  const byId = new Map([...stored, ...held.values()].map(({ event }) => [event.id, event]));
  return [...byId.values()].filter((event) => event.sessionId === sessionId);
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
  await put(events.map((event) => ({ event, fate: 'waiting' })));
  safe();
  channel?.postMessage(events);
  await tell(state.trouble);
  void flushTaps();
}

/** Holds and writes down; what cannot be written is remembered as such. */
async function put(entries: readonly Stored[]): Promise<void> {
  for (const one of entries) held.set(one.event.id, one);
  try {
    // A transaction ends by itself while something else is waited for: what is sealed is sealed before.
    const written = await Promise.all(entries.map(toWrite));
    const transaction = (await database()).transaction('events', 'readwrite', { durability: 'strict' });
    await Promise.all([...written.map((one) => transaction.store.put(one)), transaction.done]);
    for (const { event } of entries) unwritten.delete(event.id);
  } catch {
    for (const { event } of entries) unwritten.add(event.id);
  }
}

let flushing: Promise<void> | undefined;
let again = false;
/** Taps that the server took since refused ones were offered to it. */
let took = 0;
let retry: ReturnType<typeof setTimeout> | undefined;
let pause = RETRY_FIRST_MS;

/** Sends what is waiting, oldest first; tries again by itself while the server does not answer. */
export function flushTaps(): Promise<void> {
  again = true;
  return (flushing ??= sendAll().finally(() => {
    flushing = undefined;
    // A tap that came after the last look and before this moment found a sender that was already done.
    if (again && !state.trouble) void flushTaps();
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
      for (let i = 0; i < events.length; i += BATCH) {
        const trouble = await send(sessionId, events.slice(i, i + BATCH));
        if (trouble) return tryLater(trouble);
      }
    }
    // What the server would not take may have rested on what it has only now.
    if (took > 0 && (await offerRefused())) again = true;
    took = 0;
  }
  pause = RETRY_FIRST_MS;
  await tell(null);
}

async function tryLater(trouble: Trouble): Promise<void> {
  await tell(trouble);
  clearTimeout(retry);
  retry = setTimeout(() => void flushTaps(), pause);
  pause = Math.min(pause * 2, RETRY_MOST_MS);
}

/** Sends one batch. What the server refuses is set aside with its reason, and the rest goes again. @returns why it must be tried later, or null */
async function send(sessionId: string, events: readonly SessionEvent[]): Promise<Trouble | null> {
  if (events.length === 0) return null;
  try {
    const { place } = await call('POST /sessions/{id}/events', { id: sessionId, body: { events: [...events] } });
    told.set(sessionId, Math.max(told.get(sessionId) ?? 0, place));
    took += events.length;
    await mark(events, 'sent');
    return null;
  } catch (error) {
    if (!isRefusal(error)) return troubleOf(error);
    if (error.status === 404 && (await startAgain(sessionId))) return send(sessionId, events);
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
  await put(events.map((event): Stored => (why === undefined ? { event, fate } : { event, fate, why })));
  await tell(null);
}

/** Makes refused events wait once more; false when there are none. */
async function offerRefused(): Promise<boolean> {
  const refused = await all('refused');
  if (refused.length > 0)
    await mark(
      refused.map(({ event }) => event),
      'waiting',
    );
  return refused.length > 0;
}

/** Gives refused events another chance, after the trainer has put the cause right. */
export async function sendRefusedAgain(): Promise<void> {
  await offerRefused();
  await flushTaps();
}

/** Sessions as they began, for a server that has forgotten them. */
const heads = new Map<string, Pick<SessionView, 'id' | 'startedAt' | 'clients' | 'programme'>>();
/** The highest place that the server has told of each session. */
const told = new Map<string, number>();
/** Sessions of which the server was found to have everything that is known here. A server that was away may come back from an older copy. */
const agreed = new Set<string>();

/** Whether all that is known here of a session was found on the server, and nothing is on its way. */
export const isAgreed = (sessionId: string): boolean => agreed.has(sessionId) && state.waiting === 0;

/** Starts a session anew under its own id, as it was begun. False when this device does not know how, or the server will not. */
async function startAgain(sessionId: string): Promise<boolean> {
  const head = heads.get(sessionId);
  if (!head) return false;
  try {
    await call('POST /sessions', {
      body: {
        id: sessionId,
        clientIds: head.clients.map(({ id }) => id),
        startedAt: head.startedAt,
        again: true,
        ...(head.programme ? { programme: head.programme } : {}),
      },
    });
    return true;
  } catch {
    return false;
  }
}

/** Tells the queue of a session that is on the screen, and of the place that an answer gave. True when the server is behind what it told before. */
export function heardOf(view: Pick<SessionView, 'id' | 'startedAt' | 'clients' | 'programme'>, last: number): boolean {
  heads.set(view.id, view);
  const behind = last < (told.get(view.id) ?? 0);
  if (!behind) told.set(view.id, last);
  return behind;
}

/**
 * Asks which events of a session the server really has, and sends again what it misses, whoever made it.
 * @param known everything that the page knows of the session
 */
export async function agree(sessionId: string, known: readonly SessionEvent[]): Promise<void> {
  const here = await eventsHere(sessionId);
  const byId = new Map([...here, ...known].map((event) => [event.id, event]));
  const [waiting, refused] = await Promise.all([idsOf('waiting'), idsOf('refused')]);
  const ids = [...byId.keys()].filter((id) => !waiting.has(id) && !refused.has(id));
  try {
    for (let i = 0; i < ids.length; i += ASKED) {
      const missing = await missingOf(sessionId, ids.slice(i, i + ASKED));
      const events = missing.flatMap((id) => byId.get(id) ?? []);
      if (events.length === 0) continue;
      // What was deleted for good is missing as well, and must not come back.
      const erased = await erasedOf([sessionId, ...new Set(events.map(({ clientId }) => clientId))]);
      if (erased.size > 0) await dropTaps(erased);
      // The server is behind: what it told before counts no more.
      told.delete(sessionId);
      await mark(
        events.filter(({ clientId }) => !erased.has(clientId) && !erased.has(sessionId)),
        'waiting',
      );
    }
    agreed.add(sessionId);
    await tell(null);
    await flushTaps();
  } catch (error) {
    // Sending is tried again by itself, and asking follows it.
    await tryLater(troubleOf(error));
  }
}

/** Which of some people and sessions were deleted for good. @throws ProblemError while the server is away */
export async function erasedOf(ids: readonly string[]): Promise<Set<string>> {
  const erased = new Set<string>();
  for (let i = 0; i < ids.length; i += ASKED) {
    const answer = await call('POST /erased', { body: { ids: ids.slice(i, i + ASKED) } });
    for (const id of answer.erased) erased.add(id);
  }
  return erased;
}

async function missingOf(sessionId: string, ids: string[]): Promise<string[]> {
  if (ids.length === 0) return [];
  try {
    return (await call('POST /sessions/{id}/events/missing', { id: sessionId, body: { ids } })).missing;
  } catch (error) {
    // The whole session is gone there.
    if (error instanceof ProblemError && error.status === 404) return ids;
    throw error;
  }
}

/** Ids of everybody and every session of which something lies here. */
export async function idsHere(): Promise<string[]> {
  const stored = await database()
    .then((db) => db.getAll('events'))
    .catch((): Written[] => []);
  return [...new Set(stored.flatMap(({ event }) => [event.clientId, event.sessionId]))];
}

/** Takes away what was deleted for good, and what the server has had for long; seals what is private and was not. */
export async function dropTaps(erased: ReadonlySet<string>): Promise<void> {
  const db = await database().catch(() => null);
  const stored = (await db?.getAll('events').catch((): Written[] => [])) ?? [];
  const old = new Date(Date.now() - KEPT_MS).toISOString();
  for (const one of stored) {
    const { event, fate, sealed } = one;
    const gone = erased.has(event.clientId) || erased.has(event.sessionId);
    if (!gone && !(fate === 'sent' && event.at < old)) {
      // An earlier version wrote it down as it was.
      if (!sealed && isTold(event as SessionEvent))
        await toWrite(one as Stored)
          .then((written) => db?.put('events', written))
          .catch(() => undefined);
      continue;
    }
    held.delete(event.id);
    unwritten.delete(event.id);
    await db?.delete('events', event.id).catch(() => undefined);
  }
  await tell(state.trouble);
}

/** Every event that the server does not have for certain yet. */
export async function unsentTaps(): Promise<SessionEvent[]> {
  const [waiting, refused] = await Promise.all([all('waiting'), all('refused')]);
  return [...waiting, ...refused].map(({ event }) => event);
}

/** Takes everything away that lies here. */
export async function emptyQueue(): Promise<void> {
  held.clear();
  unwritten.clear();
  heads.clear();
  told.clear();
  await database()
    .then((db) => db.clear('events'))
    .catch(() => undefined);
  await tell(null);
}

if (typeof window !== 'undefined') window.addEventListener('online', () => void flushTaps());
