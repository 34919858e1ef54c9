import type { KeptPlace } from '@waxwing/core/client';
import type { KitPiece, Looks, RuleChoices, Space } from '@waxwing/core/movement';
import { Column, Entity, PrimaryColumn } from 'typeorm';

import { JsonColumn } from '../database/json-column.js';

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

  @Column('text')
  space: Space;

  @JsonColumn()
  places: KeptPlace[];

  @JsonColumn()
  houseRules: RuleChoices;

  /** Who shows the movements; null for a mix of people. */
  @Column('text', { nullable: true })
  looks: Looks | null;

  /** What is done here in an emergency, in the studio's own words. */
  @Column('text')
  emergencyText: string;

  @Column('text')
  emergencyPhone: string;
}
