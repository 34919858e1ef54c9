/** Those who work here, and the codes with which they choose a passphrase. */
import { Injectable } from '@nestjs/common';
import type { Account, Role, Visitor } from '@waxwing/core/door';
import { DataSource } from 'typeorm';
import { v7 as uuidv7 } from 'uuid';

import { WriteGate } from '../database/write-gate.js';
import type { Writer } from '../database/writer.js';
import { invalid, notFound, ProblemException } from '../problems/problem.js';
import { audited } from './audit.service.js';
import { codeTyped, hashOf, isSame, newCode, newToken, sealedPassphrase, wrongInPassphrase } from './secrets.js';

export interface AccountRow {
  id: string;
  name: string;
  /** The name as it is looked for. */
  nameKey: string;
  role: Role;
  passphrase: string | null;
  recovery: string | null;
  /** A code to begin with ends; the one that is kept for a bad day does not. */
  recoveryEndsAt: string | null;
  /** Seals what they leave unsent on a device. */
  sealKey: string;
  createdAt: string;
  shutOutAt: string | null;
}

const INVITED_DAYS = 7;

/** A name as it is looked for, however it is written. */
export const keyOf = (name: string): string => name.trim().normalize('NFKC').toLowerCase();

export const roleSees = (role: Role): Visitor['sees'] => (role === 'owner' ? 'all' : 'own');

@Injectable()
export class AccountsService {
  constructor(
    private readonly database: DataSource,
    private readonly gate: WriteGate,
  ) {}

  async owner(): Promise<AccountRow | undefined> {
    const sql = `SELECT * FROM accounts WHERE role = 'owner' AND shutOutAt IS NULL ORDER BY createdAt LIMIT 1`;
    const [row] = await this.database.query<AccountRow[]>(sql);
    return row;
  }

  async find(id: string): Promise<AccountRow | undefined> {
    const [row] = await this.database.query<AccountRow[]>('SELECT * FROM accounts WHERE id = ?', [id]);
    return row;
  }

  async named(name: string): Promise<AccountRow | undefined> {
    const [row] = await this.database.query<AccountRow[]>('SELECT * FROM accounts WHERE nameKey = ?', [keyOf(name)]);
    return row;
  }

  async list(): Promise<Account[]> {
    const rows = await this.database.query<AccountRow[]>('SELECT * FROM accounts ORDER BY name');
    return rows.map(accountOf);
  }

  /** A new account, not stored yet. @throws 422 */
  async prepared(name: string, role: Role, passphrase: string | null): Promise<{ row: AccountRow; code: string }> {
    const code = newCode();
    const wrong = passphrase === null ? null : await wrongInPassphrase(passphrase, name.split(/\s+/));
    if (wrong) throw invalid([{ path: 'passphrase', message: wrong }]);
    const now = Date.now();
    const row: AccountRow = {
      id: uuidv7(),
      name: name.trim(),
      nameKey: keyOf(name),
      role,
      passphrase: passphrase === null ? null : await sealedPassphrase(passphrase),
      recovery: hashOf(codeTyped(code)),
      recoveryEndsAt: passphrase === null ? new Date(now + INVITED_DAYS * 86_400_000).toISOString() : null,
      sealKey: newToken(),
      createdAt: new Date(now).toISOString(),
      shutOutAt: null,
    };
    return { row, code };
  }

  /** @throws 422 for a name that somebody has */
  insert(writer: Writer, row: AccountRow): void {
    if (writer.get('SELECT 1 FROM accounts WHERE nameKey = ?', row.nameKey))
      throw invalid([{ path: 'name', message: 'is the name of somebody who works here' }]);
    const names = Object.keys(row) as (keyof AccountRow)[];
    writer.run(
      `INSERT INTO accounts (${names.join(', ')}) VALUES (${names.map(() => '?').join(', ')})`,
      ...names.map((name) => row[name]),
    );
  }

