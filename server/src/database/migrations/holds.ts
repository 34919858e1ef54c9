/**
 * In which form a studio seals, and the mark of where its audit begins: the first start that has its key brings both to today's. And how
 * often an account was changed, so that a backup that is brought back is known to be behind.
 */
import type { MigrationInterface, QueryRunner } from 'typeorm';

export class Holds1811000000000 implements MigrationInterface {
  name = 'Holds1811000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE meta ADD COLUMN sealForm INTEGER NOT NULL DEFAULT 1');
    await runner.query(`ALTER TABLE audit_start ADD COLUMN mark TEXT NOT NULL DEFAULT ''`);
    await runner.query('ALTER TABLE accounts ADD COLUMN changes INTEGER NOT NULL DEFAULT 0');
    await runner.query(`CREATE TRIGGER accounts_count_changes
      AFTER UPDATE OF role, passphrase, recovery, recoveryEndsAt, shutOutAt ON accounts
      BEGIN UPDATE accounts SET changes = OLD.changes + 1 WHERE id = NEW.id; END`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TRIGGER accounts_count_changes');
    await runner.query('ALTER TABLE accounts DROP COLUMN changes');
    await runner.query('ALTER TABLE audit_start DROP COLUMN mark');
    await runner.query('ALTER TABLE meta DROP COLUMN sealForm');
  }
}
