import type { Digest, Programme } from '@waxwing/core/session';
import { Column, Entity, JoinTable, ManyToMany, PrimaryColumn } from 'typeorm';

import { ClientEntity } from '../clients/client.entity.js';
import { JsonColumn } from '../database/json-column.js';

@Entity('sessions')
export class SessionEntity {
  @PrimaryColumn('text')
  id: string;

  @Column('text')
  startedAt: string;

  /** Derived from the events whenever some are added. */
  @Column('text', { nullable: true })
  finishedAt: string | null;

  /** The plan that it began with, as it was then. */
  @JsonColumn({ nullable: true })
  programme: Programme | null;

  /** The place of its latest event in the store. */
  @Column('integer')
  place: number;

  /** The place up to which what it teaches was digested. */
  @Column('integer')
  digested: number;

  @ManyToMany(() => ClientEntity)
  @JoinTable({ name: 'session_clients', joinColumn: { name: 'sessionId' }, inverseJoinColumn: { name: 'clientId' } })
  clients: ClientEntity[];
}

/** What a session teaches about one client. */
@Entity('digests')
export class DigestEntity {
  @PrimaryColumn('text')
  clientId: string;

  @PrimaryColumn('text')
  sessionId: string;

  @Column('integer')
  version: number;

  @JsonColumn()
  document: Digest;
}
