/** The door: who runs the studio, who is signed in from where, and what ends that. */
import { Inject, Injectable, type OnApplicationBootstrap, type OnModuleInit } from '@nestjs/common';
import type { Door, DoorState, Keeps, Role, Visitor } from '@waxwing/core/door';
import type { Request, Response } from 'express';
import { DataSource } from 'typeorm';
import { v7 as uuidv7 } from 'uuid';

import { CONFIG, type Config } from '../config.js';
import { isFull } from '../database/studio-folder.js';
import { WriteGate } from '../database/write-gate.js';
import type { Writer } from '../database/writer.js';
import { invalid, ProblemException } from '../problems/problem.js';
import { eraseSessionsBefore } from '../sessions/erase-sessions.js';
import { type AccountRow, AccountsService, keyOf, roleSees } from './accounts.service.js';
import { Attempts } from './attempts.js';
import { audited, AuditService, letGo } from './audit.service.js';
import { cookieIn, dropCookie, giveCookie } from './cookie.js';
import { hashOf, isSame, newToken, opens } from './secrets.js';
import { browserOf, type WhereFrom, whereFrom } from './where-from.js';

export interface SessionRow {
  hash: string;
  id: string;
  accountId: string;
  name: string;
  browser: string;
  token: string;
  tablet: number;
  pin: string | null;
  wrongPins: number;
  lockedAt: string | null;
  createdAt: string;
  lastUsedAt: string;
  endsAt: string;
  ended: 'out' | 'shut-out' | 'stolen' | 'over' | null;
}

/** Who asks, from where. */
export interface Entry {
  from: WhereFrom;
  visitor: Visitor | null;
  session: SessionRow | null;
  locked: boolean;
  shutOut: boolean;
  /** The session of a device that was shut out: it may leave what it had not sent yet, and do nothing else. */
  leaver: SessionRow | null;
  sealKey: string | null;
}

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
/** How long somebody stays in without doing anything, and at most. */
const STAYS = { desk: { idle: 12 * HOUR, most: 30 * DAY }, tablet: { idle: 30 * DAY, most: 180 * DAY } } as const;
/** A tablet that nobody touched for so long asks for its PIN, whatever its page says. */
const TABLET_LOCKS = 15 * 60_000;
/** That somebody is there is written down no more often. */
const NOTED_EVERY = 60_000;
/** A clock may be wrong by so much. */
const CLOCK_SLACK = 5 * 60_000;
const MOST_WRONG_PINS = 5;
const KEPT_DAYS = 1095;

/** Whoever works on the machine itself while nobody has to sign in there. */
const SOMEBODY = { id: 'somebody', role: 'owner', sees: 'all' } as const;

const iso = (time: number): string => new Date(time).toISOString();

