/** Pictures kept of a client's clips: in the database, so that they are exported, backed up and erased with the rest of the file. */
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { checkStill, clientOnDay, MOST_STILLS, type Still } from '@waxwing/core/client';
import { Repository } from 'typeorm';

import { WriteGate } from '../database/write-gate.js';
import type { Writer } from '../database/writer.js';
import { refused } from '../problems/document.js';
import { invalid, notFound } from '../problems/problem.js';
import { ClientsService } from './clients.service.js';
import { StillEntity } from './still.entity.js';

@Injectable()
export class StillsService {
  constructor(
    @InjectRepository(StillEntity) private readonly repository: Repository<StillEntity>,
    private readonly clients: ClientsService,
    private readonly gate: WriteGate,
  ) {}

  /** Latest first. */
  async of(clientId: string): Promise<Still[]> {
    const stills = await this.repository.find({ where: { clientId }, order: { takenAt: 'DESC', id: 'ASC' } });
    return stills.map(({ clientId: _, ...still }) => still);
  }

  /** @throws 404 */
  async list(clientId: string): Promise<Still[]> {
    await this.clients.exists(clientId);
    return this.of(clientId);
  }

  /** Sent twice it is kept once. @throws 404, 422 for what is no still, one too many, or somebody who has not agreed to be filmed */
  async add(clientId: string, input: unknown): Promise<Still> {
    const client = await this.clients.read(clientId);
    const { name } = client;
    const checked = checkStill(input);
    if (!checked.ok) throw refused(checked.problems);
    const still = checked.value;
    const today = new Date().toLocaleDateString('en-CA');
    if (!clientOnDay(client, today).mayFilm)
      throw invalid([{ path: 'clientId', message: `${name} has not agreed to be filmed` }]);
    this.gate.write((writer) => {
      const here = writer.get<{ clientId: string }>('SELECT clientId FROM stills WHERE id = ?', still.id);
      if (here?.clientId === clientId) return;
      if (here) throw invalid([{ path: 'id', message: 'is already used' }]);
      const count = writer.get<{ n: number }>('SELECT count(*) AS n FROM stills WHERE clientId = ?', clientId)?.n ?? 0;
      if (count >= MOST_STILLS)
        throw invalid([{ path: 'picture', message: `is one too many: ${name} has ${MOST_STILLS}; let one go first` }]);
      writer.insert(StillEntity, { ...still, clientId });
    });
    return still;
  }

  /** @throws 404 */
  remove(clientId: string, id: string): void {
    if (this.gate.write((writer) => writer.remove(StillEntity, { id, clientId })) === 0) throw notFound('picture', id);
    this.gate.scrub();
  }

  /** Those of a client's file. @throws 422 where one is here as somebody else's */
  bringBack(writer: Writer, clientId: string, stills: readonly Still[]): void {
    stills.forEach((still, i) => {
      if (writer.get('SELECT 1 FROM stills WHERE id = ?', still.id))
        throw invalid([{ path: `stills[${i}].id`, message: 'is already used by a picture that is here' }]);
      writer.insert(StillEntity, { ...still, clientId });
    });
  }
}
