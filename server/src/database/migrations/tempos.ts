/**
 * The pause of a rep that begins with rising stands in its own place of the tempo: in movements, and in what was planned with them and is not done yet.
 */
import { tempoToday, upgradeMovement } from '@waxwing/core/movement';
import type { MigrationInterface, QueryRunner } from 'typeorm';

import { rewriteMovements } from './rewrite-movements.js';

/** Where plans lie, and which of them are still ahead. */
const PLANNED = [
  ['plans', 'document', 'TRUE'],
  ['sessions', 'programme', 'finishedAt IS NULL'],
] as const;

type Known = ReadonlyMap<string, { id: string; phases: readonly string[] }>;

export class Tempos1810000000000 implements MigrationInterface {
  name = 'Tempos1810000000000';

  async up(runner: QueryRunner): Promise<void> {
    await rewriteMovements(runner, (document) => upgradeMovement(document, 4));
    const movements = (await runner.query(
      `SELECT id, document -> 'phases' AS phases FROM movements WHERE json_valid(document)`,
    )) as { id: string; phases: string | null }[];
    const known: Known = new Map(
      movements.map(({ id, phases }) => [id, { id, phases: phases ? (JSON.parse(phases) as string[]) : [] }]),
    );
    for (const [table, column, ahead] of PLANNED) {
      const rows = (await runner.query(
        `SELECT rowid AS place, ${column} AS document FROM ${table} WHERE json_valid(${column}) AND ${ahead}`,
      )) as { place: number; document: string }[];
      for (const { place, document } of rows) {
        const today = JSON.stringify(inPlan(JSON.parse(document), known));
        if (today !== document) await runner.query(`UPDATE ${table} SET ${column} = ? WHERE rowid = ?`, [today, place]);
      }
    }
  }

  /** A tempo that was meant so from the start cannot be told from one that was turned. */
  down = (): Promise<void> => Promise.resolve();
}

/** Every tempo within a line is one of the line's movement, or of the one that a set has instead. */
function inPlan(part: unknown, known: Known, of?: string): unknown {
  if (Array.isArray(part)) return part.map((one) => inPlan(one, known, of));
  if (typeof part !== 'object' || part === null) return part;
  const own = 'movementId' in part && typeof part.movementId === 'string' ? part.movementId : of;
  const movement = known.get(own ?? '');
  return Object.fromEntries(
    Object.entries(part).map(([key, value]) => [
      key,
      key === 'tempo' && typeof value === 'string' && movement
        ? tempoToday(value, movement)
        : inPlan(value, known, own),
    ]),
  );
}
