/** Why a line of a plan is there was one sentence; it is kept as codes now, and what was written before as it was. */
import { whyOf } from '@waxwing/core/planning';
import type { MigrationInterface, QueryRunner } from 'typeorm';

interface OldPlan {
  blocks: { items: { lanes: { why: unknown }[] }[] }[];
}

export class Reasons1803000000000 implements MigrationInterface {
  name = 'Reasons1803000000000';

  async up(runner: QueryRunner): Promise<void> {
    // What cannot be read stays as it lies: it is named as damaged, and not lost.
    const plans = (await runner.query(
      `SELECT id, document FROM plans WHERE json_valid(document) AND json_type(document, '$.blocks') = 'array'`,
    )) as { id: string; document: string }[];
    for (const { id, document } of plans) {
      const plan = JSON.parse(document) as OldPlan;
      await runner.query(`UPDATE plans SET document = ? WHERE id = ?`, [JSON.stringify(withCodes(plan)), id]);
    }
    const sessions = (await runner.query(
      `SELECT id, programme FROM sessions
        WHERE programme IS NOT NULL AND json_valid(programme) AND json_type(programme, '$.plan.blocks') = 'array'`,
    )) as { id: string; programme: string }[];
    for (const { id, programme } of sessions) {
      const whole = JSON.parse(programme) as { plan: OldPlan };
      await runner.query(`UPDATE sessions SET programme = ? WHERE id = ?`, [
        JSON.stringify({ ...whole, plan: withCodes(whole.plan) }),
        id,
      ]);
    }
  }

  /** A code says more than the sentence did: there is no way back. */
  async down(): Promise<void> {}
}

const withCodes = (plan: OldPlan): OldPlan => ({
  ...plan,
  blocks: plan.blocks.map((block) => ({
    ...block,
    items: block.items.map((item) => ({
      ...item,
      lanes: item.lanes.map((lane) => ({ ...lane, why: typeof lane.why === 'string' ? whyOf(lane.why) : lane.why })),
    })),
  })),
});
