import { Column, Entity, PrimaryColumn } from 'typeorm';
import { JsonColumn } from '../database/json-column.js';
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

  @JsonColumn()
  kit: KitPiece[];

  @JsonColumn()
  houseRules: RuleChoices;

  /** What is done here in an emergency, in the studio's own words. */
  @Column('text')
  emergencyText: string;

  @Column('text')
  emergencyPhone: string;
}
