import 'fake-indexeddb/auto';

import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import type { SessionEvent } from '@waxwing/core/session';
import { IDBFactory } from 'fake-indexeddb';

type Queue = typeof import('./tap-queue');

/** A server of the kind that the queue meets: there, away, or refusing some events. */
class FakeServer {
  stored = new Map<string, SessionEvent>();
  requests = 0;
  away = false;
  /** Answers everything with this status: it is there, and cannot save. */
  fails = 0;
  /** It came back from a copy without the session. */
  forgotten = false;
  erased = new Set<string>();
  refuse: (event: SessionEvent) => boolean = () => false;

  answer = (url: string, init?: RequestInit): Promise<Response> => {
    this.requests += 1;
    if (this.away) return Promise.reject(new TypeError('network'));
    if (this.fails) return Promise.resolve(Response.json({ detail: 'no' }, { status: this.fails }));
    const body = JSON.parse(String(init?.body)) as { events: SessionEvent[]; ids: string[] };
    if (url.endsWith('/sessions')) {
      this.forgotten = false;
      return Promise.resolve(Response.json({}, { status: 201 }));
    }
    if (url.endsWith('/erased'))
      return Promise.resolve(Response.json({ erased: body.ids.filter((id) => this.erased.has(id)) }));
    if (this.forgotten) return Promise.resolve(Response.json({ detail: 'no such session' }, { status: 404 }));
    if (url.endsWith('/missing'))
      return Promise.resolve(Response.json({ missing: body.ids.filter((id) => !this.stored.has(id)) }));
    const { events } = body;
    const errors = events.flatMap((event, i) =>
      this.refuse(event) ? [{ path: `events[${i}].at`, message: 'is too far from now' }] : [],
    );
    if (errors.length > 0) return Promise.resolve(Response.json({ detail: 'wrong', errors }, { status: 422 }));
    for (const event of events) this.stored.set(event.id, event);
    return Promise.resolve(Response.json({ stored: events.length, known: 0, place: this.stored.size }));
  };
}

const event = (n: number, text = String(n)): SessionEvent => ({
  id: `event-${n}`,
  sessionId: 'session',
  clientId: 'client',
  counter: n,
  at: '2030-01-01T10:00:00.000Z',
  type: 'note-written',
  data: { text },
});

let server: FakeServer;
let queue: Queue;
/** A page that was closed and opened again has fresh modules over the same database. */
const openPage = async () => {
  jest.resetModules();
  queue = await import('./tap-queue');
};

beforeEach(async () => {
  jest.useFakeTimers({ doNotFake: ['setImmediate', 'queueMicrotask', 'nextTick'] });
  globalThis.indexedDB = new IDBFactory();
  server = new FakeServer();
  globalThis.fetch = server.answer as unknown as typeof fetch;
  await openPage();
});
afterEach(() => void jest.useRealTimers());

const ids = (events: Iterable<{ id: string }>) => [...events].map(({ id }) => id);

