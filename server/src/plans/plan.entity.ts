import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { Plan } from '@waxwing/core/planning';

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
