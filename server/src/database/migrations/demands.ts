/**
 * Demands told apart: load on a long, leaning back from load on a bent one, and what was never asked of hips, belly, knees and pulse. What a
 * stored movement did not say is worked out to the safe side. Conditions end by somebody's word, which is kept.
 */
import { upgradeMovement } from '@waxwing/core/movement';
import type { MigrationInterface, QueryRunner } from 'typeorm';

import { rewriteMovements } from './rewrite-movements.js';

export class Demands1809000000000 implements MigrationInterface {
  name = 'Demands1809000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE clients ADD COLUMN cleared TEXT NOT NULL DEFAULT '[]'`);
    // Limits lie sealed: they are brought up to date once the key is at hand.
    await runner.query(`ALTER TABLE meta ADD COLUMN limitsForm INTEGER NOT NULL DEFAULT 1`);
    await rewriteMovements(runner, (document) => upgradeMovement(document, 3));
  }

  /** A limit on more than before is not made less: there is no way back for those. */
  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE meta DROP COLUMN limitsForm`);
    await runner.query(`ALTER TABLE clients DROP COLUMN cleared`);
  }
}
