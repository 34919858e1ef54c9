/** Who shows the movements: chosen for the studio, and for a client; nobody chosen is a mix of people, as it was. */
import type { MigrationInterface, QueryRunner } from 'typeorm';

export class Looks1804000000000 implements MigrationInterface {
  name = 'Looks1804000000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const table of ['studio', 'clients']) await runner.query(`ALTER TABLE ${table} ADD COLUMN looks TEXT`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['clients', 'studio']) await runner.query(`ALTER TABLE ${table} DROP COLUMN looks`);
  }
}
