import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { Plan } from '@waxwing/core/planning';

/** Plans in which `:clientId` has a part, for a query on `plan`. */
export const WITH_CLIENT = `EXISTS (SELECT 1 FROM json_each(plan.document, '$.clientIds') WHERE value = :clientId)`;

/** What is kept of a plan: the whole, and in columns what is listed. */
export const planColumns = (document: Plan) => ({
  name: document.name,
  startsAt: document.startsAt,
  template: document.template,
  document,
  updatedAt: new Date().toISOString(),
});

@Entity('plans')
export class PlanEntity {
  @PrimaryColumn('text')
  id: string;

  @Column('integer')
  version: number;

  @Column('text')
  name: string;

  @Column('text', { nullable: true })
  startsAt: string | null;

  @Column('boolean')
  template: boolean;

  @Column('simple-json')
  document: Plan;

  @Column('text')
  updatedAt: string;
}
