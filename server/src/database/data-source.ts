/** The database as TypeORM knows it. Its connection migrates at start, and from then on reads: what writes is the write gate. */
import type Database from 'better-sqlite3';
import type { DataSourceOptions } from 'typeorm';

import { ClientEntity } from '../clients/client.entity.js';
import { StillEntity } from '../clients/still.entity.js';
import { MovementEntity, MovementVersionEntity } from '../movements/movement.entity.js';
import { PictureEntity } from '../movements/picture.entity.js';
import { PlanEntity } from '../plans/plan.entity.js';
import { DigestEntity, SessionEntity } from '../sessions/session.entities.js';
import { StudioEntity } from '../studio/studio.entity.js';
import { prepared } from './connection.js';
import { Causes1802000000000 } from './migrations/causes.js';
import { Demands1809000000000 } from './migrations/demands.js';
import { Door1806000000000 } from './migrations/door.js';
import { Equipped1800000000000 } from './migrations/equipped.js';
import { Feeds1807000000000 } from './migrations/feeds.js';
import { Floor1798000000000 } from './migrations/floor.js';
import { Holds1811000000000 } from './migrations/holds.js';
import { Initial1795000000000 } from './migrations/initial.js';
import { Left1812000000000 } from './migrations/left.js';
import { Library1796000000000 } from './migrations/library.js';
import { Looks1804000000000 } from './migrations/looks.js';
import { Places1801000000000 } from './migrations/places.js';
import { Planning1797000000000 } from './migrations/planning.js';
import { Reasons1803000000000 } from './migrations/reasons.js';
import { SessionKeeps1808000000000 } from './migrations/session-keeps.js';
import { Stills1805000000000 } from './migrations/stills.js';
import { Stored1799000000000 } from './migrations/stored.js';
import { Tempos1810000000000 } from './migrations/tempos.js';

export const MIGRATIONS = [
  Initial1795000000000,
  Library1796000000000,
  Planning1797000000000,
  Floor1798000000000,
  Stored1799000000000,
  Equipped1800000000000,
  Places1801000000000,
  Causes1802000000000,
  Reasons1803000000000,
  Looks1804000000000,
  Stills1805000000000,
  Door1806000000000,
  Feeds1807000000000,
  SessionKeeps1808000000000,
  Demands1809000000000,
  Tempos1810000000000,
  Holds1811000000000,
  Left1812000000000,
];

export const dataSourceOptions = (database: string, use: 'migrate' | 'read'): DataSourceOptions => ({
  type: 'better-sqlite3',
  database,
  enableWAL: use === 'migrate',
  prepareDatabase: (db: Database.Database) => {
    prepared(db);
    if (use === 'read') db.pragma('query_only = ON');
  },
  entities: [
    MovementEntity,
    MovementVersionEntity,
    PictureEntity,
    ClientEntity,
    StillEntity,
    SessionEntity,
    DigestEntity,
    StudioEntity,
    PlanEntity,
  ],
  migrations: MIGRATIONS,
  migrationsRun: use === 'migrate',
});
