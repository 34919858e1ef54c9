/**
 * Events of sessions: append-only, stored once by id and never changed, a batch in one transaction.
 * A batch with one bad event changes nothing, and its answer names the bad ones, so that a device can keep them apart.
 */
import { randomUUID } from 'node:crypto';

import { Injectable } from '@nestjs/common';
import type { Problem } from '@waxwing/core/schema';
import {
  checkEvent,
  fold,
  isSameEvent,
  type LaterEvents,
  refersTo,
  type SessionEvent,
  stamped,
} from '@waxwing/core/session';
import { DataSource } from 'typeorm';

import { DamageService } from '../database/damage.service.js';
import { WriteGate } from '../database/write-gate.js';
import type { Writer } from '../database/writer.js';
import { LibraryService } from '../movements/library.service.js';
import { invalid, notFound, ProblemException } from '../problems/problem.js';
import { eventText } from '../sealed/sealed-event.js';
import { SessionEntity } from './session.entities.js';

const BOOT = randomUUID();

/** Events of one answer: a long session is sent in pieces. */
export const PIECE = 2_000;

export interface Appended {
  stored: number;
  known: number;
  /** The highest place that the session has now. */
  place: number;
}

interface Row {
  place: number;
  id: string;
  document: string;
}

@Injectable()
export class EventsService {
  constructor(
    private readonly database: DataSource,
    private readonly gate: WriteGate,
    private readonly library: LibraryService,
    private readonly damage: DamageService,
  ) {}

  /** What came after a place, in the order in which it came, at most a piece of it. */
  async after(sessionId: string, place: number, most = PIECE): Promise<LaterEvents> {
    const rows = await this.database.query<Row[]>(
      'SELECT place, id, document FROM events WHERE sessionId = ? AND place > ? ORDER BY place LIMIT ?',
      [sessionId, place, most],
    );
    const [session] = await this.database.query<{ place: number }[]>('SELECT place FROM sessions WHERE id = ?', [
      sessionId,
    ]);
    const last = session?.place ?? 0;
    // The latest of them may be gone with whoever was deleted.
    const to = rows.length < most ? Math.max(place, last) : (rows.at(-1)?.place ?? place);
    return { events: this.read(rows), place: to, last, boot: BOOT };
  }

  /** Every event of a session. */
  async all(sessionId: string): Promise<SessionEvent[]> {
    const sql = 'SELECT place, id, document FROM events WHERE sessionId = ? ORDER BY place';
    return this.read(await this.database.query<Row[]>(sql, [sessionId]));
  }

  /** Which of some ids are not stored in a session. */
  async missing(sessionId: string, ids: readonly string[]): Promise<string[]> {
    const rows = await this.database.query<{ id: string }[]>(
      'SELECT value AS id FROM json_each(?) WHERE NOT EXISTS (SELECT 1 FROM events WHERE events.id = value AND sessionId = ?)',
      [JSON.stringify(ids), sessionId],
    );
    return rows.map(({ id }) => id);
  }

  /**
   * Stores what is new of a batch.
   * @param by the account that sends it
   * @throws 404, 409 when an id is already taken by another event, 422 naming each bad event
   */
  append(sessionId: string, incoming: readonly object[], by: string): Appended {
    return this.gate.write((writer) => {
      const session = writer.get<Pick<SessionEntity, 'startedAt' | 'finishedAt' | 'place'>>(
        'SELECT startedAt, finishedAt, place FROM sessions WHERE id = ?',
        sessionId,
      );
      if (!session) throw notFound('session', sessionId);
      const clientIds = writer
        .all<{ clientId: string }>('SELECT clientId FROM session_clients WHERE sessionId = ?', sessionId)
        .map(({ clientId }) => clientId);
      const events = this.checked(incoming, { sessionId, clientIds }, session.startedAt);
      const fresh = this.fresh(writer, sessionId, events);
      this.checkReferences(writer, sessionId, events, fresh);
      if (fresh.length === 0) return { stored: 0, known: events.length, place: session.place };
      const now = new Date().toISOString();
      let place = session.place;
      for (const event of fresh)
        place =
          writer.get<{ place: number }>(
            'INSERT INTO events (id, sessionId, clientId, document, receivedAt, accountId) VALUES (?, ?, ?, ?, ?, ?) RETURNING place',
            event.id,
            sessionId,
            event.clientId,
            eventText(event, writer.sealer),
            now,
            by,
          )?.place ?? place;
      writer.run('UPDATE sessions SET place = ? WHERE id = ?', place, sessionId);
      // Only these can end a session or open it again.
      if (fresh.some(({ type }) => type === 'session-finished' || type === 'undone')) {
        const sql = `SELECT place, id, document FROM events WHERE sessionId = ? AND json_valid(document)
          AND document ->> 'type' IN ('session-finished', 'undone')`;
        const { finishedAt } = fold(this.read(writer.all<Row>(sql, sessionId)), clientIds);
        if (finishedAt !== session.finishedAt) writer.update(SessionEntity, { id: sessionId }, { finishedAt });
      }
      return { stored: fresh.length, known: events.length - fresh.length, place };
    });
  }

