/** A link for calendar programs, one for each account. */
import type { MigrationInterface, QueryRunner } from 'typeorm';

export class Feeds1807000000000 implements MigrationInterface {
  name = 'Feeds1807000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE feeds (
      accountId TEXT PRIMARY KEY NOT NULL REFERENCES accounts(id) ON DELETE CASCADE,
      hash TEXT NOT NULL UNIQUE, createdAt TEXT NOT NULL) WITHOUT ROWID`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE feeds`);
  }
}
