/** For how long sessions are kept; for ever unless the owner says otherwise. */
import type { MigrationInterface, QueryRunner } from 'typeorm';

export class SessionKeeps1808000000000 implements MigrationInterface {
  name = 'SessionKeeps1808000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE door ADD COLUMN sessionDays INTEGER');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE door DROP COLUMN sessionDays');
  }
}
