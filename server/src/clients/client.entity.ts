import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { Benchmark, ReadinessCheck, TodayCheck } from '@waxwing/core/coaching';
import type { Client } from '@waxwing/core/formats';
import type { KitPiece, Limit, RuleChoices } from '@waxwing/core/movement';

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

  @Column('text')
  unit: 'kg' | 'lb';

  @Column('simple-json', { nullable: true })
  readiness: ReadinessCheck | null;

  @Column('simple-json', { nullable: true })
  today: TodayCheck | null;

  @Column('simple-json')
  benchmarks: Benchmark[];

  @Column('simple-json')
  limits: Limit[];

  @Column('simple-json')
  kit: KitPiece[];

  @Column('simple-json')
  houseRules: RuleChoices;

  @Column('text')
  createdAt: string;

  @Column('text')
  updatedAt: string;
}
