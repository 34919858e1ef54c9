/** The library becomes the studio's own: earlier versions are kept, movements are archived instead of deleted, pictures and house rules. */
import type { MigrationInterface, QueryRunner } from 'typeorm';

export class Library1796000000000 implements MigrationInterface {
  name = 'Library1796000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE movements ADD COLUMN author TEXT NOT NULL DEFAULT ''`);
    await runner.query(`ALTER TABLE movements ADD COLUMN archivedAt TEXT`);
    await runner.query(`CREATE TABLE movement_versions (
      movementId TEXT NOT NULL REFERENCES movements(id), version INTEGER NOT NULL, document TEXT NOT NULL,
      author TEXT NOT NULL, savedAt TEXT NOT NULL, PRIMARY KEY (movementId, version)) WITHOUT ROWID`);
    await runner.query(`CREATE TABLE pictures (
      id TEXT PRIMARY KEY NOT NULL, movementId TEXT NOT NULL REFERENCES movements(id), type TEXT NOT NULL,
      bytes INTEGER NOT NULL, caption TEXT NOT NULL, addedAt TEXT NOT NULL)`);
    await runner.query(`CREATE INDEX pictures_by_movement ON pictures(movementId, addedAt)`);
    await runner.query(`ALTER TABLE studio ADD COLUMN houseRules TEXT NOT NULL DEFAULT '{}'`);
    await runner.query(`ALTER TABLE clients ADD COLUMN houseRules TEXT NOT NULL DEFAULT '{}'`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['clients', 'studio']) await runner.query(`ALTER TABLE ${table} DROP COLUMN houseRules`);
    await runner.query(`DROP TABLE pictures`);
    await runner.query(`DROP TABLE movement_versions`);
    for (const column of ['archivedAt', 'author']) await runner.query(`ALTER TABLE movements DROP COLUMN ${column}`);
  }
}
