/** Plans: whole documents that core checks; what is listed is a column. Edits carry a version, and nothing stale overwrites. */
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Visitor } from '@waxwing/core/door';
import { wrongPartsFor } from '@waxwing/core/dosage';
import { type DoseMode, wrongTempo } from '@waxwing/core/movement';
import {
  checkPlan,
  DAY_MINUTES,
  type Plan,
  type PlanLane,
  type PlanSummary,
  secondsOf,
  type StoredPlan,
  timelineOf,
} from '@waxwing/core/planning';
import type { Problem } from '@waxwing/core/schema';
import { In, Repository } from 'typeorm';
import { v7 as uuidv7 } from 'uuid';

import { ClientEntity } from '../clients/client.entity.js';
import { DamageService } from '../database/damage.service.js';
import { isWhole } from '../database/json-column.js';
import { WriteGate } from '../database/write-gate.js';
import { SEEN_PLANS } from '../door/access.service.js';
import { LibraryService } from '../movements/library.service.js';
import { cursorOf, type Page, readCursor } from '../problems/cursor.js';
import { invalid, notFound, stale } from '../problems/problem.js';
import { PlanEntity, WITH_CLIENT } from './plan.entity.js';
import { planColumns } from './plan-columns.js';
import type { ListPlansQuery } from './plans.dto.js';

/** The time that plans are listed by; there is an index on it. */
const TIME = 'coalesce(plan.startsAt, plan.updatedAt)';

const stored = ({ id, version, updatedAt, document }: PlanEntity): StoredPlan => ({
  ...document,
  id,
  version,
  updatedAt,
});

/** Sessions of the plans of a span of time are looked for no further back: the cost must not grow with the studio. */
const LOOKED_BACK_MS = 31 * 86_400_000;

@Injectable()
export class PlansService {
  constructor(
    @InjectRepository(PlanEntity) private readonly repository: Repository<PlanEntity>,
    @InjectRepository(ClientEntity) private readonly clients: Repository<ClientEntity>,
    private readonly library: LibraryService,
    private readonly gate: WriteGate,
    private readonly damage: DamageService,
  ) {}

  /** Plans by their time, the latest first; those without one, and templates, by their last change. */
  async list(
    { clientId, kind, cursor, limit, from, to }: ListPlansQuery,
    visitor: Visitor,
  ): Promise<Page<PlanSummary>> {
    const after = readCursor(cursor, 2);
    const query = this.repository
      .createQueryBuilder('plan')
      .where('plan.template = :template', { template: kind === 'templates' ? 1 : 0 })
      .orderBy(TIME, 'DESC')
      .addOrderBy('plan.id', 'DESC')
      .limit(limit + 1);
    if (visitor.sees === 'own') query.andWhere(SEEN_PLANS, { me: visitor.id });
    if (clientId) query.andWhere(WITH_CLIENT, { clientId });
    if (from) query.andWhere(`${TIME} >= :from`, { from });
    if (to) query.andWhere(`${TIME} < :to`, { to });
    if (after) query.andWhere(`(${TIME}, plan.id) < (:time, :id)`, { time: after[0], id: after[1] });
    const found = await query.getMany();
    const last = found.length > limit ? found[limit - 1] : undefined;
    const plans = found.slice(0, limit).filter(isWhole);
    const ids = [...new Set(plans.flatMap(({ document }) => document.clientIds))];
    const names = new Map((await this.clients.findBy({ id: In(ids) })).map(({ id, name }) => [id, name]));
    const sessions = from ? await this.sessionsFrom(from) : new Map<string, { id: string; finished: boolean }>();
    const items = plans.map(({ id, name, startsAt, template, updatedAt, document }) => ({
      id,
      name,
      startsAt,
      template,
      updatedAt,
      minutes: document.minutes,
      filled: Math.round(this.secondsOf(document) / 60),
      clients: document.clientIds.flatMap((one) => (names.has(one) ? [{ id: one, name: names.get(one) ?? '' }] : [])),
      session: sessions.get(id) ?? null,
    }));
    return { items, nextCursor: last ? cursorOf(last.startsAt ?? last.updatedAt, last.id) : null };
  }

  /** By plan, the latest session since a time that was held by it; of a studio's long past none is looked for. */
  private async sessionsFrom(from: string): Promise<Map<string, { id: string; finished: boolean }>> {
    const rows = await this.repository.query<{ id: string; planId: string | null; finishedAt: string | null }[]>(
      `SELECT id, programme ->> 'planId' AS planId, finishedAt FROM sessions
       WHERE startedAt >= ? AND json_valid(programme) ORDER BY startedAt`,
      [[from, new Date(Date.now() - LOOKED_BACK_MS).toISOString()].toSorted().at(-1)],
    );
    return new Map(
      rows.flatMap(({ id, planId, finishedAt }) => (planId ? [[planId, { id, finished: finishedAt !== null }]] : [])),
    );
  }

