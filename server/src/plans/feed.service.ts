/** The planned hours of an account for calendar programs, by a link with a secret: only its hash is kept, and a new link ends the old one. */
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Visitor } from '@waxwing/core/door';
import type { Feed } from '@waxwing/core/planning';
import { DataSource, Repository } from 'typeorm';

import { isWhole } from '../database/json-column.js';
import { WriteGate } from '../database/write-gate.js';
import { SEEN_PLANS } from '../door/access.service.js';
import { hashOf, newToken } from '../door/secrets.js';
import { notFound, ProblemException } from '../problems/problem.js';
import { StudioEntity } from '../studio/studio.entity.js';
import { calendarOf } from './calendar.js';
import { PlanEntity } from './plan.entity.js';

const DAY_MS = 86_400_000;
/** Days that a calendar looks back and ahead. */
const DAYS = { back: 30, ahead: 366 } as const;
/** More than these no week has, and no year of one trainer. */
const MOST = 2_000;

@Injectable()
export class FeedService {
  constructor(
    @InjectRepository(PlanEntity) private readonly plans: Repository<PlanEntity>,
    @InjectRepository(StudioEntity) private readonly studios: Repository<StudioEntity>,
    private readonly database: DataSource,
    private readonly gate: WriteGate,
  ) {}

  async read({ id }: Visitor): Promise<Feed> {
    const [row] = await this.database.query<{ createdAt: string }[]>(
      'SELECT createdAt FROM feeds WHERE accountId = ?',
      [id],
    );
    return { since: row?.createdAt ?? null };
  }

  /** @returns the secret, which is told this once. @throws 409 where nobody has said yet who runs the studio */
  make({ id }: Visitor): string {
    const secret = newToken();
    this.gate.write((writer) => {
      if (!writer.get('SELECT 1 FROM accounts WHERE id = ?', id))
        throw new ProblemException(409, 'Say first who runs the studio: then the link is theirs.');
      writer.run(
        `INSERT INTO feeds (accountId, hash, createdAt) VALUES (?, ?, ?)
         ON CONFLICT (accountId) DO UPDATE SET hash = excluded.hash, createdAt = excluded.createdAt`,
        id,
        hashOf(secret),
        new Date().toISOString(),
      );
    });
    return secret;
  }

  end({ id }: Visitor): void {
    this.gate.write((writer) => writer.run('DELETE FROM feeds WHERE accountId = ?', id));
  }

  /** @throws 404 for a link that is none any more */
  async calendar(secret: string): Promise<string> {
    const [account] = await this.database.query<{ id: string; role: string }[]>(
      `SELECT id, role FROM accounts JOIN feeds ON feeds.accountId = accounts.id
       WHERE hash = ? AND shutOutAt IS NULL AND role <> 'assistant'`,
      [hashOf(secret)],
    );
    if (!account) throw notFound('calendar', 'of this link');
    const at = (days: number) => new Date(Date.now() + days * DAY_MS).toISOString();
    const query = this.plans
      .createQueryBuilder('plan')
      .where('plan.template = 0 AND plan.startsAt >= :from AND plan.startsAt < :to', {
        from: at(-DAYS.back),
        to: at(DAYS.ahead),
      })
      .orderBy('plan.startsAt')
      .limit(MOST);
    if (account.role !== 'owner') query.andWhere(SEEN_PLANS, { me: account.id });
    const studio = await this.studios.findOneByOrFail({ id: 1 });
    const plans = (await query.getMany()).filter(isWhole);
    return calendarOf(
      plans.map(({ id, version, updatedAt, document }) => ({ ...document, id, version, updatedAt })),
      studio.name,
    );
  }
}
