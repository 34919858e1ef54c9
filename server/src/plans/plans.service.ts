/** Plans: whole documents that core checks; what is listed is a column. Edits carry a version, and nothing stale overwrites. */
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { PlanSummary, StoredPlan } from '@waxwing/core/formats';
import type { Problem } from '@waxwing/core/movement';
import { checkPlan, DAY_MINUTES, secondsOf, timelineOf, type Plan } from '@waxwing/core/planning';
import { In, Repository } from 'typeorm';
import { v7 as uuidv7 } from 'uuid';
import { ClientEntity } from '../clients/client.entity.js';
import { LibraryService } from '../movements/library.service.js';
import { invalid, notFound, stale } from '../problems/problem.js';
import type { ListPlansQuery } from './plans.dto.js';
import { PlanEntity, planColumns, WITH_CLIENT } from './plan.entity.js';

const stored = ({ id, version, updatedAt, document }: PlanEntity): StoredPlan => ({
  ...document,
  id,
  version,
  updatedAt,
});

@Injectable()
export class PlansService {
  constructor(
    @InjectRepository(PlanEntity) private readonly repository: Repository<PlanEntity>,
    @InjectRepository(ClientEntity) private readonly clients: Repository<ClientEntity>,
    private readonly library: LibraryService,
  ) {}

  /** Latest change first. */
  async list({ clientId, limit }: ListPlansQuery): Promise<PlanSummary[]> {
    const query = this.repository
      .createQueryBuilder('plan')
      .orderBy('plan.updatedAt', 'DESC')
      .addOrderBy('plan.id')
      .limit(limit);
    if (clientId) query.where(WITH_CLIENT, { clientId });
    const plans = await query.getMany();
    const ids = [...new Set(plans.flatMap(({ document }) => document.clientIds))];
    const names = new Map((await this.clients.findBy({ id: In(ids) })).map(({ id, name }) => [id, name]));
    return plans.map(({ id, name, startsAt, template, updatedAt, document }) => ({
      id,
      name,
      startsAt,
      template,
      updatedAt,
      minutes: document.minutes,
      clients: document.clientIds.flatMap((one) => (names.has(one) ? [{ id: one, name: names.get(one) ?? '' }] : [])),
    }));
  }

  /** @throws 404 */
  async read(id: string): Promise<StoredPlan> {
    const plan = await this.repository.findOneBy({ id });
    if (!plan) throw notFound('plan', id);
    return stored(plan);
  }

  /** The same id sent again answers the plan that is there. @throws 422 */
  async create(input: object, id: string = uuidv7()): Promise<StoredPlan> {
    const known = await this.repository.findOneBy({ id });
    if (known) return stored(known);
    const plan = await this.checked(input);
    await this.repository.insert({ id, version: 1, ...planColumns(plan) });
    return this.read(id);
  }

  /** @throws 404, 409 when the version is stale, 422 */
  async edit(id: string, version: number, input: object): Promise<StoredPlan> {
    const plan = await this.checked(input);
    const result = await this.repository.update({ id, version }, { version: version + 1, ...planColumns(plan) });
    const now = await this.read(id);
    if (result.affected !== 1) throw stale('plan', version, now.version);
    return now;
  }

  /** @throws 404 */
  async remove(id: string): Promise<void> {
    if ((await this.repository.delete({ id })).affected !== 1) throw notFound('plan', id);
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
      items.forEach(({ lanes }, i) =>
        lanes.forEach(({ movementId, withId }, l) => {
          const path = `plan.blocks[${b}].items[${i}].lanes[${l}]`;
          if (!this.library.find(movementId))
            problems.push({ path: `${path}.movementId`, message: `no movement "${movementId}"` });
          if (withId !== null && !this.library.find(withId))
            problems.push({ path: `${path}.withId`, message: `no movement "${withId}"` });
        }),
      ),
    );
    if (problems.length > 0) throw invalid(problems);
    const seconds = secondsOf(timelineOf(plan, { find: (id) => this.library.summary(id), knows: () => true }));
    if (seconds > DAY_MINUTES * 60)
      throw invalid([{ path: 'plan.blocks', message: `take ${Math.round(seconds / 3600)} hours: longer than a day` }]);
    return plan;
  }
}
