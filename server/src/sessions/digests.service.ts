/**
 * What sessions teach, kept as digests: made once, made anew only when a session's events change, so that no answer folds old sessions again.
 * Everybody's outcomes of a correction are kept as one sum, each trial at the weight that it had at a fixed time: they all fade alike.
 */
import { Injectable, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import type { Counted, Trial } from '@waxwing/core/coaching';
import { type Digest, DIGEST_VERSION, digestOf, fold, type SessionEvent } from '@waxwing/core/session';
import { DataSource } from 'typeorm';

import { isFull, StudioFolder } from '../database/studio-folder.js';
import { WriteGate } from '../database/write-gate.js';
import type { Writer } from '../database/writer.js';
import { LibraryService } from '../movements/library.service.js';
import { EventsService } from './events.service.js';
import { count, digestIn, faded, forgetDigests, weighed } from './kept-digests.js';
import { DigestEntity } from './session.entities.js';

/** What is less than this is nothing. */
const LEAST = 1e-6;

/** Sessions digested before others have a turn. */
const BATCH = 20;
/** A session that is under way changes all the time: it is digested when it has been quiet for so long. */
const QUIET_MS = 60_000;
/** How often is looked for such sessions. */
const LOOK_MS = 10_000;

const CLIENTS_OF = 'SELECT clientId FROM session_clients WHERE sessionId = ?';

@Injectable()
export class DigestsService implements OnApplicationBootstrap, OnApplicationShutdown {
  private timer: NodeJS.Timeout | undefined;
  private stopped = false;

  constructor(
    private readonly database: DataSource,
    private readonly gate: WriteGate,
    private readonly events: EventsService,
    private readonly library: LibraryService,
    private readonly folder: StudioFolder,
  ) {}

  onApplicationBootstrap(): void {
    this.later(0);
  }

  onApplicationShutdown(): void {
    this.stopped = true;
    clearTimeout(this.timer);
  }

  /** Something was added for which nobody should wait a minute. */
  soon(): void {
    clearTimeout(this.timer);
    this.later(0);
  }

  /**
   * Every digest of a client, none of them older than their sessions.
   * @returns also those of them that are counted among everybody's outcomes: a full disk keeps none, and still nothing is unanswered
   */
  async ofClient(clientId: string): Promise<{ own: Digest[]; counted: Digest[] }> {
    const stale = await this.database.query<{ id: string }[]>(
      `SELECT id FROM sessions WHERE id IN (SELECT sessionId FROM session_clients WHERE clientId = ?) AND digested <> place`,
      [clientId],
    );
    const unkept = new Map<string, Digest | undefined>();
    for (const { id } of stale) {
      const { digests, kept } = await this.digest(id);
      if (!kept) unkept.set(id, digests.get(clientId));
    }
    const rows = await this.database.query<{ sessionId: string; version: number; document: string }[]>(
      'SELECT sessionId, version, document FROM digests WHERE clientId = ?',
      [clientId],
    );
    const counted = new Map<string, Digest>();
    for (const { sessionId, version, document } of rows) {
      const kept =
        version === DIGEST_VERSION ? digestIn(document, this.folder.sealer, { clientId, sessionId }) : undefined;
      // One that is damaged, or of an earlier version, is made anew.
      const digest = kept ?? (await this.digest(sessionId)).digests.get(clientId);
      if (digest) counted.set(sessionId, digest);
    }
    const own = new Map<string, Digest | undefined>([...counted, ...unkept]);
    return { own: [...own.values()].flatMap((digest) => digest ?? []), counted: [...counted.values()] };
  }

  /** What was done in some sessions, as far as it is worked out already: by session, each movement once. */
  async doneIn(sessionIds: readonly string[]): Promise<ReadonlyMap<string, ReadonlySet<string>>> {
    const rows = await this.database.query<{ clientId: string; sessionId: string; document: string }[]>(
      'SELECT clientId, sessionId, document FROM digests WHERE version = ? AND sessionId IN (SELECT value FROM json_each(?))',
      [DIGEST_VERSION, JSON.stringify(sessionIds)],
    );
    const done = new Map<string, Set<string>>();
    for (const { clientId, sessionId, document } of rows) {
      const movements = Object.keys(digestIn(document, this.folder.sealer, { clientId, sessionId })?.sets ?? {});
      done.set(sessionId, new Set([...(done.get(sessionId) ?? []), ...movements]));
    }
    return done;
  }

  /**
   * Everybody else's outcomes of each correction, faded to now.
   * @param own trials of one client that are counted among everybody's
   */
  async others(own: readonly Trial[], now: string): Promise<Record<string, Counted>> {
    const sums = await this.database.query<{ correction: string; worked: number; total: number }[]>(
      'SELECT correction, worked, total FROM outcomes',
    );
    const mine = weighed(own);
    const scale = faded(now);
    return Object.fromEntries(
      sums.flatMap(({ correction, worked, total }): [string, Counted][] => {
        const less = mine.get(correction) ?? { worked: 0, total: 0 };
        const left = { worked: Math.max(0, (worked - less.worked) * scale), total: (total - less.total) * scale };
        return left.total > LEAST ? [[correction, left]] : [];
      }),
    );
  }

  /** Makes the digests of a session anew. @returns them by client, and whether they could be kept */
  private async digest(sessionId: string): Promise<{ digests: Map<string, Digest>; kept: boolean }> {
    const events = await this.events.all(sessionId);
    try {
      return { digests: this.keep(sessionId, events), kept: true };
    } catch (error) {
      if (!isFull(error)) throw error;
      const clients = await this.database.query<{ clientId: string }[]>(CLIENTS_OF, [sessionId]);
      return { digests: this.made(events, clients), kept: false };
    }
  }

  private made(events: readonly SessionEvent[], clients: readonly { clientId: string }[]): Map<string, Digest> {
    const { lanes } = fold(
      events,
      clients.map(({ clientId }) => clientId),
    );
    return new Map(
      Object.values(lanes)
        .filter(({ entries, pains, notes }) => entries.length + pains.length + notes.length > 0)
        .map((lane) => [lane.clientId, digestOf(lane, this.library.find)]),
    );
  }

  private keep(sessionId: string, events: readonly SessionEvent[]): Map<string, Digest> {
    return this.gate.write((writer) => {
      const session = writer.get<{ place: number }>('SELECT place FROM sessions WHERE id = ?', sessionId);
      if (!session) return new Map<string, Digest>();
      const digests = this.made(events, writer.all<{ clientId: string }>(CLIENTS_OF, sessionId));
      forgetDigests(writer, sessionId);
      for (const [clientId, document] of digests)
        writer.insert(DigestEntity, { clientId, sessionId, version: DIGEST_VERSION, document });
      count(
        writer,
        [...digests.values()].flatMap(({ trials }) => trials),
        1,
      );
      // Events that came in between are seen by their place.
      const last = events.length > 0 ? placeOf(writer, sessionId, events.at(-1)?.id ?? '') : 0;
      writer.run('UPDATE sessions SET digested = ? WHERE id = ?', last ?? session.place, sessionId);
      return digests;
    });
  }

  /** Sessions that have been quiet for a while are digested by themselves, a few at a time. */
  private later(milliseconds: number): void {
    if (this.stopped) return;
    this.timer = setTimeout(() => void this.catchUp(), milliseconds).unref();
  }

  private async catchUp(): Promise<void> {
    try {
      const quiet = new Date(Date.now() - QUIET_MS).toISOString();
      const stale = await this.database.query<{ id: string }[]>(
        `SELECT id FROM sessions WHERE digested <> place
         AND (finishedAt IS NOT NULL OR coalesce((SELECT receivedAt FROM events WHERE events.place = sessions.place), '') < ?) LIMIT ?`,
        [quiet, BATCH],
      );
      for (const { id } of stale) {
        if (this.stopped) return;
        await this.digest(id);
        // Taps come between any two.
        await new Promise(setImmediate);
      }
      this.later(stale.length === BATCH ? 0 : LOOK_MS);
    } catch {
      // The disk is full, or the like; answers digest what they need themselves.
      this.later(LOOK_MS);
    }
  }
}

const placeOf = (writer: Writer, sessionId: string, id: string): number | undefined =>
  writer.get<{ place: number }>('SELECT place FROM events WHERE sessionId = ? AND id = ?', sessionId, id)?.place;
