/** When clients came and when they come next: the same few statements for however many there are. */
import { Injectable } from '@nestjs/common';
import type { ClientSummary } from '@waxwing/core/client';
import { DataSource } from 'typeorm';

export type Visits = Pick<ClientSummary, 'last' | 'came' | 'next'>;

const DAY_MS = 86_400_000;
/** So many weeks are drawn, and told by when somebody usually comes. */
const WEEKS = 8;

@Injectable()
export class VisitsService {
  constructor(private readonly database: DataSource) {}

  /** @returns the visits of a client by id */
  async all(): Promise<(clientId: string) => Visits> {
    const now = Date.now();
    const lasts = await this.database.query<{ clientId: string; at: string }[]>(
      'SELECT clientId, max(startedAt) AS at FROM session_clients JOIN sessions ON sessions.id = sessionId GROUP BY clientId',
    );
    const recent = await this.database.query<{ clientId: string; at: string }[]>(
      `SELECT clientId, startedAt AS at FROM sessions JOIN session_clients ON sessions.id = sessionId
       WHERE startedAt >= ? ORDER BY startedAt`,
      [new Date(now - WEEKS * 7 * DAY_MS).toISOString()],
    );
    // A plan of the last hour may still be waited for; one that is held already is not.
    const coming = await this.database.query<{ clientId: string; planId: string; startsAt: string }[]>(
      `SELECT value AS clientId, plans.id AS planId, startsAt FROM plans,
       json_each(iif(json_valid(plans.document), plans.document, '{}'), '$.clientIds')
       WHERE template = 0 AND startsAt >= ?
       AND plans.id NOT IN (SELECT programme ->> 'planId' FROM sessions
         WHERE startedAt >= ? AND json_valid(programme) AND programme ->> 'planId' IS NOT NULL)
       ORDER BY startsAt DESC`,
      [new Date(now - 3_600_000).toISOString(), new Date(now - DAY_MS).toISOString()],
    );
    const last = new Map(lasts.map(({ clientId, at }) => [clientId, at]));
    const came = new Map<string, string[]>();
    for (const { clientId, at } of recent) came.set(clientId, [...(came.get(clientId) ?? []), at]);
    const next = new Map(coming.map(({ clientId, planId, startsAt }) => [clientId, { planId, startsAt }]));
    return (id) => ({
      last: last.get(id) ?? null,
      came: came.get(id) ?? [],
      next: next.get(id) ?? null,
    });
  }
}
