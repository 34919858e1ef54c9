/**
 * What a device had not sent yet when it was shut out. A lost tablet must not write into the studio, and a trainer's taps must not be lost
 * with it: they are laid aside, sealed, until the owner takes them in or throws them away.
 */
import { Injectable } from '@nestjs/common';
import type { Left, Taken, Visitor } from '@waxwing/core/door';
import { DataSource } from 'typeorm';

import { StudioFolder } from '../database/studio-folder.js';
import { WriteGate } from '../database/write-gate.js';
import { audited } from '../door/audit.service.js';
import type { SessionRow } from '../door/door.service.js';
import { invalid, notFound, type ProblemBody, ProblemException } from '../problems/problem.js';
import { openedFrom, sealedFor } from '../sealed/columns.js';
import { EventsService } from './events.service.js';

/** Characters of a tap as JSON. */
const LONGEST = 20_000;
/** Taps of one device: a day without the server, many times over. */
const MOST = 20_000;

const AN_ID = /^[0-9a-zA-Z_-]{1,64}$/;

type Named = Record<'id' | 'sessionId' | 'clientId', string>;

interface Row extends Named {
  accountId: string;
  device: string;
  document: string;
}

@Injectable()
export class LeftService {
  constructor(
    private readonly database: DataSource,
    private readonly gate: WriteGate,
    private readonly folder: StudioFolder,
    private readonly events: EventsService,
  ) {}

  /**
   * Lays taps aside, each once. What they say is looked at when they are taken in; here is only looked at whose they say they are.
   * @throws 409 when the device has left too many, 422 naming what is no tap
   */
  leave({ id: deviceId, name, accountId }: SessionRow, events: readonly object[]): void {
    const taps = events.map(named);
    const leftAt = new Date().toISOString();
    this.gate.write((writer) => {
      for (const [i, { id, sessionId, clientId }] of taps.entries()) {
        // What is stored, or deleted for good, is waited for by nobody.
        if (writer.get('SELECT 1 FROM events WHERE id = ?', id)) continue;
        if (writer.get('SELECT 1 FROM erased WHERE id IN (?, ?)', sessionId, clientId)) continue;
        writer.run(
          `INSERT INTO left_taps (id, deviceId, device, accountId, sessionId, clientId, document, leftAt)
           VALUES (?, ?, ?, ?, ?, ?, ?, ?) ON CONFLICT (id) DO NOTHING`,
          ...[id, deviceId, name, accountId, sessionId, clientId],
          sealedFor(writer.sealer, JSON.stringify(events[i]), 'left_taps', 'document', { id }),
          leftAt,
        );
      }
      const count = writer.get<{ n: number }>('SELECT count(*) AS n FROM left_taps WHERE deviceId = ?', deviceId);
      if ((count?.n ?? 0) > MOST) throw new ProblemException(409, 'This device has left too much already.');
    });
  }

  /** By device, the latest first. */
  async list(): Promise<Left[]> {
    const rows = await this.database.query<(Omit<Left, 'clientNames'> & { clientNames: string })[]>(
      `SELECT deviceId AS id, device, coalesce(accounts.name, '') AS accountName, count(*) AS taps, max(leftAt) AS leftAt,
         json_group_array(DISTINCT clients.name) FILTER (WHERE clients.name IS NOT NULL) AS clientNames
       FROM left_taps LEFT JOIN accounts ON accounts.id = accountId LEFT JOIN clients ON clients.id = clientId
       GROUP BY deviceId ORDER BY max(leftAt) DESC`,
    );
    return rows.map(({ clientNames, ...row }) => ({ ...row, clientNames: JSON.parse(clientNames) as string[] }));
  }

  /** Takes in what a device has left; what does not fit stays where it is. @throws 404 */
  async take(deviceId: string, visitor: Visitor, from: string): Promise<Taken> {
    const rows = await this.rowsOf(deviceId);
    let why: string | null = null;
    const stored: string[] = [];
    for (const sessionId of new Set(rows.map((row) => row.sessionId))) {
      let taps = rows.flatMap((row) => {
        if (row.sessionId !== sessionId) return [];
        const event = openedFrom(this.folder.sealer, row.document, 'left_taps', 'document', { id: row.id });
        return typeof event === 'string' ? [{ ...row, event: JSON.parse(event) as object }] : [];
      });
      while (taps.length > 0) {
        try {
          this.events.append(
            sessionId,
            taps.map(({ event }) => event),
            taps[0]?.accountId ?? visitor.id,
          );
          stored.push(...taps.map(({ id }) => id));
          break;
        } catch (error) {
          if (!(error instanceof ProblemException)) throw error;
          const { detail, errors = [] } = error.getResponse() as ProblemBody;
          why ??= errors[0]?.message ?? detail ?? null;
          const bad = new Set(errors.map(({ path }) => Number(/^events\[(\d+)\]/.exec(path)?.[1] ?? NaN)));
          const good = taps.filter((_, i) => !bad.has(i));
          // One that names none of them refuses them all.
          taps = good.length < taps.length ? good : [];
        }
      }
    }
    const refused = rows.length - stored.length;
    // What is gone in between was taken in by now: a second time it is only counted.
    this.gate.write((writer) => {
      for (const id of stored) writer.run('DELETE FROM left_taps WHERE id = ?', id);
      const fields = [rows[0]?.device ?? '', String(stored.length)];
      audited(writer, { visitor, device: from, action: 'taps-taken-in', fields });
    });
    return { taken: stored.length, refused, why };
  }

  /** @throws 404 */
  async throwAway(deviceId: string, visitor: Visitor, from: string): Promise<void> {
    const rows = await this.rowsOf(deviceId);
    this.gate.write((writer) => {
      for (const { id } of rows) writer.run('DELETE FROM left_taps WHERE id = ?', id);
      const fields = [rows[0]?.device ?? '', String(rows.length)];
      audited(writer, { visitor, device: from, action: 'taps-thrown-away', fields });
    });
  }

  private async rowsOf(deviceId: string): Promise<Row[]> {
    const rows = await this.database.query<Row[]>('SELECT * FROM left_taps WHERE deviceId = ? ORDER BY rowid', [
      deviceId,
    ]);
    if (rows.length === 0) throw notFound('device', deviceId);
    return rows;
  }
}

function named(event: object, i: number): Named {
  const { id, sessionId, clientId } = event as Partial<Record<keyof Named, unknown>>;
  for (const [key, value] of Object.entries({ id, sessionId, clientId }))
    if (typeof value !== 'string' || !AN_ID.test(value))
      throw invalid([{ path: `events[${i}].${key}`, message: 'must be an id' }]);
  if (JSON.stringify(event).length > LONGEST)
    throw invalid([{ path: `events[${i}]`, message: 'is longer than any tap' }]);
  return { id, sessionId, clientId } as Named;
}
