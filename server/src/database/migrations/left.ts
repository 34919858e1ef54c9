/** What a device that was shut out had not sent yet, tap by tap, each sealed as a whole; and the pains that somebody called over. */
import type { MigrationInterface, QueryRunner } from 'typeorm';

export class Left1812000000000 implements MigrationInterface {
  name = 'Left1812000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE left_taps (
         id TEXT PRIMARY KEY,
         deviceId TEXT NOT NULL,
         device TEXT NOT NULL,
         accountId TEXT NOT NULL,
         sessionId TEXT NOT NULL,
         clientId TEXT NOT NULL,
         document TEXT NOT NULL,
         leftAt TEXT NOT NULL
       )`,
    );
    await runner.query(`ALTER TABLE clients ADD COLUMN painsOver TEXT NOT NULL DEFAULT '[]'`);
    await runner.query('CREATE INDEX left_taps_device ON left_taps (deviceId)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE clients DROP COLUMN painsOver');
    await runner.query('DROP TABLE left_taps');
  }
}
