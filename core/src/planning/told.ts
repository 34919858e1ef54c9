/** What of a plan is private: its note, and why a line is there, which may tell of a limit or of pain. */
import type { Plan } from './plan.js';

/** A plan for whoever may not know why somebody is limited: what is to be done, and no reasons. */
export const withoutWords = <P extends Pick<Plan, 'note' | 'blocks'>>(plan: P): P => ({
  ...plan,
  note: '',
  blocks: plan.blocks.map((block) => ({
    ...block,
    items: block.items.map((item) => ({ ...item, lanes: item.lanes.map((lane) => ({ ...lane, why: [] })) })),
  })),
});
