import { Column, Entity, PrimaryColumn } from 'typeorm';

@Entity('stills')
export class StillEntity {
  @PrimaryColumn('text')
  id: string;

  @Column('text')
  clientId: string;

  @Column('text')
  takenAt: string;

  @Column('text')
  movementId: string;

  @Column('text')
  says: string;

  @Column('text')
  picture: string;
}
