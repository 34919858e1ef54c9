/** The statements of one transaction, synchronous, on a database of any kind: the studio's own, or a copy of it. */
import type Database from 'better-sqlite3';

import type { Sealer } from '../sealed/sealer.js';

export type Value = string | number | null | Buffer;

export class Statements {
  /** Whether this transaction changes what holds whatever backup is brought back. */
  outlasts = false;

  constructor(
    protected readonly db: Database.Database,
    readonly sealer: Sealer,
  ) {}

  run(sql: string, ...parameters: readonly Value[]): number {
    return this.db.prepare(sql).run(...parameters).changes;
  }

  all<T>(sql: string, ...parameters: readonly Value[]): T[] {
    return this.db.prepare<Value[], T>(sql).all(...parameters);
  }

  get<T>(sql: string, ...parameters: readonly Value[]): T | undefined {
    return this.db.prepare<Value[], T>(sql).get(...parameters);
  }
}
