/** Whose clients somebody sees, and with them whose sessions, plans and messages. */
import { Injectable } from '@nestjs/common';
import type { Visitor } from '@waxwing/core/door';
import { DataSource } from 'typeorm';

import { StudioFolder } from '../database/studio-folder.js';
import type { Writer } from '../database/writer.js';
import { clientOfMessage } from '../plans/messages.js';
import { notFound } from '../problems/problem.js';
import type { Concerns, Subjects } from './allowed.js';

/** Ids of the clients that somebody sees, as a condition on a column of ids; its one parameter is whom it is asked for. */
const OWN = '(SELECT clientId FROM client_trainers WHERE accountId = ?)';

/** By kind: which of some ids are there and are not for them. */
const HIDDEN: Readonly<Record<'client' | 'session' | 'plan', string>> = {
  client: `SELECT id FROM clients WHERE id IN (SELECT value FROM json_each(?)) AND id NOT IN ${OWN}`,
  session: `SELECT sessionId AS id FROM session_clients
    WHERE sessionId IN (SELECT value FROM json_each(?)) AND clientId NOT IN ${OWN}`,
  plan: `SELECT plans.id FROM plans, json_each(iif(json_valid(plans.document), plans.document, '{}'), '$.clientIds') AS one
    WHERE plans.id IN (SELECT value FROM json_each(?)) AND one.value NOT IN ${OWN}`,
};

@Injectable()
export class AccessService {
  constructor(
    private readonly folder: StudioFolder,
    private readonly database: DataSource,
  ) {}

  /** @throws 404 for what somebody does not see, as for what is not there */
  async check(visitor: Visitor, kind: keyof Concerns, ids: readonly string[]): Promise<void> {
    if (visitor.sees === 'all' || ids.length === 0) return;
    const hidden = kind === 'message' ? await this.hiddenMessages(visitor, ids) : await this.hidden(visitor, kind, ids);
    if (hidden !== undefined) throw notFound(kind, hidden);
  }

  /** @throws 404 for a session that is over and began before the last day */
  async checkToday(ids: readonly string[]): Promise<void> {
    const [row] = await this.database.query<{ id: string }[]>(
      'SELECT id FROM sessions WHERE id IN (SELECT value FROM json_each(?)) AND finishedAt IS NOT NULL AND startedAt < ? LIMIT 1',
      [JSON.stringify(ids), today()],
    );
    if (row) throw notFound('session', row.id);
  }

  /** Whose data a request is about, where it says so itself. */
  async clientsAbout({ client = [], session = [], plan = [], message = [] }: Subjects): Promise<string[]> {
    if (client.length > 0) return [...client];
    const rows = await this.database.query<{ clientId: string }[]>(
      `SELECT DISTINCT clientId FROM session_clients WHERE sessionId IN (SELECT value FROM json_each(?))
       UNION SELECT one.value FROM plans, json_each(iif(json_valid(plans.document), plans.document, '{}'), '$.clientIds') AS one
       WHERE plans.id IN (SELECT value FROM json_each(?))`,
      [JSON.stringify(session), JSON.stringify(plan)],
    );
    const written = await Promise.all(message.map((name) => clientOfMessage(this.folder, name)));
    return [...rows.map(({ clientId }) => clientId), ...written.filter((id) => id !== null)];
  }

  /** How many clients somebody sees. */
  async count(visitor: Visitor): Promise<number> {
    if (visitor.sees === 'own') return (await this.ownClients(visitor)).length;
    const [row] = await this.database.query<{ n: number }[]>('SELECT count(*) AS n FROM clients');
    return row?.n ?? 0;
  }

  /** Of some clients those whom somebody sees. */
  async seen<T extends { id: string }>(visitor: Visitor, clients: readonly T[]): Promise<T[]> {
    if (visitor.sees === 'all') return [...clients];
    const own = new Set(await this.ownClients(visitor));
    return clients.filter(({ id }) => own.has(id));
  }

  private async ownClients(visitor: Visitor): Promise<string[]> {
    const sql = 'SELECT clientId FROM client_trainers WHERE accountId = ?';
    const rows = await this.database.query<{ clientId: string }[]>(sql, [visitor.id]);
    return rows.map(({ clientId }) => clientId);
  }

  private async hidden(
    visitor: Visitor,
    kind: keyof typeof HIDDEN,
    ids: readonly string[],
  ): Promise<string | undefined> {
    const [row] = await this.database.query<{ id: string }[]>(`${HIDDEN[kind]} LIMIT 1`, [
      JSON.stringify(ids),
      visitor.id,
    ]);
    return row?.id;
  }

  /** A message about nobody who is here any more is the owner's business. */
  private async hiddenMessages(visitor: Visitor, names: readonly string[]): Promise<string | undefined> {
    const own = new Set(await this.ownClients(visitor));
    for (const name of names) {
      const client = await clientOfMessage(this.folder, name);
      if (client !== null && !own.has(client)) return name;
    }
    return undefined;
  }
}

const DAY = 86_400_000;
/** From when on a session is of today's floor: one that went past midnight, too. */
const today = (): string => new Date(Date.now() - DAY).toISOString();

/** The sessions of a query that a tablet of the floor has use for. Parameter `:today`. */
export const FLOOR_SESSIONS = { sql: '(finishedAt IS NULL OR startedAt >= :today)', today };

/** The sessions of a query that somebody sees: those of which they see everybody. Parameters `:me`. */
export const SEEN_SESSIONS = `NOT EXISTS (SELECT 1 FROM session_clients WHERE session_clients.sessionId = session.id
  AND session_clients.clientId NOT IN (SELECT clientId FROM client_trainers WHERE accountId = :me))`;

/** The plans of a query that somebody sees, in the same way. */
export const SEEN_PLANS = `NOT EXISTS (SELECT 1 FROM json_each(iif(json_valid(plan.document), plan.document, '{}'), '$.clientIds') AS one
  WHERE one.value NOT IN (SELECT clientId FROM client_trainers WHERE accountId = :me))`;

/** Makes somebody the trainer of a client. */
export const givenTo = (writer: Writer, clientId: string, accountId: string): void => {
  writer.run(
    `INSERT OR IGNORE INTO client_trainers (clientId, accountId) SELECT ?, id FROM accounts WHERE id = ?`,
    ...[clientId, accountId],
  );
};
