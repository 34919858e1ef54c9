/** What migrations of movements share: each movement that is stored, and each saved version of it, read and written anew. */
import { checkMovement } from '@waxwing/core/movement';
import type { QueryRunner } from 'typeorm';

/** @param change gets what was stored; what the schema does not know afterwards stays as it was made */
export async function rewriteMovements(runner: QueryRunner, change: (document: unknown) => unknown): Promise<void> {
  const rewritten = (document: string): string => {
    const input = change(JSON.parse(document));
    const checked = checkMovement(input);
    return JSON.stringify(checked.ok ? checked.value : input);
  };
  // What cannot be read stays as it lies: it is named as damaged, and not lost.
  const rows = (await runner.query(`SELECT rowid AS place, document FROM movements WHERE json_valid(document)`)) as {
    place: number;
    document: string;
  }[];
  for (const { place, document } of rows)
    await runner.query(`UPDATE movements SET document = ? WHERE rowid = ?`, [rewritten(document), place]);
  const versions = (await runner.query(
    `SELECT movementId, version, document FROM movement_versions WHERE json_valid(document)`,
  )) as { movementId: string; version: number; document: string }[];
  for (const { movementId, version, document } of versions)
    await runner.query(`UPDATE movement_versions SET document = ? WHERE movementId = ? AND version = ?`, [
      rewritten(document),
      movementId,
      version,
    ]);
  await runner.query(`DELETE FROM incoming`);
}
