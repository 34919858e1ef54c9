import type { Plan } from '@waxwing/core/planning';
import { Column, Entity, PrimaryColumn } from 'typeorm';

import { JsonColumn } from '../database/json-column.js';

/** Plans in which `:clientId` has a part, for a query on `plan`. */
export const WITH_CLIENT = `EXISTS (SELECT 1 FROM json_each(plan.document, '$.clientIds') WHERE value = :clientId)`;

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

  @JsonColumn()
  document: Plan;

  @Column('text')
  updatedAt: string;
}
