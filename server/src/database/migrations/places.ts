/** Where sessions are held and how days are spent: rooms, places beside the studio, and the place of every plan, which was the studio until now. */
import type { MigrationInterface, QueryRunner } from 'typeorm';

export class Places1801000000000 implements MigrationInterface {
  name = 'Places1801000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE studio ADD COLUMN space TEXT NOT NULL DEFAULT 'lane'`);
    await runner.query(`ALTER TABLE studio ADD COLUMN places TEXT NOT NULL DEFAULT '[]'`);
    await runner.query(`ALTER TABLE clients ADD COLUMN homeSpace TEXT NOT NULL DEFAULT 'mat'`);
    await runner.query(`ALTER TABLE clients ADD COLUMN dayMostly TEXT`);
    await runner.query(`UPDATE plans SET document = json_set(document, '$.place', json('{"kind":"studio"}'))
      WHERE json_valid(document) AND json_type(document, '$.place') IS NULL`);
    await runner.query(`UPDATE sessions SET programme = json_set(programme, '$.plan.place', json('{"kind":"studio"}'))
      WHERE programme IS NOT NULL AND json_valid(programme) AND json_type(programme, '$.plan') = 'object'
        AND json_type(programme, '$.plan.place') IS NULL`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(
      `UPDATE sessions SET programme = json_remove(programme, '$.plan.place') WHERE json_valid(programme)`,
    );
    await runner.query(`UPDATE plans SET document = json_remove(document, '$.place') WHERE json_valid(document)`);
    for (const column of ['dayMostly', 'homeSpace']) await runner.query(`ALTER TABLE clients DROP COLUMN ${column}`);
    for (const column of ['places', 'space']) await runner.query(`ALTER TABLE studio DROP COLUMN ${column}`);
  }
}