@Injectable()
export class DoorService implements OnModuleInit, OnApplicationBootstrap {
  state: DoorState = 'unset';
  demo = false;

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    private readonly database: DataSource,
    private readonly gate: WriteGate,
    private readonly accounts: AccountsService,
    private readonly attempts: Attempts,
    private readonly audit: AuditService,
  ) {}

  /** Lets go what the studio keeps no longer. */
  onApplicationBootstrap(): void {
    this.letGoOld();
    setInterval(() => this.letGoOld(), DAY).unref();
  }

  async onModuleInit(): Promise<void> {
    const [row] = await this.database.query<{ state: DoorState }[]>('SELECT state FROM door WHERE id = 1');
    this.state = row?.state ?? 'unset';
  }

  /** Who asks. What is over is noted as over, so that a clock which is set back brings nobody in again. */
  async entryOf(request: Request): Promise<Entry> {
    const from = whereFrom(request, this.config);
    const none: Entry = {
      from,
      visitor: null,
      session: null,
      locked: false,
      shutOut: false,
      leaver: null,
      sealKey: null,
    };
    if (from.here && this.state !== 'closed') {
      const owner = await this.accounts.owner();
      return { ...none, visitor: { ...SOMEBODY, ...(owner && { id: owner.id }), name: owner?.name ?? '' } };
    }
    const cookie = cookieIn(request, from.secure);
    if (cookie === null) return none;
    const [session] = await this.database.query<SessionRow[]>('SELECT * FROM door_sessions WHERE hash = ?', [
      hashOf(cookie),
    ]);
    if (!session) return none;
    if (session.ended === 'shut-out') return { ...none, shutOut: true, leaver: session };
    if (session.ended) return none;
    const account = await this.accounts.find(session.accountId);
    const now = Date.now();
    const { idle, most } = session.tablet ? STAYS.tablet : STAYS.desk;
    const over =
      !account ||
      account.shutOutAt !== null ||
      now > Date.parse(session.endsAt) ||
      now > Date.parse(session.lastUsedAt) + idle ||
      now > Date.parse(session.createdAt) + most ||
      now < Date.parse(session.createdAt) - CLOCK_SLACK;
    const stolen = session.browser !== browserOf(request);
    if (over || stolen) {
      this.end([session], account?.shutOutAt ? 'shut-out' : stolen ? 'stolen' : 'over');
      return account?.shutOutAt ? { ...none, shutOut: true, leaver: session } : none;
    }
    const unused = now - Date.parse(session.lastUsedAt);
    const locked = session.pin !== null && (session.lockedAt !== null || unused > TABLET_LOCKS);
    if (locked && session.lockedAt === null) this.setLocked(session, iso(now));
    else if (unused > NOTED_EVERY)
      this.ifRoom((writer) =>
        writer.run('UPDATE door_sessions SET lastUsedAt = ? WHERE hash = ?', iso(now), session.hash),
      );
    if (locked) return { ...none, session, locked };
    return { ...none, session, visitor: visitorOf(account, session.tablet === 1), sealKey: account.sealKey };
  }

  doorFor({ from, visitor, session, locked, shutOut, sealKey }: Entry): Door {
    return {
      state: this.state,
      here: from.here,
      demo: this.demo,
      visitor,
      tablet: session?.tablet === 1,
      locked,
      shutOut,
      token: session && !locked ? session.token : null,
      sealKey,
    };
  }

  /** The first owner, said on the machine itself. @returns a recovery code where a passphrase was chosen @throws 403, 409, 422 */
  async begin(entry: Entry, name: string, passphrase: string | null, open: boolean): Promise<string | null> {
    if (!entry.from.here) throw new ProblemException(403, 'Who runs the studio is said on its own machine.');
    if (this.state !== 'unset') throw new ProblemException(409, 'Somebody runs this studio already.');
    if (!open && passphrase === null) throw invalid([{ path: 'passphrase', message: 'must be chosen' }]);
    const made = await this.accounts.prepared(name, 'owner', passphrase);
    this.gate.write((writer) => {
      if (writer.get(`SELECT 1 FROM door WHERE state <> 'unset'`))
        throw new ProblemException(409, 'Somebody runs this studio already.');
      this.accounts.insert(writer, made.row);
      this.keepState(writer, open ? 'open' : 'closed');
      writer.run(`UPDATE studio SET trainer = ?, version = version + 1 WHERE id = 1 AND trainer = ''`, made.row.name);
      audited(writer, { visitor: made.row, device: 'this machine', action: 'account-added', fields: ['owner'] });
    });
    this.state = open ? 'open' : 'closed';
    return passphrase === null ? null : made.code;
  }

  /** The demo's trainer is in by herself, on the machine itself. */
  async openAsDemo(name: string): Promise<void> {
    this.demo = true;
    if (this.state !== 'unset') return;
    const { row } = await this.accounts.prepared(name, 'owner', null);
    this.gate.write((writer) => {
      this.accounts.insert(writer, row);
      this.keepState(writer, 'open');
    });
    this.state = 'open';
  }

  /** Whether those on the machine itself need to sign in. @throws 403, 422 when nobody could come in again */
  async setOpen(entry: Entry, visitor: Visitor, open: boolean): Promise<void> {
    if (!entry.from.here) throw new ProblemException(403, 'This is said on the machine of the studio itself.');
    const owner = await this.accounts.owner();
    if (!open && !owner?.passphrase)
      throw invalid([{ path: 'open', message: 'stays: the owner has no passphrase yet to sign in with' }]);
    this.gate.write((writer) => {
      this.keepState(writer, open ? 'open' : 'closed');
      audited(writer, { visitor, device: 'this machine', action: 'door-changed', fields: [open ? 'open' : 'closed'] });
    });
    this.state = open ? 'open' : 'closed';
  }

  /** @throws 401 when name and passphrase do not belong together, 429 */
  async signIn(request: Request, response: Response, name: string, passphrase: string): Promise<void> {
    const from = whereFrom(request, this.config);
    const attempt = { ...from, at: `name ${keyOf(name)}` };
    this.attempts.begin(attempt);
    const account = await this.accounts.named(name);
    const right = await opens(account?.passphrase ?? null, passphrase);
    if (!right || !account || account.shutOutAt !== null) {
      this.audit.note({ visitor: account, device: browserOf(request), action: 'sign-in-failed' });
      throw new ProblemException(401, 'Name and passphrase do not belong together.');
    }
    this.attempts.succeeded(attempt);
    await this.letIn(request, response, account, 'signed-in');
  }

  /** Signs somebody in who has shown that they may: with a session of its own, and the one before it ended. */
  async letIn(
    request: Request,
    response: Response,
    account: AccountRow,
    action: 'signed-in' | 'recovered' | 'device-paired',
    tablet: { name: string; pin: string } | null = null,
  ): Promise<void> {
    const from = whereFrom(request, this.config);
    const before = await this.entryOf(request);
    const cookie = newToken();
    const now = Date.now();
    const stays = tablet ? STAYS.tablet : STAYS.desk;
    const browser = browserOf(request);
    this.gate.write((writer) => {
      if (before.session) writer.run(`UPDATE door_sessions SET ended = 'out' WHERE hash = ?`, before.session.hash);
      // What ended a month ago is asked for by nobody any more.
      writer.run(`DELETE FROM door_sessions WHERE ended IS NOT NULL AND lastUsedAt < ?`, iso(now - STAYS.tablet.most));
      writer.run(
        `INSERT INTO door_sessions (hash, id, accountId, name, browser, token, tablet, pin, wrongPins, lockedAt, createdAt, lastUsedAt, endsAt, ended)
         VALUES (?, ?, ?, ?, ?, ?, ?, ?, 0, NULL, ?, ?, ?, NULL)`,
        ...[hashOf(cookie), uuidv7(), account.id, tablet?.name ?? browser, browser, newToken(), tablet ? 1 : 0],
        ...[tablet?.pin ?? null, iso(now), iso(now), iso(now + stays.most)],
      );
      audited(writer, { visitor: account, device: tablet?.name ?? browser, action });
    });
    giveCookie(response, cookie, from.secure, stays.most);
  }

  signOut({ session, from, visitor }: Entry, response: Response): void {
    if (session) {
      this.gate.write((writer) => {
        writer.run(`UPDATE door_sessions SET ended = 'out' WHERE hash = ?`, session.hash);
        audited(writer, { visitor, device: session.name, action: 'signed-out' });
      });
    }
    dropCookie(response, from.secure);
  }

  /** A tablet that is put down. */
  lock({ session }: Entry): void {
    if (session?.pin) this.setLocked(session, iso(Date.now()));
  }

  /** @throws 401; after the fifth wrong one the tablet is out */
  async unlock({ session }: Entry, pin: string): Promise<void> {
    if (!session?.pin) throw new ProblemException(401, 'This device is not paired any more.');
    // Counted before it is looked at: of many at once no more than five are.
    const wrong = this.gate.write((writer) => {
      writer.run('UPDATE door_sessions SET wrongPins = wrongPins + 1 WHERE hash = ?', session.hash);
      return writer.get<{ wrongPins: number }>('SELECT wrongPins FROM door_sessions WHERE hash = ?', session.hash);
    });
    const left = MOST_WRONG_PINS - (wrong?.wrongPins ?? MOST_WRONG_PINS);
    if (left >= 0 && (await opens(session.pin, pin))) {
      const now = iso(Date.now());
      const sql = 'UPDATE door_sessions SET lockedAt = NULL, wrongPins = 0, lastUsedAt = ? WHERE hash = ?';
      this.gate.write((writer) => writer.run(sql, now, session.hash));
      return;
    }
    if (left <= 0) this.end([session], 'out');
    throw new ProblemException(
      401,
      left <= 0
        ? 'That was the last try. Pair this tablet again at the desk.'
        : `This is not the PIN. ${left} more tries.`,
      [{ path: 'pin', message: 'is another' }],
    );
  }

  /** What a request that changes something must bring from the page it comes from. @throws 403 */
  checkToken({ session }: Entry, request: Request): void {
    if (!session || ['GET', 'HEAD'].includes(request.method)) return;
    if (!isSame(session.token, String(request.headers['x-waxwing-token'] ?? '')))
      throw new ProblemException(403, 'This page is from before you signed in. Reload it.');
  }

  /** Ends sessions. */
  end(sessions: readonly SessionRow[], how: NonNullable<SessionRow['ended']>): void {
    this.ifRoom((writer) => {
      for (const { hash } of sessions) writer.run('UPDATE door_sessions SET ended = ? WHERE hash = ?', how, hash);
    });
  }

  async keeps(): Promise<Keeps> {
    const [row] = await this.database.query<Keeps[]>(KEEPS);
    return row ?? { auditDays: KEPT_DAYS, erasedDays: KEPT_DAYS, sessionDays: null };
  }

  /** How long the audit is kept, the ids of who was deleted, and sessions. */
  setKeeps({ auditDays, erasedDays, sessionDays }: Keeps, visitor: Visitor, device: string): void {
    this.gate.write((writer) => {
      writer.run(
        'UPDATE door SET auditDays = ?, erasedDays = ?, sessionDays = ? WHERE id = 1',
        auditDays,
        erasedDays,
        sessionDays,
      );
      const sessions = sessionDays === null ? 'for ever' : `${sessionDays} days`;
      const fields = [`audit ${auditDays} days`, `deleted ${erasedDays} days`, `sessions ${sessions}`];
      audited(writer, { visitor, device, action: 'keeps-changed', fields });
    });
    this.letGoOld();
  }

  private letGoOld(): void {
    let gone = 0;
    this.ifRoom((writer) => {
      const row = writer.get<Keeps>(KEEPS);
      if (!row) return;
      const before = (days: number) => iso(Date.now() - days * DAY);
      letGo(writer, before(row.auditDays));
      writer.run('DELETE FROM erased WHERE at < ?', before(row.erasedDays));
      writer.run('DELETE FROM pairings WHERE endsAt < ?', iso(Date.now()));
      if (row.sessionDays !== null) gone = eraseSessionsBefore(writer, before(row.sessionDays));
    });
    if (gone > 0) this.gate.scrub();
  }

  private setLocked({ hash }: SessionRow, at: string): void {
    this.ifRoom((writer) => writer.run('UPDATE door_sessions SET lockedAt = ? WHERE hash = ?', at, hash));
  }

  /** What can be worked out again, or done later: on a full disk nobody is turned away for it. */
  private ifRoom(work: (writer: Writer) => void): void {
    try {
      this.gate.write(work);
    } catch (error) {
      if (!isFull(error)) throw error;
    }
  }

  private keepState(writer: Writer, state: DoorState): void {
    writer.run('UPDATE door SET state = ? WHERE id = 1', state);
    writer.outlasts = true;
  }
}

const KEEPS = 'SELECT auditDays, erasedDays, sessionDays FROM door WHERE id = 1';

const visitorOf = (account: AccountRow, tablet: boolean): Visitor => ({
  id: account.id,
  name: account.name,
  // What stands on the floor is read by whoever passes.
  role: tablet ? 'assistant' : account.role,
  sees: roleSees(account.role satisfies Role),
});
