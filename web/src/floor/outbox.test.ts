import 'fake-indexeddb/auto';
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { IDBFactory } from 'fake-indexeddb';
import type { SessionEvent } from '@waxwing/core/session';

type Outbox = typeof import('./outbox');

/** A server of the kind that the outbox meets: there, away, or refusing some events. */
class FakeServer {
  stored = new Map<string, SessionEvent>();
  requests = 0;
  away = false;
  refuse: (event: SessionEvent) => boolean = () => false;

  answer = (_: unknown, init?: RequestInit): Promise<Response> => {
    this.requests += 1;
    if (this.away) return Promise.reject(new TypeError('network'));
    const { events } = JSON.parse(String(init?.body)) as { events: SessionEvent[] };
    const errors = events.flatMap((event, i) =>
      this.refuse(event) ? [{ path: `events[${i}].at`, message: 'is too far from now' }] : [],
    );
    if (errors.length > 0) return Promise.resolve(Response.json({ detail: 'wrong', errors }, { status: 422 }));
    for (const event of events) this.stored.set(event.id, event);
    return Promise.resolve(Response.json({ stored: events.length, known: 0 }));
  };
}

const event = (n: number): SessionEvent => ({
  id: `event-${n}`,
  sessionId: 'session',
  clientId: 'client',
  counter: n,
  at: '2030-01-01T10:00:00.000Z',
  type: 'note-written',
  data: { text: String(n) },
});

let server: FakeServer;
let outbox: Outbox;
/** A page that was closed and opened again has fresh modules over the same database. */
const openPage = async () => {
  jest.resetModules();
  outbox = await import('./outbox');
};

beforeEach(async () => {
  jest.useFakeTimers({ doNotFake: ['setImmediate', 'queueMicrotask', 'nextTick'] });
  globalThis.indexedDB = new IDBFactory();
  server = new FakeServer();
  globalThis.fetch = server.answer as typeof fetch;
  await openPage();
});
afterEach(() => void jest.useRealTimers());

const ids = (events: Iterable<{ id: string }>) => [...events].map(({ id }) => id);

describe('the outbox', () => {
  test('sends taps in order and keeps them on the device', async () => {
    await outbox.keep([event(2), event(1)]);
    await outbox.keep([event(3)]);
    await outbox.flushOutbox();
    expect(ids(server.stored.values())).toEqual(['event-1', 'event-2', 'event-3']);
    expect(ids(await outbox.eventsHere('session')).sort()).toEqual(['event-1', 'event-2', 'event-3']);
    expect(outbox.outboxState()).toEqual({ waiting: 0, unwritten: 0, refused: 0, why: null, reachable: true });
  });

  test('sends a tap by itself that is made in whichever moment the one before is done with', async () => {
    // A tap at each turn of the sender's work, the last of them when it is about to end.
    for (let turns = 0; turns < 40; turns += 1) {
      const before = server.stored.size;
      await outbox.keep([event(1000 + 2 * turns)]);
      for (let i = 0; i < turns; i += 1) await new Promise(setImmediate);
      await outbox.keep([event(1001 + 2 * turns)]);
      for (let i = 0; i < 400 && outbox.outboxState().waiting > 0; i += 1) await new Promise(setImmediate);
      expect([turns, server.stored.size - before]).toEqual([turns, 2]);
    }
  });

  test('loses nothing while the server is away, not even when the page is closed, and sends by itself later', async () => {
    server.away = true;
    await outbox.keep([event(1)]);
    await outbox.flushOutbox();
    expect(outbox.outboxState()).toMatchObject({ waiting: 1, reachable: false });
    await openPage();
    await outbox.keep([event(2)]);
    await outbox.flushOutbox();
    expect(ids(await outbox.eventsHere('session'))).toEqual(['event-1', 'event-2']);
    server.away = false;
    const sent = new Promise<void>((resolve) =>
      outbox.subscribeOutbox(() => outbox.outboxState().waiting === 0 && resolve()),
    );
    await jest.advanceTimersByTimeAsync(20_000);
    await sent;
    expect(ids(server.stored.values())).toEqual(['event-1', 'event-2']);
    expect(outbox.outboxState()).toMatchObject({ waiting: 0, reachable: true });
  });

  test('sets a refused tap aside with its reason, sends the others, and tries it again when told to', async () => {
    server.refuse = ({ id }) => id === 'event-2';
    await outbox.keep([event(1), event(2), event(3)]);
    await outbox.flushOutbox();
    expect(ids(server.stored.values())).toEqual(['event-1', 'event-3']);
    expect(outbox.outboxState()).toMatchObject({ waiting: 0, refused: 1, why: 'is too far from now' });
    server.refuse = () => false;
    await outbox.sendRefusedAgain();
    expect(server.stored.has('event-2')).toBe(true);
    expect(outbox.outboxState()).toMatchObject({ refused: 0 });
  });
});
