/** Deletes a client and everything that is only theirs from a database. What others did stays, and so does the bare id, for devices that come back. */
import { type Plan, planWithout } from '@waxwing/core/planning';
import type { Programme } from '@waxwing/core/session';

import { parsed } from '../database/json-column.js';
import type { Statements } from '../database/statements.js';
import { planColumns } from '../plans/plan-columns.js';
import { openedFrom, type Row, sealedFor, sealedIn, withoutTold } from '../sealed/columns.js';
import { forgetDigests } from '../sessions/kept-digests.js';

export function eraseClient(writer: Statements, id: string): void {
  writer.outlasts = true;
  const at = new Date().toISOString();
  const sessions = writer.all<{ id: string; programme: string | null; other: string | null }>(
    `SELECT sessions.id, programme, (SELECT clientId FROM session_clients WHERE sessionId = sessions.id AND clientId <> ?) AS other
     FROM sessions JOIN session_clients ON sessionId = sessions.id WHERE clientId = ?`,
    id,
    id,
  );
  for (const { id: sessionId, programme, other } of sessions) {
    forgetDigests(writer, sessionId, id);
    // That a session is over belongs to everybody in it.
    if (other !== null)
      writer.run(
        `UPDATE events SET clientId = ?, document = json_set(document, '$.clientId', ?)
         WHERE sessionId = ? AND clientId = ? AND json_valid(document) AND document ->> 'type' = 'session-finished'`,
        other,
        other,
        sessionId,
        id,
      );
    writer.run('DELETE FROM events WHERE sessionId = ? AND clientId = ?', sessionId, id);
    writer.run('DELETE FROM session_clients WHERE sessionId = ? AND clientId = ?', sessionId, id);
    if (other === null) {
      writer.run('DELETE FROM sessions WHERE id = ?', sessionId);
      writer.run('INSERT OR REPLACE INTO erased (id, at) VALUES (?, ?)', sessionId, at);
    } else if (programme !== null) {
      const at = ['sessions', 'programme', { id: sessionId }] as const;
      const kept = openedOrBare(writer, programme, ...at) as Programme | undefined;
      const plan = kept && planWithout(kept.plan, id);
      const left = kept && plan ? JSON.stringify({ ...kept, plan, rotations: {} }) : null;
      const lies = left && asBefore(writer, programme, left, ...at);
      writer.run('UPDATE sessions SET programme = ? WHERE id = ?', lies, sessionId);
    }
  }
  const plans = writer.all<{ id: string; document: string; version: number }>(
    `SELECT id, document, version FROM plans WHERE json_valid(document)
     AND EXISTS (SELECT 1 FROM json_each(document, '$.clientIds') WHERE value = ?)`,
    id,
  );
  for (const { id: planId, document, version } of plans) {
    const at = ['plans', 'document', { id: planId }] as const;
    const plan = openedOrBare(writer, document, ...at) as Plan | undefined;
    const left = plan && planWithout(plan, id);
    if (!left) {
      writer.run('DELETE FROM plans WHERE id = ?', planId);
      continue;
    }
    writer.run(
      'UPDATE plans SET document = ?, updatedAt = ?, version = ? WHERE id = ?',
      asBefore(writer, document, JSON.stringify(left), ...at),
      planColumns(left).updatedAt,
      version + 1,
      planId,
    );
  }
  // A backup of an earlier version has no such tables.
  for (const table of ['stills', 'left_taps'])
    if (writer.get('SELECT 1 FROM sqlite_master WHERE name = ?', table))
      writer.run(`DELETE FROM ${table} WHERE clientId = ?`, id);
  writer.run('DELETE FROM clients WHERE id = ?', id);
  writer.run('INSERT OR REPLACE INTO erased (id, at) VALUES (?, ?)', id, at);
}

/** A plan whose words do not open goes on without them: it is somebody else's as well. */
const openedOrBare = (writer: Statements, text: string, table: string, column: string, row: Row): unknown =>
  openedFrom(writer.sealer, text, table, column, row) ??
  (sealedIn(text, table, column) === undefined ? undefined : parsed(withoutTold(text, table, column)));

/** A backup of an earlier version has it plain, and its migrations read it: what lay sealed lies sealed again, and what lay plain plain. */
const asBefore = (
  writer: Statements,
  before: string,
  plain: string,
  table: string,
  column: string,
  row: Row,
): string =>
  sealedIn(before, table, column) === undefined ? plain : sealedFor(writer.sealer, plain, table, column, row);
