/** Opens what lies sealed as rows are read, so that whoever reads an entity has it in plain. */
import type { EntitySubscriberInterface, LoadEvent, ObjectLiteral } from 'typeorm';

import { parsed } from '../database/json-column.js';
import { JSON_COLUMNS } from './columns.js';
import { isSealed, SEALED, type Sealer } from './sealer.js';

export class Opening implements EntitySubscriberInterface {
  constructor(private readonly sealer: Sealer) {}

  /** One that does not open is undefined, as what is damaged in other ways is. */
  afterLoad(entity: ObjectLiteral, event?: LoadEvent<ObjectLiteral>): void {
    const table = event?.metadata.tableName ?? '';
    for (const column of SEALED[table] ?? []) {
      const value: unknown = entity[column];
      if (!isSealed(value)) continue;
      const where = `${table}.${column}`;
      const plain = this.sealer.open(value, where);
      entity[column] = plain !== undefined && JSON_COLUMNS.has(where) ? parsed(plain) : plain;
    }
  }
}
