import type { Movement } from '@waxwing/core/movement';
import { Column, Entity, PrimaryColumn } from 'typeorm';

import { JsonColumn } from '../database/json-column.js';

@Entity('movements')
export class MovementEntity {
  @PrimaryColumn('text')
  id: string;

  @Column('integer')
  version: number;

  @JsonColumn()
  document: Movement;

  /** When this version was saved. */
  @Column('text')
  updatedAt: string;

  /** Who saved this version; empty for the starter library. */
  @Column('text')
  author: string;

  /** Out of the library since then, but kept for the sessions that used it. */
  @Column('text', { nullable: true })
  archivedAt: string | null;
}

/** An earlier version of a movement, as it was when it was replaced. */
@Entity('movement_versions')
export class MovementVersionEntity {
  @PrimaryColumn('text')
  movementId: string;

  @PrimaryColumn('integer')
  version: number;

  @JsonColumn()
  document: Movement;

  @Column('text')
  author: string;

  @Column('text')
  savedAt: string;
}
