/** Sessions: who takes part, by which plan, and what happened, piece by piece. */
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { placeOf } from '@waxwing/core/client';
import type { Visitor } from '@waxwing/core/door';
import { planWith, rotationsOf } from '@waxwing/core/planning';
import type { Problem } from '@waxwing/core/schema';
import {
  believable,
  checkProgramme,
  type ListedSession,
  type Programme,
  type SessionSummary,
  type SessionView,
} from '@waxwing/core/session';
import { DataSource, In, Repository } from 'typeorm';
import { v7 as uuidv7 } from 'uuid';

import { ClientEntity } from '../clients/client.entity.js';
import { DamageService } from '../database/damage.service.js';
import { WriteGate } from '../database/write-gate.js';
import { FLOOR_SESSIONS, SEEN_SESSIONS } from '../door/access.service.js';
import { LibraryService } from '../movements/library.service.js';
import { PlanEntity } from '../plans/plan.entity.js';
import { cursorOf, type Page, readCursor } from '../problems/cursor.js';
import { invalid, notFound, ProblemException } from '../problems/problem.js';
import { StudioEntity } from '../studio/studio.entity.js';
import { DigestsService } from './digests.service.js';
import { EventsService } from './events.service.js';
import { SessionEntity } from './session.entities.js';
import type { ListSessionsQuery, StartSessionDto } from './sessions.dto.js';

const summaryOf = ({ id, startedAt, finishedAt, clients }: SessionEntity): SessionSummary => ({
  id,
  startedAt,
  finishedAt,
  clients: clients.map((client) => ({ id: client.id, name: client.name })),
});

/** A session that a device brings back is at most so old, in days. */
const OLDEST_AGAIN = 60;

@Injectable()
export class SessionsService {
  constructor(
    @InjectRepository(SessionEntity) private readonly sessions: Repository<SessionEntity>,
    private readonly database: DataSource,
    private readonly gate: WriteGate,
    private readonly library: LibraryService,
    private readonly events: EventsService,
    private readonly digests: DigestsService,
    private readonly damage: DamageService,
  ) {}

  /** Latest first; on a tablet of the floor those of today. */
  async list(
    { clientId, status, cursor, limit, from, to }: ListSessionsQuery,
    visitor: Visitor,
    onTablet: boolean,
  ): Promise<Page<ListedSession>> {
    const after = readCursor(cursor, 2);
    const where = [
      ...(clientId ? ['id IN (SELECT sessionId FROM session_clients WHERE clientId = :clientId)'] : []),
      ...(status ? [`finishedAt IS ${status === 'open' ? '' : 'NOT '}NULL`] : []),
      ...(from ? ['startedAt >= :from'] : []),
      ...(to ? ['startedAt < :to'] : []),
      ...(visitor.sees === 'own' ? [SEEN_SESSIONS] : []),
      ...(onTablet ? [FLOOR_SESSIONS.sql] : []),
      ...(after ? ['(startedAt, id) < (:startedAt, :id)'] : []),
    ];
    const query = this.sessions
      .createQueryBuilder('session')
      .select('session.id')
      .orderBy('session.startedAt', 'DESC')
      .addOrderBy('session.id', 'DESC')
      .limit(limit + 1);
    if (where.length > 0)
      query.where(where.join(' AND '), {
        clientId,
        me: visitor.id,
        today: FLOOR_SESSIONS.today(),
        from,
        to,
        startedAt: after?.[0],
        id: after?.[1],
      });
    const ids = (await query.getMany()).map((session) => session.id);
    const found = await this.sessions.find({
      // A list needs no programmes.
      select: { id: true, startedAt: true, finishedAt: true, clients: { id: true, name: true } },
      where: { id: In(ids.slice(0, limit)) },
      relations: { clients: true },
      order: { startedAt: 'DESC', id: 'DESC', clients: { name: 'ASC' } },
    });
    const last = found.at(-1);
    const done = await this.digests.doneIn(found.map(({ id }) => id));
    return {
      items: found.map((session) => ({ ...summaryOf(session), movements: [...(done.get(session.id) ?? [])] })),
      nextCursor: ids.length > limit && last ? cursorOf(last.startedAt, last.id) : null,
    };
  }

