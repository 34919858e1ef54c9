/** One vocabulary of causes: what was called in some four hundred ways has today's names, in each saved version too. */
import { upgradeMovement } from '@waxwing/core/movement';
import type { MigrationInterface, QueryRunner } from 'typeorm';

import { rewriteMovements } from './rewrite-movements.js';

export class Causes1802000000000 implements MigrationInterface {
  name = 'Causes1802000000000';

  up = (runner: QueryRunner): Promise<void> => rewriteMovements(runner, (document) => upgradeMovement(document, 2));

  /** Several names became one: there is no way back. */
  async down(): Promise<void> {}
}
