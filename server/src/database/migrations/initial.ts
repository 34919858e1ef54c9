/** The first tables. Documents that core owns (a movement, an event) are kept whole as JSON; what is searched or joined is a column. */
import type { MigrationInterface, QueryRunner } from 'typeorm';

export class Initial1795000000000 implements MigrationInterface {
  name = 'Initial1795000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE movements (
      id TEXT PRIMARY KEY NOT NULL, version INTEGER NOT NULL, document TEXT NOT NULL, updatedAt TEXT NOT NULL)`);
    await runner.query(`CREATE TABLE clients (
      id TEXT PRIMARY KEY NOT NULL, version INTEGER NOT NULL, name TEXT NOT NULL, about TEXT NOT NULL, goal TEXT NOT NULL,
      healthNote TEXT NOT NULL, touchConsentOn TEXT, limits TEXT NOT NULL, kit TEXT NOT NULL, createdAt TEXT NOT NULL, updatedAt TEXT NOT NULL)`);
    await runner.query(`CREATE TABLE sessions (
      id TEXT PRIMARY KEY NOT NULL, startedAt TEXT NOT NULL, finishedAt TEXT)`);
    await runner.query(`CREATE TABLE session_clients (
      sessionId TEXT NOT NULL REFERENCES sessions(id) ON DELETE CASCADE, clientId TEXT NOT NULL REFERENCES clients(id),
      PRIMARY KEY (sessionId, clientId)) WITHOUT ROWID`);
    await runner.query(`CREATE INDEX session_clients_by_client ON session_clients(clientId)`);
    await runner.query(`CREATE TABLE events (
      id TEXT PRIMARY KEY NOT NULL, sessionId TEXT NOT NULL REFERENCES sessions(id) ON DELETE CASCADE, counter INTEGER NOT NULL,
      document TEXT NOT NULL, receivedAt TEXT NOT NULL)`);
    await runner.query(`CREATE INDEX events_by_session ON events(sessionId, counter, id)`);
    await runner.query(`CREATE INDEX sessions_by_start ON sessions(startedAt, id)`);
    await runner.query(`CREATE TABLE studio (
      id INTEGER PRIMARY KEY NOT NULL CHECK (id = 1), version INTEGER NOT NULL, name TEXT NOT NULL, trainer TEXT NOT NULL, kit TEXT NOT NULL)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['studio', 'events', 'session_clients', 'sessions', 'clients', 'movements'])
      await runner.query(`DROP TABLE ${table}`);
  }
}
