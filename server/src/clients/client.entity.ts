import type { Benchmark, Cleared, Client, DayKind, PainOver, ReadinessCheck, TodayCheck } from '@waxwing/core/client';
import type { KitPiece, Limit, Looks, RuleChoices, Space } from '@waxwing/core/movement';
import { Column, Entity, PrimaryColumn } from 'typeorm';

import { JsonColumn } from '../database/json-column.js';

@Entity('clients')
export class ClientEntity implements Client {
  @PrimaryColumn('text')
  id: string;

  @Column('integer')
  version: number;

  @Column('text')
  name: string;

  @Column('text')
  about: string;

  @Column('text')
  goal: string;

  @Column('text')
  healthNote: string;

  @Column('text', { nullable: true })
  touchConsentOn: string | null;

  @Column('text', { nullable: true })
  filmConsentOn: string | null;

  @Column('text')
  email: string;

  @Column('text')
  note: string;

  @Column('integer', { nullable: true })
  trainingYears: number | null;

  @Column('real', { nullable: true })
  bodyKg: number | null;

  @Column('text', { nullable: true })
  dayMostly: DayKind | null;

  @Column('text', { nullable: true })
  looks: Looks | null;

  @Column('text')
  unit: 'kg' | 'lb';

  @JsonColumn({ nullable: true })
  readiness: ReadinessCheck | null;

  @JsonColumn({ nullable: true })
  today: TodayCheck | null;

  @JsonColumn()
  benchmarks: Benchmark[];

  @JsonColumn()
  limits: Limit[];

  @JsonColumn()
  cleared: Cleared[];

  @JsonColumn()
  painsOver: PainOver[];

  @JsonColumn()
  kit: KitPiece[];

  @Column('text')
  homeSpace: Space;

  @JsonColumn()
  houseRules: RuleChoices;

  @Column('text')
  createdAt: string;

  @Column('text')
  updatedAt: string;
}
