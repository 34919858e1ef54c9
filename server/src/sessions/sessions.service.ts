/**
 * Sessions: append-only events, stored once by id and never changed, in one transaction a batch; state is core's fold.
 * A batch with one bad event changes nothing, and its answer names the bad ones, so that a device can keep them apart.
 */
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { planWith, type LaterEvents, type SessionSummary, type SessionView } from '@waxwing/core/formats';
import { rotationsOf } from '@waxwing/core/planning';
import { believable, byClock, checkEvent, fold, type Programme, type SessionEvent } from '@waxwing/core/session';
import type { Problem } from '@waxwing/core/movement';
import { DataSource, In, Repository } from 'typeorm';
import { v7 as uuidv7 } from 'uuid';
import { ClientEntity } from '../clients/client.entity.js';
import { LibraryService } from '../movements/library.service.js';
import { PlanEntity } from '../plans/plan.entity.js';
import { invalid, notFound, ProblemException } from '../problems/problem.js';
import { StudioEntity } from '../studio/studio.entity.js';
import { EventEntity, SessionEntity } from './session.entities.js';
import type { ListSessionsQuery, StartSessionDto } from './sessions.dto.js';

const summaryOf = ({ id, startedAt, finishedAt, clients }: SessionEntity): SessionSummary => ({
  id,
  startedAt,
  finishedAt,
  clients: clients.map((client) => ({ id: client.id, name: client.name })),
});

@Injectable()
export class SessionsService {
  constructor(
    @InjectRepository(SessionEntity) private readonly sessions: Repository<SessionEntity>,
    private readonly database: DataSource,
    private readonly library: LibraryService,
  ) {}

  /** Latest first; a page goes on after `startedAt,id`. */
  async list({
    clientId,
    status,
    cursor,
    limit,
  }: ListSessionsQuery): Promise<{ items: SessionSummary[]; nextCursor: string | null }> {
    const query = this.sessions
      .createQueryBuilder('session')
      .select('session.id')
      .orderBy('session.startedAt', 'DESC')
      .addOrderBy('session.id', 'DESC')
      .limit(limit + 1);
    if (clientId) query.innerJoin('session.clients', 'only', 'only.id = :clientId', { clientId });
    if (status) query.andWhere(`session.finishedAt IS ${status === 'open' ? '' : 'NOT '}NULL`);
    if (cursor) {
      const [startedAt, id] = cursor.split(',');
      query.andWhere('(session.startedAt, session.id) < (:startedAt, :id)', { startedAt, id });
    }
    const ids = (await query.getMany()).map((session) => session.id);
    const found = await this.sessions.find({
      // A list needs no programmes.
      select: { id: true, startedAt: true, finishedAt: true, clients: { id: true, name: true } },
      where: { id: In(ids.slice(0, limit)) },
      relations: { clients: true },
      order: { startedAt: 'DESC', id: 'DESC', clients: { name: 'ASC' } },
    });
    const last = found.at(-1);
    return {
      items: found.map(summaryOf),
      nextCursor: ids.length > limit && last ? `${last.startedAt},${last.id}` : null,
    };
  }

  /** Starts a session; the same id sent again answers the session that is there. @throws 422 */
  async start({ id = uuidv7(), clientIds, planId, startedAt }: StartSessionDto): Promise<SessionView> {
    const known = await this.sessions.findOneBy({ id });
    if (known) return this.read(id);
    const now = new Date().toISOString();
    if (Number.isNaN(Date.parse(startedAt)) || !believable(startedAt, now, now))
      throw invalid([{ path: 'startedAt', message: 'is not a time near now: check the clock of this device' }]);
    const clients = await this.database.getRepository(ClientEntity).findBy({ id: In(clientIds) });
    const missing = clientIds.flatMap((clientId, i): Problem[] =>
      clients.some((client) => client.id === clientId)
        ? []
        : [{ path: `clientIds[${i}]`, message: 'is not a client of this studio' }],
    );
    if (missing.length > 0) throw invalid(missing);
    const programme = planId === undefined ? null : await this.programmeOf(planId, clientIds);
    await this.sessions.save(
      this.sessions.create({ id, startedAt: new Date(startedAt).toISOString(), finishedAt: null, programme, clients }),
    );
    return this.read(id);
  }

