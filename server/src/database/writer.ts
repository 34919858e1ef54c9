/** The statements of one transaction, synchronous. Rows go in and out by their entities, as TypeORM knows them. */
import type Database from 'better-sqlite3';
import type { DataSource, EntityTarget, ObjectLiteral } from 'typeorm';

import { type Row, SEALED, sealedFor } from '../sealed/columns.js';
import type { Sealer } from '../sealed/sealer.js';
import { Statements, type Value } from './statements.js';

export class Writer extends Statements {
  constructor(
    db: Database.Database,
    private readonly source: DataSource,
    sealer: Sealer,
  ) {
    super(db, sealer);
  }

  insert<E extends ObjectLiteral>(entity: EntityTarget<E>, rows: Partial<E> | readonly Partial<E>[]): void {
    this.put('INSERT', entity, Array.isArray(rows) ? (rows as Partial<E>[]) : [rows as Partial<E>]);
  }

  /** Inserts, or replaces the row with the same key. */
  upsert<E extends ObjectLiteral>(entity: EntityTarget<E>, rows: readonly Partial<E>[]): void {
    this.put('UPSERT', entity, rows);
  }

  /** @returns how many rows there were */
  update<E extends ObjectLiteral>(entity: EntityTarget<E>, where: Partial<E>, change: Partial<E>): number {
    const set = this.columns(entity, change, { ...where, ...change });
    const at = this.columns(entity, where);
    const sql = `UPDATE ${this.table(entity)} SET ${names(set, ', ')} WHERE ${names(at, ' AND ')}`;
    return this.run(sql, ...values(set), ...values(at));
  }

  /** @returns how many rows there were */
  remove<E extends ObjectLiteral>(entity: EntityTarget<E>, where: Partial<E>): number {
    const at = this.columns(entity, where);
    return this.run(`DELETE FROM ${this.table(entity)} WHERE ${names(at, ' AND ')}`, ...values(at));
  }

  private put<E extends ObjectLiteral>(
    how: 'INSERT' | 'UPSERT',
    entity: EntityTarget<E>,
    rows: readonly Partial<E>[],
  ): void {
    const [first] = rows;
    if (!first) return;
    const keys = this.columns(entity, first).map(([name]) => name);
    const primary = this.source.getMetadata(entity).primaryColumns.map(({ databaseName }) => databaseName);
    const rest = keys.filter((key) => !primary.includes(key));
    const sql =
      `INSERT INTO ${this.table(entity)} (${keys.join(', ')}) VALUES (${keys.map(() => '?').join(', ')})` +
      (how === 'UPSERT'
        ? ` ON CONFLICT (${primary.join(', ')}) DO UPDATE SET ${rest.map((key) => `${key} = excluded.${key}`).join(', ')}`
        : '');
    const statement = this.db.prepare(sql);
    for (const row of rows) statement.run(...values(this.columns(entity, row)));
  }

  private table(entity: EntityTarget<ObjectLiteral>): string {
    return this.source.getMetadata(entity).tableName;
  }

  /** What is noted of somebody's health goes in sealed. */
  private sealed(entity: EntityTarget<ObjectLiteral>, column: string, value: Value, of: Row): Value {
    const table = this.table(entity);
    const goesSealed = value !== null && value !== '' && column in (SEALED[table]?.columns ?? {});
    return goesSealed ? sealedFor(this.sealer, String(value), table, column, of) : value;
  }

  /** @param of the row that they are of, for what is sealed in it */
  private columns<E extends ObjectLiteral>(entity: EntityTarget<E>, row: Partial<E>, of = row): [string, Value][] {
    const { columns } = this.source.getMetadata(entity);
    return columns.flatMap((column): [string, Value][] => {
      if (!(column.propertyName in row)) return [];
      const value: unknown = row[column.propertyName as keyof E];
      if (value === undefined) return [];
      const stored = this.source.driver.preparePersistentValue(value, column) as Value;
      return [[column.databaseName, this.sealed(entity, column.databaseName, stored, of)]];
    });
  }
}

const names = (columns: readonly [string, Value][], by: string): string =>
  columns.map(([name]) => `${name} = ?`).join(by);
const values = (columns: readonly [string, Value][]): Value[] => columns.map(([, value]) => value);
