/** From where people are signed in, and how that is ended. */
import { Injectable } from '@nestjs/common';
import type { Device, Visitor } from '@waxwing/core/door';
import { DataSource } from 'typeorm';

import { WriteGate } from '../database/write-gate.js';
import { notFound } from '../problems/problem.js';
import { audited } from './audit.service.js';
import type { Entry, SessionRow } from './door.service.js';

@Injectable()
export class DevicesService {
  constructor(
    private readonly database: DataSource,
    private readonly gate: WriteGate,
  ) {}

  /** The visitor's own; the owner's list has everybody's, and a tablet of the floor knows of itself alone. Latest used first. */
  async list({ session }: Entry, visitor: Visitor): Promise<Device[]> {
    const rows = await this.database.query<(SessionRow & { accountName: string })[]>(
      `SELECT door_sessions.*, accounts.name AS accountName FROM door_sessions JOIN accounts ON accounts.id = accountId
       WHERE ended IS NULL AND endsAt > ? AND (? = 'all' OR accountId = ?) AND (? = 0 OR door_sessions.id = ?)
       ORDER BY lastUsedAt DESC`,
      [new Date().toISOString(), visitor.sees, visitor.id, session?.tablet ?? 0, session?.id ?? ''],
    );
    return rows.map(({ id, accountId, accountName, name, tablet, createdAt, lastUsedAt }) => ({
      id,
      accountId,
      accountName,
      name,
      tablet: tablet === 1,
      createdAt,
      lastUsedAt,
      current: id === session?.id,
    }));
  }

  /** Shuts a device out: at its next call it hears of it and forgets what it keeps. @throws 404 */
  shutOut(visitor: Visitor, device: string, id: string): void {
    this.gate.write((writer) => {
      const row = writer.get<SessionRow>('SELECT * FROM door_sessions WHERE id = ? AND ended IS NULL', id);
      if (!row || (visitor.sees !== 'all' && row.accountId !== visitor.id)) throw notFound('device', id);
      writer.run(`UPDATE door_sessions SET ended = 'shut-out' WHERE id = ?`, id);
      audited(writer, { visitor, device, action: 'device-ended', fields: [row.name] });
    });
  }

  /** Ends all of one's own but the one that asks. */
  endOthers(visitor: Visitor, device: string, { session }: Entry): void {
    this.gate.write((writer) => {
      const sql = `UPDATE door_sessions SET ended = 'out' WHERE accountId = ? AND id <> ? AND ended IS NULL`;
      writer.run(sql, visitor.id, session?.id ?? '');
      audited(writer, { visitor, device, action: 'device-ended', fields: ['all others'] });
    });
  }
}
