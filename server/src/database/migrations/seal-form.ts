/** In which form a studio seals, and the mark of where its audit begins: the first start that has its key brings both to today's. */
import type { MigrationInterface, QueryRunner } from 'typeorm';

export class SealForm1811000000000 implements MigrationInterface {
  name = 'SealForm1811000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE meta ADD COLUMN sealForm INTEGER NOT NULL DEFAULT 1');
    await runner.query(`ALTER TABLE audit_start ADD COLUMN mark TEXT NOT NULL DEFAULT ''`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE audit_start DROP COLUMN mark');
    await runner.query('ALTER TABLE meta DROP COLUMN sealForm');
  }
}
