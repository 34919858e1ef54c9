/** Sets as rows, of a session or of a client: what is done with them elsewhere is the trainer's business. */
import { Injectable } from '@nestjs/common';
import { type SetRow, setRows } from '@waxwing/core/formats';
import { fold } from '@waxwing/core/session';
import { DataSource } from 'typeorm';

import { ClientsService } from '../clients/clients.service.js';
import { LibraryService } from '../movements/library.service.js';
import { cursorOf, type Page, readCursor } from '../problems/cursor.js';
import { EventsService } from './events.service.js';
import { SessionsService } from './sessions.service.js';

@Injectable()
export class SetsService {
  constructor(
    private readonly database: DataSource,
    private readonly sessions: SessionsService,
    private readonly events: EventsService,
    private readonly clients: ClientsService,
    private readonly library: LibraryService,
  ) {}

  /** @throws 404 */
  async ofSession(id: string): Promise<SetRow[]> {
    const { clients } = await this.sessions.session(id);
    const names = new Map(clients.map((client) => [client.id, client.name]));
    const state = fold(await this.events.all(id), [...names.keys()]);
    return setRows(state, id, (clientId) => names.get(clientId) ?? '', this.library.find);
  }

  /** Sets of a client, the latest session first: whole sessions, until there are at least `limit` rows. @throws 404 */
  async ofClient(id: string, limit: number, cursor?: string): Promise<Page<SetRow>> {
    const { name } = await this.clients.read(id);
    let after = readCursor(cursor, 2);
    const items: SetRow[] = [];
    for (;;) {
      const [session] = await this.database.query<{ id: string; startedAt: string }[]>(
        `SELECT id, startedAt FROM sessions
         WHERE id IN (SELECT sessionId FROM session_clients WHERE clientId = ?) AND (startedAt, id) < (?, ?)
         ORDER BY startedAt DESC, id DESC LIMIT 1`,
        [id, ...(after ?? [LAST, LAST])],
      );
      if (!session) return { items, nextCursor: null };
      if (items.length >= limit) return { items, nextCursor: after && cursorOf(...after) };
      const { lanes } = fold(await this.events.all(session.id), [id]);
      items.push(...setRows({ lanes }, session.id, () => name, this.library.find).reverse());
      after = [session.startedAt, session.id];
    }
  }

  /** All of them, the earliest first. @throws 404 */
  async allOfClient(id: string): Promise<SetRow[]> {
    const rows: SetRow[] = [];
    let cursor: string | undefined;
    do {
      const page = await this.ofClient(id, ALL_AT_ONCE, cursor);
      rows.push(...page.items);
      cursor = page.nextCursor ?? undefined;
      // Others have a turn between any two pages.
      await new Promise(setImmediate);
    } while (cursor);
    return rows.reverse();
  }
}

/** After every time and every id. */
const LAST = '~';
const ALL_AT_ONCE = 200;