  /** Somebody new, with a code by which they choose their passphrase. @throws 422 */
  async add(visitor: Visitor, device: string, name: string, role: Role): Promise<{ account: Account; code: string }> {
    const { row, code } = await this.prepared(name, role, null);
    this.gate.write((writer) => {
      this.insert(writer, row);
      writer.outlasts = true;
      audited(writer, { visitor, device, action: 'account-added', fields: [role] });
    });
    return { account: accountOf(row), code };
  }

  /** Another role, or out and in again. Whoever is shut out is out everywhere at once. @throws 404, 409 when no owner would be left */
  async change(
    visitor: Visitor,
    device: string,
    id: string,
    { role, shutOut }: { role?: Role | undefined; shutOut?: boolean | undefined },
  ): Promise<Account> {
    this.gate.write((writer) => {
      const row = writer.get<AccountRow>('SELECT * FROM accounts WHERE id = ?', id);
      if (!row) throw notFound('account', id);
      const next = {
        role: role ?? row.role,
        shutOutAt: shutOut === undefined ? row.shutOutAt : shutOut ? new Date().toISOString() : null,
      };
      writer.run('UPDATE accounts SET role = ?, shutOutAt = ? WHERE id = ?', next.role, next.shutOutAt, id);
      writer.outlasts = true;
      if (!writer.get(`SELECT 1 FROM accounts WHERE role = 'owner' AND shutOutAt IS NULL`))
        throw new ProblemException(409, 'Somebody must own the studio. Make another one an owner first.');
      if (next.shutOutAt !== null)
        writer.run(`UPDATE door_sessions SET ended = 'shut-out' WHERE accountId = ? AND ended IS NULL`, id);
      const fields = [...(role ? ['role'] : []), ...(shutOut === undefined ? [] : [shutOut ? 'shut-out' : 'let-in'])];
      audited(writer, { visitor, device, action: 'account-changed', fields });
    });
    return accountOf((await this.find(id)) as AccountRow);
  }

  /** A new code for somebody; the one before it opens nothing any more. @throws 404 */
  inviteAgain(visitor: Visitor, device: string, id: string): string {
    const code = newCode();
    const ends = new Date(Date.now() + INVITED_DAYS * 86_400_000).toISOString();
    this.gate.write((writer) => {
      const sql = 'UPDATE accounts SET recovery = ?, recoveryEndsAt = ? WHERE id = ?';
      if (writer.run(sql, hashOf(codeTyped(code)), ends, id) !== 1) throw notFound('account', id);
      writer.outlasts = true;
      // Whoever has the code can be that person: it is known afterwards who made it.
      audited(writer, { visitor, device, action: 'account-changed', fields: ['new code'] });
    });
    return code;
  }

  isCode({ recovery, recoveryEndsAt, shutOutAt }: AccountRow, code: string): boolean {
    if (recovery === null || shutOutAt !== null) return false;
    if (recoveryEndsAt !== null && recoveryEndsAt < new Date().toISOString()) return false;
    return isSame(recovery, hashOf(codeTyped(code)));
  }

  /** A new passphrase, and with it a new code; whoever was signed in is so no more. @throws 422 */
  async setPassphrase(account: AccountRow, passphrase: string, device: string): Promise<string> {
    const wrong = await wrongInPassphrase(passphrase, account.name.split(/\s+/));
    if (wrong) throw invalid([{ path: 'passphrase', message: wrong }]);
    const sealed = await sealedPassphrase(passphrase);
    const code = newCode();
    this.gate.write((writer) => {
      writer.outlasts = true;
      writer.run(
        'UPDATE accounts SET passphrase = ?, recovery = ?, recoveryEndsAt = NULL WHERE id = ?',
        ...[sealed, hashOf(codeTyped(code)), account.id],
      );
      writer.run(`UPDATE door_sessions SET ended = 'out' WHERE accountId = ? AND ended IS NULL`, account.id);
      audited(writer, { visitor: account, device, action: 'passphrase-changed' });
    });
    return code;
  }
}

const accountOf = ({ id, name, role, passphrase, shutOutAt }: AccountRow): Account => ({
  id,
  name,
  role,
  signsIn: passphrase !== null,
  shutOutAt,
});
