/**
 * Stored means stored: places of events that are never used again, who an event is about, what finished sessions teach kept as digests,
 * a count of writes that tells an older copy, and who was deleted for good (ids only, so that devices can follow).
 */
import type { MigrationInterface, QueryRunner } from 'typeorm';
import { v7 as uuidv7 } from 'uuid';

export class Stored1799000000000 implements MigrationInterface {
  name = 'Stored1799000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE meta (
      id INTEGER PRIMARY KEY NOT NULL CHECK (id = 1), studio TEXT NOT NULL, place INTEGER NOT NULL)`);
    await runner.query(`INSERT INTO meta (id, studio, place) VALUES (1, ?, 0)`, [uuidv7()]);
    await runner.query(`ALTER TABLE events RENAME TO events_before`);
    await runner.query(`CREATE TABLE events (
      place INTEGER PRIMARY KEY AUTOINCREMENT, id TEXT NOT NULL UNIQUE,
      sessionId TEXT NOT NULL REFERENCES sessions(id) ON DELETE CASCADE, clientId TEXT NOT NULL,
      document TEXT NOT NULL, receivedAt TEXT NOT NULL)`);
    await runner.query(`INSERT INTO events (place, id, sessionId, clientId, document, receivedAt)
      SELECT rowid, id, sessionId, CASE WHEN json_valid(document) THEN coalesce(document ->> 'clientId', '') ELSE '' END, document, receivedAt
      FROM events_before ORDER BY rowid`);
    await runner.query(`DROP TABLE events_before`);
    await runner.query(`CREATE INDEX events_by_session ON events(sessionId, place)`);
    // The place of the latest event, and the one up to which it was digested.
    await runner.query(`ALTER TABLE sessions ADD COLUMN place INTEGER NOT NULL DEFAULT 0`);
    await runner.query(`ALTER TABLE sessions ADD COLUMN digested INTEGER NOT NULL DEFAULT 0`);
    await runner.query(
      `UPDATE sessions SET place = coalesce((SELECT max(place) FROM events WHERE sessionId = sessions.id), 0)`,
    );
    await runner.query(`CREATE INDEX sessions_undigested ON sessions(startedAt) WHERE digested <> place`);
    await runner.query(`CREATE INDEX sessions_open ON sessions(startedAt, id) WHERE finishedAt IS NULL`);
    await runner.query(`CREATE TABLE digests (
      clientId TEXT NOT NULL REFERENCES clients(id) ON DELETE CASCADE,
      sessionId TEXT NOT NULL REFERENCES sessions(id) ON DELETE CASCADE,
      version INTEGER NOT NULL, document TEXT NOT NULL, PRIMARY KEY (clientId, sessionId)) WITHOUT ROWID`);
    await runner.query(`CREATE INDEX digests_by_session ON digests(sessionId)`);
    // Everybody's trials of a correction, at the weight that they had at a fixed time.
    await runner.query(`CREATE TABLE outcomes (
      correction TEXT PRIMARY KEY NOT NULL, worked REAL NOT NULL, total REAL NOT NULL) WITHOUT ROWID`);
    await runner.query(`CREATE TABLE erased (id TEXT PRIMARY KEY NOT NULL, at TEXT NOT NULL) WITHOUT ROWID`);
    // Movements that are being taken in, until they are taken over in one piece.
    await runner.query(`CREATE TABLE incoming (id TEXT PRIMARY KEY NOT NULL, document TEXT NOT NULL) WITHOUT ROWID`);
    await runner.query(`DROP INDEX plans_by_change`);
    await runner.query(`CREATE INDEX plans_by_time ON plans(template, coalesce(startsAt, updatedAt), id)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP INDEX plans_by_time`);
    await runner.query(`CREATE INDEX plans_by_change ON plans(updatedAt, id)`);
    for (const table of ['incoming', 'erased', 'outcomes', 'digests']) await runner.query(`DROP TABLE ${table}`);
    for (const index of ['sessions_open', 'sessions_undigested']) await runner.query(`DROP INDEX ${index}`);
    for (const column of ['digested', 'place']) await runner.query(`ALTER TABLE sessions DROP COLUMN ${column}`);
    await runner.query(`ALTER TABLE events RENAME TO events_after`);
    await runner.query(`CREATE TABLE events (
      id TEXT PRIMARY KEY NOT NULL, sessionId TEXT NOT NULL REFERENCES sessions(id) ON DELETE CASCADE, counter INTEGER NOT NULL,
      document TEXT NOT NULL, receivedAt TEXT NOT NULL)`);
    await runner.query(`INSERT INTO events (rowid, id, sessionId, counter, document, receivedAt)
      SELECT place, id, sessionId, document ->> 'counter', document, receivedAt FROM events_after`);
    await runner.query(`DROP TABLE events_after`);
    await runner.query(`CREATE INDEX events_by_session ON events(sessionId, counter, id)`);
    await runner.query(`DROP TABLE meta`);
  }
}
