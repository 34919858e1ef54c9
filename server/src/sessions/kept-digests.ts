/**
 * Digests as they lie, and the sums that their trials are counted in. Without the server, so that a copy of the store can be changed as the
 * store is.
 */
import { type Counted, HALF_LIFE_DAYS, OUTCOME_SCORE, type Trial } from '@waxwing/core/coaching';
import type { Digest } from '@waxwing/core/session';

import type { Statements } from '../database/statements.js';
import { openedFrom, type Row } from '../sealed/columns.js';
import type { Sealer } from '../sealed/sealer.js';

const DAY = 86_400_000;
/** Any fixed time serves: weights of trials then are multiplied by one number to be those of now. */
const EPOCH = Date.UTC(2025, 0, 1);
const doubled = (milliseconds: number): number => 2 ** ((milliseconds - EPOCH) / DAY / HALF_LIFE_DAYS);
/** The weight that a sum has left now. */
export const faded = (now: string): number => 1 / doubled(Date.parse(now));

/** A kept digest; undefined for one that is damaged or does not open. */
export function digestIn(text: string, sealer: Sealer, row: Row): Digest | undefined {
  return (openedFrom(sealer, text, 'digests', 'document', row) ?? undefined) as Digest | undefined;
}

/** Takes the digests of a session away, and what they count. */
export function forgetDigests(writer: Statements, sessionId: string, clientId?: string): void {
  const where = clientId === undefined ? 'sessionId = ?' : 'sessionId = ? AND clientId = ?';
  const parameters = clientId === undefined ? [sessionId] : [sessionId, clientId];
  for (const { document, ...row } of writer.all<{ clientId: string; sessionId: string; document: string }>(
    `SELECT clientId, sessionId, document FROM digests WHERE ${where}`,
    ...parameters,
  ))
    count(writer, digestIn(document, writer.sealer, row)?.trials ?? [], -1);
  writer.run(`DELETE FROM digests WHERE ${where}`, ...parameters);
}

/** Trials by correction, each at the weight that it has at the fixed time. Events are never from later than a day from now. */
export function weighed(trials: readonly Trial[]): Map<string, Counted> {
  const sums = new Map<string, Counted>();
  for (const { correction, outcome, at } of trials) {
    const weight = doubled(Date.parse(at));
    const sum = sums.get(correction) ?? { worked: 0, total: 0 };
    sums.set(correction, { worked: sum.worked + weight * OUTCOME_SCORE[outcome], total: sum.total + weight });
  }
  return sums;
}

export function count(writer: Statements, trials: readonly Trial[], sign: 1 | -1): void {
  for (const [correction, { worked, total }] of weighed(trials))
    writer.run(
      `INSERT INTO outcomes (correction, worked, total) VALUES (?, ?, ?)
       ON CONFLICT (correction) DO UPDATE SET worked = worked + excluded.worked, total = total + excluded.total`,
      correction,
      sign * worked,
      sign * total,
    );
}
