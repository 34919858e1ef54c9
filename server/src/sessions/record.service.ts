/** What all sessions teach about one client. Other people's outcomes are only counted: whose they were is not told. */
import { Injectable } from '@nestjs/common';
import { type Aim, aimSchema, type PainOver } from '@waxwing/core/client';
import type { ClientRecord } from '@waxwing/core/coaching';
import { recordOf } from '@waxwing/core/session';
import { DataSource } from 'typeorm';

import { ClientsService } from '../clients/clients.service.js';
import { parsed } from '../database/json-column.js';
import { StudioFolder } from '../database/studio-folder.js';
import { openedFrom } from '../sealed/columns.js';
import { DigestsService } from './digests.service.js';

@Injectable()
export class RecordService {
  constructor(
    private readonly database: DataSource,
    private readonly folder: StudioFolder,
    private readonly clients: ClientsService,
    private readonly digests: DigestsService,
  ) {}

  /** @throws 404 */
  async of(clientId: string): Promise<ClientRecord> {
    await this.clients.exists(clientId);
    const { own, counted } = await this.digests.ofClient(clientId);
    const now = new Date().toISOString();
    return recordOf(
      own,
      await this.digests.others(
        counted.flatMap(({ trials }) => trials),
        now,
      ),
      { over: await this.overOf(clientId), aim: await this.aimOf(clientId) },
    );
  }

  /** The pains that were called over. What cannot be read calls none over: what hurt stays closed. */
  private async overOf(id: string): Promise<PainOver[]> {
    const [row] = await this.database.query<{ painsOver: string }[]>('SELECT painsOver FROM clients WHERE id = ?', [
      id,
    ]);
    const read = row && openedFrom(this.folder.sealer, row.painsOver, 'clients', 'painsOver', { id });
    return Array.isArray(read) ? (read as PainOver[]) : [];
  }

  /** What is planned next, or else was planned last. */
  private async aimOf(clientId: string): Promise<Aim | null> {
    const [row] = await this.database.query<{ purpose: string; place: string | null }[]>(
      `SELECT document ->> '$.purpose' AS purpose, document -> '$.place' AS place, 0 AS past, startsAt FROM plans
         WHERE NOT template AND startsAt > ? AND json_valid(document)
           AND EXISTS (SELECT 1 FROM json_each(document, '$.clientIds') WHERE value = ?)
       UNION ALL
       SELECT programme ->> '$.plan.purpose', programme -> '$.plan.place', 1, NULL FROM (
         SELECT programme FROM sessions JOIN session_clients ON sessionId = id
         WHERE clientId = ? AND json_valid(programme) ORDER BY startedAt DESC LIMIT 1)
       ORDER BY past, startsAt LIMIT 1`,
      [new Date().toISOString(), clientId, clientId],
    );
    const read = aimSchema.safeParse({ purpose: row?.purpose, place: row?.place && parsed(row.place) });
    return read.data ?? null;
  }
}