describe('the tap queue', () => {
  test('sends taps in order and keeps them on the device', async () => {
    await queue.keep([event(2), event(1)]);
    await queue.keep([event(3)]);
    await queue.flushTaps();
    expect(ids(server.stored.values())).toEqual(['event-1', 'event-2', 'event-3']);
    expect(ids(await queue.eventsHere('session')).sort()).toEqual(['event-1', 'event-2', 'event-3']);
    expect(queue.queueState()).toEqual({ waiting: 0, unwritten: 0, refused: 0, why: null, trouble: null });
  });

  test('writes what is private down sealed, an earlier version’s taps too, and when the key has ended nobody reads it', async () => {
    const written = () =>
      new Promise<unknown[]>((resolve) => {
        const opening = indexedDB.open('waxwing-outbox');
        opening.onsuccess = () => {
          const all = opening.result.transaction('events').objectStore('events').getAll();
          all.onsuccess = () => resolve(all.result as unknown[]);
        };
      });
    server.away = true;
    await queue.keep([event(1, 'sore after the fall')]);
    await new Promise<void>((resolve) => {
      const opening = indexedDB.open('waxwing-outbox');
      opening.onsuccess = () => {
        const store = opening.result.transaction('events', 'readwrite').objectStore('events');
        store.put({ event: event(2, 'an old fall'), fate: 'waiting' }).onsuccess = () => resolve();
      };
    });
    expect(JSON.stringify(await written())).toContain('an old fall');
    await queue.dropTaps(new Set());
    expect(JSON.stringify(await written())).not.toContain('fall');
    await openPage();
    expect((await queue.eventsHere('session')).map(({ data }) => data)).toEqual([
      { text: 'sore after the fall' },
      { text: 'an old fall' },
    ]);
    const { endKey } = await import('./device-key');
    await endKey();
    await openPage();
    expect(await queue.eventsHere('session')).toEqual([]);
    // A page that goes on when another one has ended the key seals with the next.
    await queue.keep([event(3, 'once more')]);
    jest.resetModules();
    await (await import('./device-key')).endKey();
    await queue.keep([event(4, 'after it')]);
    await openPage();
    expect((await queue.eventsHere('session')).map(({ data }) => data)).toEqual([{ text: 'after it' }]);
  });

  test('sends a tap by itself that is made in whichever moment the one before is done with', async () => {
    // A tap at each turn of the sender's work, the last of them when it is about to end.
    for (let turns = 0; turns < 40; turns += 1) {
      const before = server.stored.size;
      await queue.keep([event(1000 + 2 * turns)]);
      for (let i = 0; i < turns; i += 1) await new Promise(setImmediate);
      await queue.keep([event(1001 + 2 * turns)]);
      for (let i = 0; i < 20_000 && queue.queueState().waiting > 0; i += 1) await new Promise(setImmediate);
      expect([turns, server.stored.size - before]).toEqual([turns, 2]);
    }
  });

  test('loses nothing while the server is away, not even when the page is closed, and sends by itself later', async () => {
    server.away = true;
    await queue.keep([event(1)]);
    await queue.flushTaps();
    expect(queue.queueState()).toMatchObject({ waiting: 1, trouble: 'away' });
    await openPage();
    await queue.keep([event(2)]);
    await queue.flushTaps();
    expect(ids(await queue.eventsHere('session'))).toEqual(['event-1', 'event-2']);
    server.away = false;
    const sent = new Promise<void>((resolve) =>
      queue.subscribeQueue(() => queue.queueState().waiting === 0 && resolve()),
    );
    await jest.advanceTimersByTimeAsync(20_000);
    await sent;
    expect(ids(server.stored.values())).toEqual(['event-1', 'event-2']);
    expect(queue.queueState()).toMatchObject({ waiting: 0, trouble: null });
  });

  test('tells a full disk and a failing server from one that is away, and sends by itself when there is room', async () => {
    for (const [status, trouble] of [
      [507, 'full'],
      [500, 'failing'],
    ] as const) {
      server.fails = status;
      await queue.keep([event(status)]);
      await queue.flushTaps();
      expect(queue.queueState()).toMatchObject({ refused: 0, trouble });
    }
    expect(queue.queueState().waiting).toBe(2);
    server.fails = 0;
    const sent = new Promise<void>((resolve) =>
      queue.subscribeQueue(() => queue.queueState().waiting === 0 && resolve()),
    );
    await jest.advanceTimersByTimeAsync(20_000);
    await sent;
    expect(ids(server.stored.values())).toEqual(['event-500', 'event-507']);
  });

  test('sets a refused tap aside with its reason, sends the others, and tries it again when told to', async () => {
    server.refuse = ({ id }) => id === 'event-2';
    await queue.keep([event(1), event(2), event(3)]);
    await queue.flushTaps();
    expect(ids(server.stored.values())).toEqual(['event-1', 'event-3']);
    expect(queue.queueState()).toMatchObject({ waiting: 0, refused: 1, why: 'is too far from now' });
    server.refuse = () => false;
    await queue.sendRefusedAgain();
    expect(server.stored.has('event-2')).toBe(true);
    expect(queue.queueState()).toMatchObject({ refused: 0 });
  });

  test('offers what was refused once more by itself, after the server took what it may have rested on', async () => {
    server.refuse = ({ id }) => id === 'event-2' && !server.stored.has('event-1');
    await queue.keep([event(2)]);
    await queue.flushTaps();
    expect(queue.queueState()).toMatchObject({ refused: 1, waiting: 0 });
    await queue.keep([event(1)]);
    await queue.flushTaps();
    expect(ids(server.stored.values()).sort()).toEqual(['event-1', 'event-2']);
    expect(queue.queueState()).toMatchObject({ refused: 0, waiting: 0 });
  });
});

describe('what the server has', () => {
  const head = {
    id: 'session',
    startedAt: '2030-01-01T09:00:00.000Z',
    clients: [{ id: 'client', name: 'A' }],
    programme: null,
  };

  test('is asked for, and all is called saved only when that is known', async () => {
    await queue.keep([event(1), event(2)]);
    await queue.flushTaps();
    expect(queue.isAgreed('session')).toBe(false);
    await queue.agree('session', []);
    expect(queue.isAgreed('session')).toBe(true);
    server.away = true;
    await queue.keep([event(3)]);
    await queue.flushTaps();
    expect(queue.isAgreed('session')).toBe(false);
  });

  test('is sent again when the server came back from an older copy, whoever made it', async () => {
    await queue.keep([event(1), event(2), event(3)]);
    await queue.flushTaps();
    const other = { ...event(4), id: 'of-another-device' };
    server.stored.delete('event-2');
    server.stored.delete('event-3');
    expect(queue.heardOf(head, 1)).toBe(true);
    await queue.agree('session', [other]);
    expect(ids(server.stored.values()).sort()).toEqual(['event-1', 'event-2', 'event-3', 'of-another-device']);
    expect(queue.queueState()).toMatchObject({ waiting: 0, refused: 0 });
  });

  test('is brought back whole when the session itself is gone there', async () => {
    queue.heardOf(head, 0);
    await queue.keep([event(1), event(2)]);
    await queue.flushTaps();
    server.stored.clear();
    server.forgotten = true;
    await queue.agree('session', []);
    expect(ids(server.stored.values())).toEqual(['event-1', 'event-2']);
  });

  test('is held in memory when the storage of the page is wiped meanwhile', async () => {
    server.away = true;
    await queue.keep([event(1), event(2)]);
    await queue.flushTaps();
    globalThis.indexedDB = new IDBFactory();
    expect(queue.queueState().waiting).toBe(2);
    await queue.keep([event(3)]);
    expect(queue.queueState().waiting).toBe(3);
    server.away = false;
    await queue.flushTaps();
    expect(ids(server.stored.values())).toEqual(['event-1', 'event-2', 'event-3']);
  });

  test('of somebody who was deleted for good is not sent back, and goes from here', async () => {
    await queue.keep([event(1)]);
    await queue.flushTaps();
    server.stored.clear();
    server.erased.add('client');
    await queue.agree('session', []);
    expect(server.stored.size).toBe(0);
    expect(await queue.eventsHere('session')).toEqual([]);
  });
});
