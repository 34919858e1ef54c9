/** All of one client's data: out as a file, in from one, and gone for good. Other people's sessions and plans stay as they are. */
import { Injectable } from '@nestjs/common';
import type { Client } from '@waxwing/core/client';
import { CLIENT_FILE_VERSION, type ClientFile } from '@waxwing/core/formats';
import { planJoined, planOf } from '@waxwing/core/planning';
import { byClock, type Programme, type SessionEvent } from '@waxwing/core/session';
import { DataSource } from 'typeorm';
import { v7 as uuidv7 } from 'uuid';

import { BackupsService } from '../backups/backups.service.js';
import { DamageService } from '../database/damage.service.js';
import { isWhole } from '../database/json-column.js';
import { StudioFolder } from '../database/studio-folder.js';
import { WriteGate } from '../database/write-gate.js';
import type { Writer } from '../database/writer.js';
import { audited, type Note } from '../door/audit.service.js';
import { PreparingService } from '../imports/preparing.service.js';
import { PlanEntity, WITH_CLIENT } from '../plans/plan.entity.js';
import { planColumns } from '../plans/plan-columns.js';
import { invalid, notFound, ProblemException } from '../problems/problem.js';
import { openedFrom } from '../sealed/columns.js';
import { eventText } from '../sealed/sealed-event.js';
import { SessionEntity } from '../sessions/session.entities.js';
import { ClientEntity } from './client.entity.js';
import { ClientsService, told } from './clients.service.js';
import { eraseClient } from './erase.js';
import { StillsService } from './stills.service.js';

@Injectable()
export class ClientFilesService {
  constructor(
    private readonly database: DataSource,
    private readonly gate: WriteGate,
    private readonly folder: StudioFolder,
    private readonly clients: ClientsService,
    private readonly backups: BackupsService,
    private readonly preparing: PreparingService,
    private readonly damage: DamageService,
    private readonly stills: StillsService,
  ) {}

  /** @throws 404 */
  async file(id: string): Promise<ClientFile> {
    const { version: _, ...client } = await this.clients.read(id);
    const rows = await this.database.query<
      { id: string; startedAt: string; finishedAt: string | null; programme: string | null }[]
    >(
      `SELECT id, startedAt, finishedAt, programme FROM sessions
       WHERE id IN (SELECT sessionId FROM session_clients WHERE clientId = ?) ORDER BY startedAt`,
      [id],
    );
    const events = await this.database.query<{ id: string; place: number; sessionId: string; document: string }[]>(
      `SELECT id, place, sessionId, document FROM events
       WHERE clientId = ? AND sessionId IN (SELECT sessionId FROM session_clients WHERE clientId = ?) ORDER BY place`,
      [id, id],
    );
    const bySession = new Map<string, SessionEvent[]>();
    for (const row of events) {
      const event = this.damage.event(row.document, row.id, row.place);
      if (event) bySession.set(row.sessionId, [...(bySession.get(row.sessionId) ?? []), event]);
    }
    const plans = await this.database
      .getRepository(PlanEntity)
      .createQueryBuilder('plan')
      .where(WITH_CLIENT, { clientId: id })
      .getMany();
    return {
      format: 'waxwing-client',
      formatVersion: CLIENT_FILE_VERSION,
      client,
      sessions: rows.map(({ programme, ...session }) => ({
        ...session,
        programme: partOf(this.programmeIn(session.id, programme), id),
        events: (bySession.get(session.id) ?? []).sort(byClock),
      })),
      plans: plans.filter(isWhole).map(({ document }) => planOf(document, id)),
      stills: await this.stills.of(id),
    };
  }

  /** Brings a client back from a file, all or nothing. @throws 409 when they are here, 422 naming what is damaged */
  async restore(bytes: Buffer): Promise<Client> {
    const answer = await this.preparing.ask({ do: 'client', bytes });
    if ('problems' in answer) throw invalid([...answer.problems]);
    const { client, sessions, plans, stills = [] } = (answer as { client: ClientFile }).client;
    this.checkTimes(sessions);
    const now = new Date().toISOString();
    const whole: ClientEntity = { ...client, version: 1, createdAt: now, updatedAt: now };
    return this.gate.write((writer) => {
      if (writer.get('SELECT 1 FROM clients WHERE id = ?', client.id))
        throw new ProblemException(409, `${client.name} is here already; delete them first to bring back the file.`);
      writer.insert(ClientEntity, whole);
      sessions.forEach((session, s) => bringBack(writer, client.id, session, s, now));
      for (const document of plans) writer.insert(PlanEntity, { id: uuidv7(), version: 1, ...planColumns(document) });
      this.stills.bringBack(writer, client.id, stills);
      const ids = [client.id, ...sessions.map(({ id }) => id)];
      writer.run('DELETE FROM erased WHERE id IN (SELECT value FROM json_each(?))', JSON.stringify(ids));
      writer.outlasts = true;
      return told(whole);
    });
  }