  /** Starts a session; the same id sent again answers the session that is there. @throws 410 for one that was deleted, 422 */
  async start({
    id = uuidv7(),
    clientIds,
    planId,
    startedAt,
    again,
    programme,
  }: StartSessionDto): Promise<SessionView> {
    if (await this.sessions.existsBy({ id })) return this.read(id);
    const now = new Date();
    const oldest = again ? new Date(now.getTime() - OLDEST_AGAIN * 86_400_000).toISOString() : now.toISOString();
    if (Number.isNaN(Date.parse(startedAt)) || !believable(startedAt, oldest, now.toISOString()))
      throw invalid([{ path: 'startedAt', message: 'is not a time near now: check the clock of this device' }]);
    const clients = await this.database.getRepository(ClientEntity).findBy({ id: In(clientIds) });
    const missing = clientIds.flatMap((clientId, i): Problem[] =>
      clients.some((client) => client.id === clientId)
        ? []
        : [{ path: `clientIds[${i}]`, message: 'is not a client of this studio' }],
    );
    if (missing.length > 0) throw invalid(missing);
    const whole =
      programme === undefined
        ? planId === undefined
          ? null
          : await this.programmeOf(planId, clients)
        : this.broughtBack(programme, clientIds);
    this.gate.write((writer) => {
      // Two devices may have come here at once.
      if (writer.get('SELECT 1 FROM sessions WHERE id = ?', id)) return;
      if (writer.get('SELECT 1 FROM erased WHERE id = ?', id))
        throw new ProblemException(410, 'This session was deleted for good.');
      writer.insert(SessionEntity, {
        id,
        startedAt: new Date(startedAt).toISOString(),
        finishedAt: null,
        programme: whole,
        place: 0,
        digested: 0,
      });
      for (const clientId of clientIds)
        writer.run('INSERT INTO session_clients (sessionId, clientId) VALUES (?, ?)', id, clientId);
    });
    return this.read(id);
  }

  /** The programme of a session that only a device still has. @throws 422 */
  private broughtBack(input: object, clientIds: readonly string[]): Programme {
    const checked = checkProgramme(input);
    if (!checked.ok)
      throw invalid(checked.problems.map(({ path, message }) => ({ path: `programme.${path}`, message })));
    if (clientIds.some((clientId) => !checked.value.plan.clientIds.includes(clientId)))
      throw invalid([{ path: 'clientIds', message: 'must all be in the programme' }]);
    return checked.value;
  }

  /** A plan as it is now, with the rotations that its kit asks for. @throws 422 */
  private async programmeOf(planId: string, clients: readonly ClientEntity[]): Promise<Programme> {
    const clientIds = clients.map(({ id }) => id);
    const plan = await this.database.getRepository(PlanEntity).findOneBy({ id: planId });
    if (!plan) throw invalid([{ path: 'planId', message: 'is not a plan of this studio' }]);
    const { document } = plan;
    if (clientIds.some((clientId) => !document.clientIds.includes(clientId)))
      throw invalid([{ path: 'clientIds', message: 'must all be in the plan' }]);
    const {
      kit = [],
      places = [],
      ...studio
    } = await this.database.getRepository(StudioEntity).findOneByOrFail({ id: 1 });
    const here = planWith(document, clientIds);
    const place = placeOf(here.place, { ...studio, kit, places }, clients);
    const context = { find: (movementId: string) => this.library.summary(movementId), knows: () => true };
    return { planId, plan: here, rotations: rotationsOf(here, place.kit, context) };
  }

  /** A session with the first piece of its events. @throws 404 */
  async read(id: string): Promise<SessionView> {
    const session = await this.session(id);
    return { ...summaryOf(session), programme: session.programme, ...(await this.events.after(id, 0)) };
  }

  /** @throws 404 */
  async session(id: string): Promise<SessionEntity> {
    const session = await this.sessions.findOne({
      where: { id },
      relations: { clients: true },
      order: { clients: { name: 'ASC' } },
    });
    if (!session) throw notFound('session', id);
    // Without its plan a session is still a session.
    if (session.programme === undefined) {
      this.damage.refuse('session', id, `of ${session.startedAt.slice(0, 10)}`);
      session.programme = null;
    }
    return session;
  }
}