  /** @throws 404 */
  async read(id: string): Promise<StoredPlan> {
    const plan = await this.repository.findOneBy({ id });
    if (!plan) throw notFound('plan', id);
    if (!isWhole(plan)) throw this.damage.refuse('plan', id, plan.name);
    return stored(plan);
  }

  /** The same id sent again answers the plan that is there. @throws 422 */
  async create(input: object, id: string = uuidv7()): Promise<StoredPlan> {
    const known = await this.repository.findOneBy({ id });
    if (known) return stored(known);
    const plan = await this.checked(input);
    this.gate.write((writer) => {
      // The same plan may have been sent twice at once.
      if (!writer.get('SELECT 1 FROM plans WHERE id = ?', id))
        writer.insert(PlanEntity, { id, version: 1, ...planColumns(plan) });
    });
    return this.read(id);
  }

  /** @throws 404, 409 when the version is stale, 422 */
  async edit(id: string, version: number, input: object): Promise<StoredPlan> {
    const plan = await this.checked(input);
    const written = this.gate.write((writer) =>
      writer.update(PlanEntity, { id, version }, { version: version + 1, ...planColumns(plan) }),
    );
    const now = await this.read(id);
    if (written !== 1) throw stale('plan', version, now.version);
    return now;
  }

  /** @throws 404 */
  remove(id: string): void {
    if (this.gate.write((writer) => writer.remove(PlanEntity, { id })) !== 1) throw notFound('plan', id);
  }

  /** What core checks, and what only the studio knows: its clients, its movements, and that a plan ends within a day. */
  private async checked(input: object): Promise<Plan> {
    const checked = checkPlan(input);
    if (!checked.ok) throw invalid(checked.problems.map(({ path, message }) => ({ path: `plan.${path}`, message })));
    const plan = checked.value;
    const clients = await this.clients.findBy({ id: In(plan.clientIds) });
    const problems: Problem[] = plan.clientIds.flatMap((id, i) =>
      clients.some((client) => client.id === id)
        ? []
        : [{ path: `plan.clientIds[${i}]`, message: 'is not a client of this studio' }],
    );
    plan.blocks.forEach(({ items }, b) =>
      items.forEach(({ lanes, baseId }, i) => {
        if (baseId !== undefined && !this.library.find(baseId))
          problems.push({ path: `plan.blocks[${b}].items[${i}].baseId`, message: `no movement "${baseId}"` });
        lanes.forEach((lane, l) => problems.push(...this.wrongLane(lane, `plan.blocks[${b}].items[${i}].lanes[${l}]`)));
      }),
    );
    if (problems.length > 0) throw invalid(problems);
    const seconds = this.secondsOf(plan);
    if (seconds > DAY_MINUTES * 60)
      throw invalid([{ path: 'plan.blocks', message: `take ${Math.round(seconds / 3600)} hours: longer than a day` }]);
    return plan;
  }

  /** How long a plan takes somebody who knows all of it. */
  private secondsOf(plan: Plan): number {
    return secondsOf(timelineOf(plan, { find: (id) => this.library.summary(id), knows: () => true }));
  }

  /** What only the library knows of a lane: that its movements are there, and that they can be done at such a dose. */
  private wrongLane({ movementId, withId, tempo, parts, bySet = [] }: PlanLane, path: string): Problem[] {
    const problems: Problem[] = [];
    const known = (id: string, at: string) => {
      const movement = this.library.find(id);
      if (!movement) problems.push({ path: at, message: `no movement "${id}"` });
      return movement;
    };
    const movement = known(movementId, `${path}.movementId`);
    const tempoFits = (at: string, of: string, mode: DoseMode | undefined) => {
      const wrong = mode && wrongTempo({ mode, tempo: of });
      if (wrong) problems.push({ path: at, message: wrong });
    };
    tempoFits(`${path}.tempo`, tempo, movement?.dose.mode);
    const unfit = movement && parts && wrongPartsFor(movement.dose.mode, parts);
    if (unfit) problems.push({ path: `${path}.parts`, message: unfit });
    if (withId !== null) known(withId, `${path}.withId`);
    bySet.forEach((change, n) => {
      const at = `${path}.bySet[${n}]`;
      const varied = change.movementId === undefined ? movement : known(change.movementId, `${at}.movementId`);
      if (change.side && varied && varied.sides !== 'each')
        problems.push({ path: `${at}.side`, message: 'is for movements that have one side after the other' });
      tempoFits(`${at}.tempo`, change.tempo ?? tempo, varied?.dose.mode);
    });
    return problems;
  }
}
