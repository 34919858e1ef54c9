/** All of one client's data: out as a file, in from one, and gone for good. Other people's sessions and plans stay as they are. */
import { Inject, Injectable } from '@nestjs/common';
import { BLANK_CLIENT, checkClientFile, planOf, planWithout, type ClientFile } from '@waxwing/core/formats';
import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';
import { DataSource, In, type EntityManager } from 'typeorm';
import { v7 as uuidv7 } from 'uuid';
import { CONFIG, type Config } from '../config.js';
import { removeMessagesOf } from '../plans/messages.js';
import { PlanEntity, planColumns, WITH_CLIENT } from '../plans/plan.entity.js';
import { invalid, ProblemException } from '../problems/problem.js';
import { problemsIn } from '../problems/validation.js';
import { EventEntity, SessionEntity } from '../sessions/session.entities.js';
import { ClientEntity } from './client.entity.js';
import { CreateClientDto } from './clients.dto.js';
import { ClientsService } from './clients.service.js';

/** Sessions that a client takes part in, with everybody in them. */
async function sessionsOf(manager: EntityManager, clientId: string): Promise<SessionEntity[]> {
  const found = await manager
    .getRepository(SessionEntity)
    .createQueryBuilder('session')
    .innerJoin('session.clients', 'only', 'only.id = :clientId', { clientId })
    .getMany();
  return manager.getRepository(SessionEntity).find({
    where: { id: In(found.map(({ id }) => id)) },
    relations: { clients: true },
    order: { startedAt: 'ASC' },
  });
}

async function plansOf(manager: EntityManager, clientId: string): Promise<PlanEntity[]> {
  return manager.getRepository(PlanEntity).createQueryBuilder('plan').where(WITH_CLIENT, { clientId }).getMany();
}

const OF_CLIENT = `sessionId = ? AND document ->> 'clientId' = ?`;

@Injectable()
export class ClientFilesService {
  constructor(
    private readonly database: DataSource,
    private readonly clients: ClientsService,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  /** @throws 404 */
  async file(id: string): Promise<ClientFile> {
    const { version: _, createdAt: __, updatedAt: ___, ...client } = await this.clients.read(id);
    const { manager } = this.database;
    const sessions = await sessionsOf(manager, id);
    const events = await manager.getRepository(EventEntity).find({
      where: { sessionId: In(sessions.map((session) => session.id)) },
      order: { counter: 'ASC', id: 'ASC' },
    });
    const plans = await plansOf(manager, id);
    return {
      format: 'waxwing-client',
      formatVersion: 1,
      client,
      sessions: sessions.map((session) => ({
        id: session.id,
        startedAt: session.startedAt,
        finishedAt: session.finishedAt,
        programme: session.programme && {
          ...session.programme,
          plan: planOf(session.programme.plan, id),
          rotations: {},
        },
        events: events
          .map(({ document }) => document)
          .filter((event) => event.sessionId === session.id && event.clientId === id),
      })),
      plans: plans.map(({ document }) => planOf(document, id)),
    };
  }

  /** Brings a client back from a file, all or nothing. @throws 409 when they are here, 422 naming what is damaged */
  async restore(input: unknown): Promise<ClientEntity> {
    const checked = checkClientFile(input);
    if (!checked.ok) throw invalid(checked.problems.slice(0, 50));
    const { client, sessions, plans } = checked.value;
    const { id: _, ...plain } = client;
    const wrong = validateSync(plainToInstance(CreateClientDto, plain), {
      whitelist: true,
      forbidNonWhitelisted: true,
    });
    if (wrong.length > 0)
      throw invalid(problemsIn(wrong).map(({ path, message }) => ({ path: `client.${path}`, message })));
    return this.database.transaction(async (manager) => {
      if (await manager.getRepository(ClientEntity).existsBy({ id: client.id }))
        throw new ProblemException(409, `${client.name} is here already; delete them first to bring back the file.`);
      const taken = await manager.getRepository(SessionEntity).findBy({ id: In(sessions.map(({ id }) => id)) });
      const now = new Date().toISOString();
      const whole = manager
        .getRepository(ClientEntity)
        .create({ ...BLANK_CLIENT, ...client, version: 1, createdAt: now, updatedAt: now });
      await manager.insert(ClientEntity, whole);
      for (const { id, startedAt, finishedAt, programme = null, events } of sessions) {
        // A session shared with somebody is still here: the client joins it again.
        if (!taken.some((session) => session.id === id))
          await manager.insert(SessionEntity, { id, startedAt, finishedAt, programme });
        await manager.query(`INSERT INTO session_clients (sessionId, clientId) VALUES (?, ?)`, [id, client.id]);
        for (const document of events)
          await manager.query(
            `INSERT OR IGNORE INTO events (id, sessionId, counter, document, receivedAt) VALUES (?, ?, ?, ?, ?)`,
            [document.id, id, document.counter, JSON.stringify(document), now],
          );
      }
      for (const document of plans)
        await manager.insert(PlanEntity, { id: uuidv7(), version: 1, ...planColumns(document) });
      return whole;
    });
  }

  /** Deletes a client and everything that is only theirs, messages that wait for them included. @throws 404, 422 when the typed name is another */
  async remove(id: string, typed: string): Promise<void> {
    const client = await this.clients.read(id);
    if (typed.trim() !== client.name)
      throw invalid([{ path: 'name', message: `must be typed as it is written: ${client.name}` }]);
    await this.database.transaction(async (manager) => {
      for (const session of await sessionsOf(manager, id)) {
        const other = session.clients.find((one) => one.id !== id);
        // That a session is over belongs to everybody in it.
        if (other)
          await manager.query(
            `UPDATE events SET document = json_set(document, '$.clientId', ?)
             WHERE ${OF_CLIENT} AND document ->> 'type' = 'session-finished'`,
            [other.id, session.id, id],
          );
        await manager.query(`DELETE FROM events WHERE ${OF_CLIENT}`, [session.id, id]);
        const plan = session.programme && planWithout(session.programme.plan, id);
        if (!other) await manager.delete(SessionEntity, { id: session.id });
        else if (session.programme)
          await manager
            .getRepository(SessionEntity)
            .update({ id: session.id }, { programme: plan && { ...session.programme, plan, rotations: {} } });
      }
      for (const plan of await plansOf(manager, id)) {
        const document = planWithout(plan.document, id);
        if (document)
          await manager.update(PlanEntity, { id: plan.id }, { ...planColumns(document), version: plan.version + 1 });
        else await manager.delete(PlanEntity, { id: plan.id });
      }
      await manager.query(`DELETE FROM session_clients WHERE clientId = ?`, [id]);
      await manager.delete(ClientEntity, { id });
    });
    await removeMessagesOf(this.config.dataFolder, id);
  }
}
