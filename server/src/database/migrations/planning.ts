/** Plans, and what planning has to know of a client. */
import type { MigrationInterface, QueryRunner } from 'typeorm';

const CLIENT_COLUMNS: readonly [name: string, type: string][] = [
  ['filmConsentOn', 'TEXT'],
  ['email', `TEXT NOT NULL DEFAULT ''`],
  ['note', `TEXT NOT NULL DEFAULT ''`],
  ['trainingYears', 'INTEGER'],
  ['bodyKg', 'REAL'],
  ['unit', `TEXT NOT NULL DEFAULT 'kg'`],
  ['readiness', 'TEXT'],
  ['today', 'TEXT'],
  ['benchmarks', `TEXT NOT NULL DEFAULT '[]'`],
];

export class Planning1797000000000 implements MigrationInterface {
  name = 'Planning1797000000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const [name, type] of CLIENT_COLUMNS) await runner.query(`ALTER TABLE clients ADD COLUMN ${name} ${type}`);
    await runner.query(`CREATE TABLE plans (
      id TEXT PRIMARY KEY NOT NULL, version INTEGER NOT NULL, name TEXT NOT NULL, startsAt TEXT, template INTEGER NOT NULL,
      document TEXT NOT NULL, updatedAt TEXT NOT NULL)`);
    await runner.query(`CREATE INDEX plans_by_change ON plans(updatedAt, id)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE plans`);
    for (const [name] of CLIENT_COLUMNS.toReversed()) await runner.query(`ALTER TABLE clients DROP COLUMN ${name}`);
  }
}
