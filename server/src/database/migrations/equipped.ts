/** Movements of earlier versions in the shape of today, each saved version too: options of kit that can ask for more, and words to say apart from what to do. */
import { upgradeMovement } from '@waxwing/core/movement';
import type { MigrationInterface, QueryRunner } from 'typeorm';

import { rewriteMovements } from './rewrite-movements.js';

export class Equipped1800000000000 implements MigrationInterface {
  name = 'Equipped1800000000000';

  up = (runner: QueryRunner): Promise<void> => rewriteMovements(runner, (document) => upgradeMovement(document, 1));

  /** The shape of before could not hold what may have been written since. */
  async down(): Promise<void> {}
}
