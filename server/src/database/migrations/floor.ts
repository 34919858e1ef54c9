/** The plan that a session began with, and what the studio does in an emergency. */
import type { MigrationInterface, QueryRunner } from 'typeorm';

export class Floor1798000000000 implements MigrationInterface {
  name = 'Floor1798000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE sessions ADD COLUMN programme TEXT`);
    await runner.query(`ALTER TABLE studio ADD COLUMN emergencyText TEXT NOT NULL DEFAULT ''`);
    await runner.query(`ALTER TABLE studio ADD COLUMN emergencyPhone TEXT NOT NULL DEFAULT ''`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE studio DROP COLUMN emergencyPhone`);
    await runner.query(`ALTER TABLE studio DROP COLUMN emergencyText`);
    await runner.query(`ALTER TABLE sessions DROP COLUMN programme`);
  }
}
