import { Column, Entity, JoinTable, ManyToMany, PrimaryColumn } from 'typeorm';
import type { Programme, SessionEvent } from '@waxwing/core/session';
import { ClientEntity } from '../clients/client.entity.js';

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
  @Column('simple-json', { nullable: true })
  programme: Programme | null;

  @ManyToMany(() => ClientEntity)
  @JoinTable({ name: 'session_clients', joinColumn: { name: 'sessionId' }, inverseJoinColumn: { name: 'clientId' } })
  clients: ClientEntity[];
}

@Entity('events')
export class EventEntity {
  @PrimaryColumn('text')
  id: string;

  @Column('text')
  sessionId: string;

  @Column('integer')
  counter: number;

  @Column('simple-json')
  document: SessionEvent;

  @Column('text')
  receivedAt: string;
}
