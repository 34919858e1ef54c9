/** Pictures that are kept of a client's clips. */
import type { MigrationInterface, QueryRunner } from 'typeorm';

export class Stills1805000000000 implements MigrationInterface {
  name = 'Stills1805000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE stills (
      id TEXT PRIMARY KEY NOT NULL, clientId TEXT NOT NULL REFERENCES clients(id), takenAt TEXT NOT NULL,
      movementId TEXT NOT NULL, says TEXT NOT NULL, picture TEXT NOT NULL)`);
    await runner.query(`CREATE INDEX stills_by_client ON stills(clientId, takenAt)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE stills`);
  }
}
