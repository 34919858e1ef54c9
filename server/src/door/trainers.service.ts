/** Who sees a client, besides the owner of the studio. */
import { Injectable } from '@nestjs/common';
import type { Visitor } from '@waxwing/core/door';
import { DataSource } from 'typeorm';

import { WriteGate } from '../database/write-gate.js';
import { invalid, notFound } from '../problems/problem.js';
import { givenTo } from './access.service.js';
import { audited } from './audit.service.js';

@Injectable()
export class TrainersService {
  constructor(
    private readonly database: DataSource,
    private readonly gate: WriteGate,
  ) {}

  async of(clientId: string): Promise<string[]> {
    const sql = 'SELECT accountId FROM client_trainers WHERE clientId = ? ORDER BY accountId';
    const rows = await this.database.query<{ accountId: string }[]>(sql, [clientId]);
    return rows.map(({ accountId }) => accountId);
  }

  /** @throws 404, 422 for somebody who does not work here, or who would shut themselves out */
  give(visitor: Visitor, device: string, clientId: string, accountIds: readonly string[]): Promise<string[]> {
    if (visitor.sees === 'own' && !accountIds.includes(visitor.id))
      throw invalid([
        { path: 'accountIds', message: 'must hold yourself: only the owner takes a client away from you' },
      ]);
    this.gate.write((writer) => {
      if (!writer.get('SELECT 1 FROM clients WHERE id = ?', clientId)) throw notFound('client', clientId);
      const wrong = accountIds.flatMap((id, i) =>
        writer.get('SELECT 1 FROM accounts WHERE id = ?', id)
          ? []
          : [{ path: `accountIds[${i}]`, message: 'is nobody who works here' }],
      );
      if (wrong.length > 0) throw invalid(wrong);
      writer.run('DELETE FROM client_trainers WHERE clientId = ?', clientId);
      for (const accountId of accountIds) givenTo(writer, clientId, accountId);
      audited(writer, {
        visitor,
        device,
        action: 'client-shared',
        clientId,
        fields: [`${accountIds.length} see them`],
      });
    });
    return this.of(clientId);
  }
}
