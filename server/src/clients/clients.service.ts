/** Clients: who they are, their limits and their kit. Health notes leave the server only with the one client they belong to. */
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { BLANK_CLIENT, type Client, type ClientChange, type ClientSummary, type NewClient } from '@waxwing/core/client';
import { listedFor, type Visitor } from '@waxwing/core/door';
import { Repository } from 'typeorm';
import { v7 as uuidv7 } from 'uuid';

import { DamageService } from '../database/damage.service.js';
import { isWhole } from '../database/json-column.js';
import { WriteGate } from '../database/write-gate.js';
import { AccessService, givenTo } from '../door/access.service.js';
import { HouseRulesService } from '../movements/house-rules.service.js';
import { invalid, notFound, stale } from '../problems/problem.js';
import { ClientEntity } from './client.entity.js';
import { VisitsService } from './visits.service.js';

@Injectable()
export class ClientsService {
  constructor(
    @InjectRepository(ClientEntity) private readonly repository: Repository<ClientEntity>,
    private readonly houseRules: HouseRulesService,
    private readonly gate: WriteGate,
    private readonly damage: DamageService,
    private readonly access: AccessService,
    private readonly visits: VisitsService,
  ) {}

  async list(visitor: Visitor): Promise<ClientSummary[]> {
    const clients = await this.access.seen(visitor, await this.repository.find({ order: { name: 'ASC' } }));
    const visits = await this.visits.all();
    return clients.filter(isWhole).map(({ id, name, about, goal, limits, readiness, today }) =>
      listedFor(visitor, {
        id,
        name,
        about,
        goal,
        limits: limits.length,
        screened: readiness !== null,
        checkedOn: today?.on ?? null,
        ...visits(id),
      }),
    );
  }

  count(): Promise<number> {
    return this.repository.count();
  }

  /** @throws 404 */
  async read(id: string): Promise<Client> {
    const client = await this.repository.findOneBy({ id });
    if (!client) throw notFound('client', id);
    if (!isWhole(client)) throw this.damage.refuse('client', id, client.name);
    return told(client);
  }

  /** @throws 404 */
  async exists(id: string): Promise<void> {
    if (!(await this.repository.existsBy({ id }))) throw notFound('client', id);
  }

  async create(fields: NewClient, visitor: Visitor, id: string = uuidv7()): Promise<Client> {
    const now = new Date().toISOString();
    const { name, ...rest } = fields;
    this.houseRules.check(rest.houseRules ?? {});
    checkConsents(rest);
    const client = this.repository.create({
      ...BLANK_CLIENT,
      ...rest,
      id,
      version: 1,
      name: name.trim(),
      createdAt: now,
      updatedAt: now,
    });
    this.gate.write((writer) => {
      writer.insert(ClientEntity, client);
      // The owner sees everybody anyway.
      if (visitor.sees === 'own') givenTo(writer, id, visitor.id);
    });
    return told(client);
  }

  /** @throws 404, 409 when the version is stale */
  async edit(id: string, { version, ...fields }: ClientChange): Promise<Client> {
    if (fields.houseRules) this.houseRules.check(fields.houseRules);
    checkConsents(fields);
    const change = {
      ...fields,
      ...(fields.name === undefined ? {} : { name: fields.name.trim() }),
      version: version + 1,
      updatedAt: new Date().toISOString(),
    };
    const written = this.gate.write((writer) => writer.update<ClientEntity>(ClientEntity, { id, version }, change));
    const client = await this.read(id);
    if (written !== 1) throw stale('client', version, client.version);
    return client;
  }
}

/** A client without what only the store has to know. */
export const told = ({ createdAt: _, updatedAt: __, ...client }: ClientEntity): Client => client;

/** Nobody agrees in advance: it would count from a day on which they may think otherwise. Somewhere on earth it may be tomorrow already. */
function checkConsents(fields: Partial<Pick<Client, 'touchConsentOn' | 'filmConsentOn'>>): void {
  const tomorrow = new Date(Date.now() + 86_400_000).toISOString().slice(0, 10);
  const ahead = (['touchConsentOn', 'filmConsentOn'] as const).filter((path) => (fields[path] ?? '') > tomorrow);
  if (ahead.length > 0) throw invalid(ahead.map((path) => ({ path, message: 'is a day that has not come yet' })));
}
