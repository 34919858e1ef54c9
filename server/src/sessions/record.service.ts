/** What all sessions teach about one client. Other people's outcomes are only counted: whose they were is not told. */
import { Injectable } from '@nestjs/common';
import type { ClientRecord } from '@waxwing/core/coaching';
import { recordOf } from '@waxwing/core/session';

import { ClientsService } from '../clients/clients.service.js';
import { DigestsService } from './digests.service.js';

@Injectable()
export class RecordService {
  constructor(
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
    );
  }
}