  /** Each event by itself; times that cannot be are replaced by now, a little later for each tap. */
  private checked(
    incoming: readonly object[],
    frame: { sessionId: string; clientIds: readonly string[] },
    startedAt: string,
  ): SessionEvent[] {
    const problems: Problem[] = [];
    const taps = new Map<string, number>();
    const now = Date.now();
    const events = incoming.flatMap((input, i): SessionEvent[] => {
      const checked = checkEvent(input, frame);
      if (checked.ok) {
        const { at } = checked.value;
        taps.set(at, taps.get(at) ?? now + taps.size);
        return [stamped(checked.value, startedAt, taps.get(at) ?? now)];
      }
      problems.push(...at(i, checked.problems));
      return [];
    });
    if (problems.length > 0) throw invalid(problems);
    return events;
  }

  /** What is not stored yet. @throws 409 for an id that another event has */
  private fresh(writer: Writer, sessionId: string, events: readonly SessionEvent[]): SessionEvent[] {
    const stored = writer.all<{ id: string; sessionId: string; document: string }>(
      'SELECT id, sessionId, document FROM events WHERE id IN (SELECT value FROM json_each(?))',
      JSON.stringify(events.map(({ id }) => id)),
    );
    const known = new Map(stored.map((row) => [row.id, row]));
    const fresh = new Map<string, SessionEvent>();
    for (const [i, event] of events.entries()) {
      const row = known.get(event.id);
      const [twin] = row ? this.read([{ place: 0, ...row }]) : [fresh.get(event.id)];
      if (!twin && !row) fresh.set(event.id, event);
      else if (twin && (row?.sessionId ?? sessionId) === sessionId && isSameEvent(unstamped(event), twin)) continue;
      else
        throw new ProblemException(409, 'An event with this id is already stored with other content.', [
          { path: `events[${i}].id`, message: 'is already used by another event' },
        ]);
    }
    return [...fresh.values()];
  }

  /**
   * What a new event is about must be in the library, and in the session. While earlier taps are still on their way here,
   * which the gaps of the logical clock tell, what is not here yet may be among them. @throws 422
   */
  private checkReferences(
    writer: Writer,
    sessionId: string,
    events: readonly SessionEvent[],
    fresh: readonly SessionEvent[],
  ): void {
    const isFresh = new Set(fresh);
    const wanted = fresh.flatMap((event) => refersTo(event).map(({ id }) => id));
    const there = new Set(
      writer
        .all<{ id: string }>(
          'SELECT id FROM events WHERE sessionId = ? AND id IN (SELECT value FROM json_each(?))',
          sessionId,
          JSON.stringify(wanted),
        )
        .map(({ id }) => id),
    );
    for (const { id } of events) there.add(id);
    const problems: Problem[] = [];
    let counters: ReadonlySet<number> | undefined;
    const mayBeOnItsWay = ({ counter }: SessionEvent): boolean => {
      counters ??= new Set([...countersOf(writer, sessionId), ...events.map((event) => event.counter)]);
      for (let n = 1; n < counter; n += 1) if (!counters.has(n)) return true;
      return false;
    };
    events.forEach((event, i) => {
      if (!isFresh.has(event)) return;
      for (const { path, id } of refersTo(event))
        if (!there.has(id) && !mayBeOnItsWay(event))
          problems.push({ path: `events[${i}].${path}`, message: 'is no event of this session' });
      const movementId = movementIn(event);
      if (movementId && !this.library.find(movementId.id))
        problems.push({ path: `events[${i}].${movementId.path}`, message: `no movement "${movementId.id}"` });
    });
    if (problems.length > 0) throw invalid(problems);
  }

  private read(rows: readonly Row[]): SessionEvent[] {
    return rows.flatMap(({ place, id, document }) => {
      const event = this.damage.event(document, id, place);
      return event ? [event] : [];
    });
  }
}

const at = (i: number, problems: readonly Problem[]): Problem[] =>
  problems.map(({ path, message }) => ({ path: `events[${i}]${path ? `.${path}` : ''}`, message }));

/** The counts of the logical clock that are stored of a session. */
const countersOf = (writer: Writer, sessionId: string): number[] =>
  writer
    .all<{ counter: number }>(
      `SELECT document ->> 'counter' AS counter FROM events WHERE sessionId = ? AND json_valid(document)`,
      sessionId,
    )
    .map(({ counter }) => counter);

/** As the device sent it. */
const unstamped = ({ deviceAt, ...event }: SessionEvent): SessionEvent =>
  (deviceAt === undefined ? event : { ...event, at: deviceAt }) as SessionEvent;

function movementIn(event: SessionEvent): { path: string; id: string } | null {
  if (event.type === 'movement-started') return { path: 'data.movementId', id: event.data.movementId };
  if (event.type === 'item-added') return { path: 'data.lane.movementId', id: event.data.lane.movementId };
  return null;
}
