/** The database: SQLite in WAL mode, foreign keys on, every commit on disk before it is acknowledged, migrations only. */
import Database from 'better-sqlite3';
import { existsSync } from 'node:fs';
import type { DataSourceOptions } from 'typeorm';
import { ClientEntity } from '../clients/client.entity.js';
import { StartError } from '../config.js';
import { MovementEntity, MovementVersionEntity } from '../movements/movement.entity.js';
import { PictureEntity } from '../movements/picture.entity.js';
import { PlanEntity } from '../plans/plan.entity.js';
import { EventEntity, SessionEntity } from '../sessions/session.entities.js';
import { StudioEntity } from '../studio/studio.entity.js';
import { Floor1798000000000 } from './migrations/floor.js';
import { Initial1795000000000 } from './migrations/initial.js';
import { Library1796000000000 } from './migrations/library.js';
import { Planning1797000000000 } from './migrations/planning.js';

export const dataSourceOptions = (database: string): DataSourceOptions => ({
  type: 'better-sqlite3',
  database,
  enableWAL: true,
  prepareDatabase: (db: Database.Database) => {
    db.pragma('foreign_keys = ON');
    db.pragma('synchronous = FULL');
  },
  entities: [
    MovementEntity,
    MovementVersionEntity,
    PictureEntity,
    ClientEntity,
    SessionEntity,
    EventEntity,
    StudioEntity,
    PlanEntity,
  ],
  migrations: [Initial1795000000000, Library1796000000000, Planning1797000000000, Floor1798000000000],
  migrationsRun: true,
});

/** Looks at an existing database before anything is opened on it. @throws StartError when it is damaged. */
export function checkDatabase(database: string): void {
  if (!existsSync(database)) return;
  let verdict: unknown;
  try {
    const db = new Database(database, { fileMustExist: true });
    try {
      verdict = db.pragma('quick_check', { simple: true });
    } finally {
      db.close();
    }
  } catch (error) {
    verdict = error instanceof Error ? error.message : String(error);
  }
  if (verdict !== 'ok')
    throw new StartError(
      `The database ${database} is damaged (${String(verdict).split('\n')[0]}). Put a backup in its place, or move it away to start anew.`,
    );
}
