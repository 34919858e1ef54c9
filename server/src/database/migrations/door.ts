/** Who may come in, from which device, and what is known afterwards. */
import type { MigrationInterface, QueryRunner } from 'typeorm';

export class Door1806000000000 implements MigrationInterface {
  name = 'Door1806000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE door (
      id INTEGER PRIMARY KEY NOT NULL CHECK (id = 1), state TEXT NOT NULL, auditDays INTEGER NOT NULL, erasedDays INTEGER NOT NULL)`);
    await runner.query(`INSERT INTO door (id, state, auditDays, erasedDays) VALUES (1, 'unset', 1095, 1095)`);
    await runner.query(`CREATE TABLE accounts (
      id TEXT PRIMARY KEY NOT NULL, name TEXT NOT NULL, nameKey TEXT NOT NULL UNIQUE, role TEXT NOT NULL,
      passphrase TEXT, recovery TEXT, recoveryEndsAt TEXT, sealKey TEXT NOT NULL, createdAt TEXT NOT NULL, shutOutAt TEXT)`);
    await runner.query(`CREATE TABLE door_sessions (
      hash TEXT PRIMARY KEY NOT NULL, id TEXT NOT NULL UNIQUE, accountId TEXT NOT NULL REFERENCES accounts(id) ON DELETE CASCADE,
      name TEXT NOT NULL, browser TEXT NOT NULL, token TEXT NOT NULL, tablet INTEGER NOT NULL, pin TEXT, wrongPins INTEGER NOT NULL,
      lockedAt TEXT, createdAt TEXT NOT NULL, lastUsedAt TEXT NOT NULL, endsAt TEXT NOT NULL, ended TEXT) WITHOUT ROWID`);
    await runner.query(`CREATE INDEX door_sessions_by_account ON door_sessions(accountId)`);
    await runner.query(`CREATE TABLE pairings (
      hash TEXT PRIMARY KEY NOT NULL, accountId TEXT NOT NULL REFERENCES accounts(id) ON DELETE CASCADE, endsAt TEXT NOT NULL) WITHOUT ROWID`);
    await runner.query(`CREATE TABLE client_trainers (
      clientId TEXT NOT NULL REFERENCES clients(id) ON DELETE CASCADE, accountId TEXT NOT NULL REFERENCES accounts(id) ON DELETE CASCADE,
      PRIMARY KEY (clientId, accountId)) WITHOUT ROWID`);
    await runner.query(`CREATE INDEX client_trainers_by_account ON client_trainers(accountId)`);
    await runner.query(`CREATE TABLE audit (
      place INTEGER PRIMARY KEY AUTOINCREMENT, at TEXT NOT NULL, accountId TEXT, accountName TEXT NOT NULL, device TEXT NOT NULL,
      action TEXT NOT NULL, clientId TEXT, fields TEXT NOT NULL, hash TEXT NOT NULL)`);
    await runner.query(`CREATE INDEX audit_by_client ON audit(clientId, place)`);
    await runner.query(`CREATE INDEX audit_by_account ON audit(accountId, place)`);
    // Who sent it: what came before is nobody's.
    await runner.query(`ALTER TABLE events ADD COLUMN accountId TEXT`);
    // The hash of the last entry that was let go: the chain begins after it.
    await runner.query(`CREATE TABLE audit_start (
      id INTEGER PRIMARY KEY NOT NULL CHECK (id = 1), place INTEGER NOT NULL, hash TEXT NOT NULL)`);
    await runner.query(`INSERT INTO audit_start (id, place, hash) VALUES (1, 0, '')`);
    await runner.query(`CREATE TRIGGER audit_is_never_changed BEFORE UPDATE ON audit
      BEGIN SELECT RAISE(ABORT, 'an entry of the audit is never changed'); END`);
    await runner.query(`CREATE TRIGGER audit_is_let_go_in_order BEFORE DELETE ON audit
      WHEN OLD.place > (SELECT place FROM audit_start)
      BEGIN SELECT RAISE(ABORT, 'an entry of the audit is never taken out'); END`);
  }

  async down(runner: QueryRunner): Promise<void> {
    const tables = ['audit_start', 'audit', 'client_trainers', 'pairings', 'door_sessions', 'accounts', 'door'];
    await runner.query(`ALTER TABLE events DROP COLUMN accountId`);
    for (const table of tables) await runner.query(`DROP TABLE ${table}`);
  }
}