  /** Nothing of a file has happened later than a day from now. @throws 422 */
  private checkTimes(sessions: ClientFile['sessions']): void {
    const latest = new Date(Date.now() + 86_400_000).toISOString();
    const problems = sessions.flatMap(({ startedAt, events }, s) => [
      ...(startedAt > latest ? [{ path: `sessions[${s}].startedAt`, message: 'lies in the future' }] : []),
      ...events.flatMap(({ at }, e) =>
        at > latest ? [{ path: `sessions[${s}].events[${e}].at`, message: 'lies in the future' }] : [],
      ),
    ]);
    if (problems.length > 0) throw invalid(problems.slice(0, 50));
  }

  /** The programme of a session; undefined where there is none, or it is damaged. */
  private programmeIn(id: string, text: string | null): Programme | undefined {
    if (text === null) return undefined;
    return openedFrom(this.folder.sealer, text, 'sessions', 'programme', { id }) as Programme | undefined;
  }

  /**
   * Deletes a client and everything that is only theirs: here, in the messages that wait, and in the backups that are kept.
   * @throws 404, 422 when the typed name is another
   */
  async remove(id: string, typed: string, by: Pick<Note, 'visitor' | 'device'>): Promise<void> {
    const [client] = await this.database.query<{ name: string }[]>('SELECT name FROM clients WHERE id = ?', [id]);
    if (!client) throw notFound('client', id);
    if (typed.trim() !== client.name)
      throw invalid([{ path: 'name', message: `must be typed as it is written: ${client.name}` }]);
    this.gate.write((writer) => {
      eraseClient(writer, id);
      audited(writer, { ...by, action: 'client-erased', clientId: id, fields: ['all'] });
    });
    this.gate.scrub();
    await this.backups.eraseDeleted();
  }
}

/** A client's part of a programme; null where they have none in it any more. */
function partOf(kept: Programme | undefined, clientId: string): Programme | null {
  if (!kept?.plan.clientIds.includes(clientId)) return null;
  return { ...kept, plan: planOf(kept.plan, clientId), rotations: {} };
}

/** A session of a file. One that is shared with somebody is still here: the client joins it again, with their part of its plan. */
function bringBack(
  writer: Writer,
  clientId: string,
  { id, startedAt, finishedAt, programme = null, events }: ClientFile['sessions'][number],
  s: number,
  now: string,
): void {
  const here = writer.get<{ programme: string | null }>('SELECT programme FROM sessions WHERE id = ?', id);
  if (!here) writer.insert(SessionEntity, { id, startedAt, finishedAt, programme, place: 0, digested: 0 });
  else if (programme && here.programme !== null) {
    const kept = openedFrom(writer.sealer, here.programme, 'sessions', 'programme', { id }) as Programme | undefined;
    if (kept && !kept.plan.clientIds.includes(clientId))
      writer.update(SessionEntity, { id }, { programme: { ...kept, plan: planJoined(kept.plan, programme.plan) } });
  }
  writer.run('INSERT INTO session_clients (sessionId, clientId) VALUES (?, ?)', id, clientId);
  events.forEach((event, e) => {
    const path = `sessions[${s}].events[${e}].id`;
    const known = writer.get<{ sessionId: string; type: string | null }>(
      `SELECT sessionId, iif(json_valid(document), document ->> 'type', NULL) AS type FROM events WHERE id = ?`,
      event.id,
    );
    // That a session is over went to somebody who stayed, and stays theirs.
    if (known?.sessionId === id && known.type === 'session-finished' && event.type === 'session-finished') return;
    if (known) throw invalid([{ path, message: 'is already used by an event that is here' }]);
    writer.run(
      'INSERT INTO events (id, sessionId, clientId, document, receivedAt) VALUES (?, ?, ?, ?, ?)',
      event.id,
      id,
      clientId,
      eventText(event, writer.sealer),
      now,
    );
  });
  writer.run(
    'UPDATE sessions SET place = coalesce((SELECT max(place) FROM events WHERE sessionId = sessions.id), 0) WHERE id = ?',
    id,
  );
}
