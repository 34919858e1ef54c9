/**
 * The audit: what was done at the door and with what is noted of people's health, by whom, from which device; names of fields, never what is
 * in them. Entries are only ever added, each to the chain of those before (`audit-chain.ts`).
 */
import { Injectable } from '@nestjs/common';
import type { AuditAction, AuditEntry } from '@waxwing/core/door';
import { DataSource } from 'typeorm';

import { parsed } from '../database/json-column.js';
import { isFull, StudioFolder } from '../database/studio-folder.js';
import { WriteGate } from '../database/write-gate.js';
import type { Writer } from '../database/writer.js';
import { cursorOf, type Page, readCursor } from '../problems/cursor.js';
import { isStart, type Start, startText, textOf } from './audit-chain.js';

export interface Note {
  visitor: { id: string; name: string } | null | undefined;
  device: string;
  action: AuditAction;
  clientId?: string;
  fields?: readonly string[];
}

interface Row {
  place: number;
  at: string;
  accountId: string | null;
  accountName: string;
  device: string;
  action: AuditAction;
  clientId: string | null;
  fields: string;
  hash: string;
}

/** Adds an entry in the transaction of what it tells of. */
export function audited(
  writer: Writer,
  { visitor, device, action, clientId, fields = [] }: Note,
  at = new Date().toISOString(),
): void {
  const before =
    writer.get<{ hash: string }>('SELECT hash FROM audit ORDER BY place DESC LIMIT 1') ??
    writer.get<{ hash: string }>('SELECT hash FROM audit_start');
  const row = {
    at,
    accountId: visitor?.id ?? null,
    accountName: visitor?.name ?? '',
    device,
    action,
    clientId: clientId ?? null,
    fields: JSON.stringify(fields),
  };
  writer.run(
    'INSERT INTO audit (at, accountId, accountName, device, action, clientId, fields, hash) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
    ...[row.at, row.accountId, row.accountName, row.device, row.action, row.clientId, row.fields],
    writer.sealer.mark(textOf(before?.hash ?? '', row)),
  );
}

/** Lets go what was before a time: the chain begins after it. */
export function letGo(writer: Writer, before: string): void {
  const last = writer.get<{ place: number; hash: string }>(
    'SELECT place, hash FROM audit WHERE at < ? ORDER BY place DESC LIMIT 1',
    before,
  );
  if (!last) return;
  writer.run(
    'UPDATE audit_start SET place = ?, hash = ?, mark = ? WHERE id = 1',
    ...[last.place, last.hash, writer.sealer.mark(startText(last))],
  );
  writer.run('DELETE FROM audit WHERE place <= ?', last.place);
}

/** What is read again and again in one sitting is one entry. */
const SAME_READ_MS = 10 * 60_000;
const CHECKED_AT_ONCE = 5_000;
const MOST_WAITING = 10_000;

@Injectable()
export class AuditService {
  private readonly lately = new Map<string, number>();
  /** Entries for which the disk had no room. */
  private waiting: (Note & { at: string })[] = [];

  constructor(
    private readonly database: DataSource,
    private readonly gate: WriteGate,
    private readonly folder: StudioFolder,
  ) {}

  /**
   * Notes what changes nothing. On a full disk it waits in memory: reading goes on, as a session on the floor needs it, and is noted as soon
   * as there is room.
   */
  note(note: Note): void {
    const all = [...this.waiting, { ...note, at: new Date().toISOString() }];
    try {
      this.gate.write((writer) => {
        for (const one of all) audited(writer, one, one.at);
      });
      this.waiting = [];
    } catch (error) {
      if (!isFull(error)) throw error;
      this.waiting = all.slice(-MOST_WAITING);
    }
  }

  /** The same, unless the same was read by the same person a little while ago. */
  noteRead(note: Note): void {
    const key = JSON.stringify([note.visitor?.id, note.device, note.clientId, note.fields]);
    const now = Date.now();
    if (now - (this.lately.get(key) ?? 0) < SAME_READ_MS) return;
    this.note(note);
    if (this.lately.size > 1_000) this.lately.clear();
    this.lately.set(key, now);
  }

  /** Latest first. */
  async list(
    filter: { clientId?: string | undefined; accountId?: string | undefined },
    limit: number,
    cursor?: string,
  ): Promise<Page<AuditEntry>> {
    const [before] = readCursor(cursor, 1) ?? [];
    const where = [
      ...(filter.clientId ? [['audit.clientId = ?', filter.clientId]] : []),
      ...(filter.accountId ? [['audit.accountId = ?', filter.accountId]] : []),
      ...(before ? [['audit.place < ?', Number(before)]] : []),
    ] as [string, string | number][];
    const rows = await this.database.query<(Row & { clientName: string | null })[]>(
      `SELECT audit.*, clients.name AS clientName FROM audit LEFT JOIN clients ON clients.id = audit.clientId
       ${where.length > 0 ? `WHERE ${where.map(([sql]) => sql).join(' AND ')}` : ''} ORDER BY place DESC LIMIT ?`,
      [...where.map(([, value]) => value), limit + 1],
    );
    const items = rows.slice(0, limit).map(({ hash: _, accountId: __, fields, clientName, ...row }) => ({
      ...row,
      clientName: clientName ?? '',
      fields: (parsed(fields) as string[] | undefined) ?? [],
    }));
    const last = items.at(-1);
    return { items, nextCursor: rows.length > limit && last ? cursorOf(last.place) : null };
  }

  /** Every entry, the earliest first. */
  async all(): Promise<AuditEntry[]> {
    const items: AuditEntry[] = [];
    let cursor: string | undefined;
    do {
      const page = await this.list({}, 500, cursor);
      items.push(...page.items);
      cursor = page.nextCursor ?? undefined;
    } while (cursor);
    return items.reverse();
  }

  /** The place of the first entry that is not as it was written; null when all are. */
  async brokenAt(): Promise<number | null> {
    const { sealer } = this.folder;
    const [start] = await this.database.query<Start[]>('SELECT place, hash, mark FROM audit_start');
    if (!start || !isStart(sealer, start)) return (start?.place ?? 0) + 1;
    let { place, hash } = start;
    for (;;) {
      const rows = await this.database.query<Row[]>('SELECT * FROM audit WHERE place > ? ORDER BY place LIMIT ?', [
        place,
        CHECKED_AT_ONCE,
      ]);
      for (const row of rows) {
        // One that was taken out leaves a gap in the places, and one at the end a count that is too high.
        if (row.place !== place + 1 || !sealer.isMarked(textOf(hash, row), row.hash)) return row.place;
        [place, hash] = [row.place, row.hash];
      }
      if (rows.length < CHECKED_AT_ONCE) break;
    }
    const [given] = await this.database.query<{ seq: number }[]>(
      `SELECT seq FROM sqlite_sequence WHERE name = 'audit'`,
    );
    return (given?.seq ?? 0) > place ? place + 1 : null;
  }
}