  /** A plan as it is now, with the rotations that its kit asks for. @throws 422 */
  private async programmeOf(planId: string, clientIds: readonly string[]): Promise<Programme> {
    const plan = await this.database.getRepository(PlanEntity).findOneBy({ id: planId });
    if (!plan) throw invalid([{ path: 'planId', message: 'is not a plan of this studio' }]);
    const { document } = plan;
    if (clientIds.some((clientId) => !document.clientIds.includes(clientId)))
      throw invalid([{ path: 'clientIds', message: 'must all be in the plan' }]);
    const { kit } = await this.database.getRepository(StudioEntity).findOneByOrFail({ id: 1 });
    const here = planWith(document, clientIds);
    const context = { find: (movementId: string) => this.library.summary(movementId), knows: () => true };
    return { planId, plan: here, rotations: rotationsOf(here, kit, context) };
  }

  /** @throws 404 */
  async read(id: string): Promise<SessionView> {
    const session = await this.session(id);
    const { events, place } = await this.eventsAfter(id, 0);
    events.sort(byClock);
    const { log: _, ...state } = fold(
      events,
      session.clients.map((client) => client.id),
    );
    return {
      ...summaryOf(session),
      programme: session.programme,
      events,
      place,
      state,
    };
  }

  /** What came after a place, in the order in which it came. Places are the row numbers of the store, which only ever go up. @throws 404 */
  async later(id: string, after: number): Promise<LaterEvents> {
    await this.session(id);
    return this.eventsAfter(id, after);
  }

  /** Read past the entities: a long session has thousands of events. */
  private async eventsAfter(id: string, after: number): Promise<LaterEvents> {
    const rows = await this.database.query<{ place: number; document: string }[]>(
      'SELECT rowid AS place, document FROM events WHERE sessionId = ? AND rowid > ? ORDER BY rowid',
      [id, after],
    );
    return {
      events: rows.map(({ document }) => JSON.parse(document) as SessionEvent),
      place: rows.at(-1)?.place ?? after,
    };
  }

  /** Stores what is new of a batch. @throws 404, 409 when an id is already taken by another event, 422 naming each bad event */
  async append(id: string, incoming: readonly object[]): Promise<{ stored: number; known: number }> {
    const session = await this.session(id);
    const clientIds = session.clients.map((client) => client.id);
    const now = new Date().toISOString();
    const problems: Problem[] = [];
    const events: SessionEvent[] = [];
    incoming.forEach((input, i) => {
      const checked = checkEvent(input, { sessionId: id, clientIds, startedAt: session.startedAt, now });
      if (checked.ok) events.push(checked.value);
      else problems.push(...checked.problems.map(({ path, message }) => ({ path: `events[${i}].${path}`, message })));
    });
    if (problems.length > 0) throw invalid(problems);
    return this.database.transaction(async (manager) => {
      const stored = manager.getRepository(EventEntity);
      const known = new Map(
        (await stored.findBy({ id: In(events.map((event) => event.id)) })).map((row) => [row.id, row.document]),
      );
      const fresh = new Map<string, SessionEvent>();
      for (const [i, event] of events.entries()) {
        const twin = known.get(event.id) ?? fresh.get(event.id);
        if (!twin) fresh.set(event.id, event);
        else if (JSON.stringify(twin) !== JSON.stringify(event))
          throw new ProblemException(409, 'An event with this id is already stored with other content.', [
            { path: `events[${i}].id`, message: 'is already used by another event' },
          ]);
      }
      await stored.insert(
        [...fresh.values()].map((event) => ({
          id: event.id,
          sessionId: id,
          counter: event.counter,
          document: event,
          receivedAt: now,
        })),
      );
      // Only these can end a session or open it again.
      if (!events.some(({ type }) => type === 'session-finished' || type === 'undone'))
        return { stored: fresh.size, known: events.length - fresh.size };
      const all = await stored.findBy({ sessionId: id });
      const { finishedAt } = fold(
        all.map((row) => row.document),
        clientIds,
      );
      if (finishedAt !== session.finishedAt) await manager.getRepository(SessionEntity).update({ id }, { finishedAt });
      return { stored: fresh.size, known: events.length - fresh.size };
    });
  }

  private async session(id: string): Promise<SessionEntity> {
    const session = await this.sessions.findOne({
      where: { id },
      relations: { clients: true },
      order: { clients: { name: 'ASC' } },
    });
    if (!session) throw notFound('session', id);
    return session;
  }
}
