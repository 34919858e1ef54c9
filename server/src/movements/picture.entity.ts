import { Column, Entity, PrimaryColumn } from 'typeorm';

@Entity('pictures')
export class PictureEntity {
  @PrimaryColumn('text')
  id: string;

  @Column('text')
  movementId: string;

  @Column('text')
  type: string;

  @Column('integer')
  bytes: number;

  @Column('text')
  caption: string;

  @Column('text')
  addedAt: string;
}
