/** Opens what lies sealed as rows are read, so that whoever reads an entity has it in plain. */
import type { EntitySubscriberInterface, LoadEvent, ObjectLiteral } from 'typeorm';

import { openedValue, SEALED } from './columns.js';
import type { Sealer } from './sealer.js';

export class Opening implements EntitySubscriberInterface {
  constructor(private readonly sealer: Sealer) {}

  /** One that does not open is undefined, as what is damaged in other ways is. */
  afterLoad(entity: ObjectLiteral, event?: LoadEvent<ObjectLiteral>): void {
    const table = event?.metadata.tableName ?? '';
    for (const column of Object.keys(SEALED[table]?.columns ?? {}))
      if (column in entity) entity[column] = openedValue(this.sealer, entity[column], table, column, entity);
  }
}
