import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { KitPiece, RuleChoices } from '@waxwing/core/movement';

@Entity('studio')
export class StudioEntity {
  @PrimaryColumn('integer')
  id: number;

  @Column('integer')
  version: number;

  @Column('text')
  name: string;

  @Column('text')
  trainer: string;

  @Column('simple-json')
  kit: KitPiece[];

  @Column('simple-json')
  houseRules: RuleChoices;

  /** What is done here in an emergency, in the studio's own words. */
  @Column('text')
  emergencyText: string;

  @Column('text')
  emergencyPhone: string;
}
