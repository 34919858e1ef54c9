/** What of a plan is private: what it is called, its note, and why a line is there, which may tell of a limit or of pain. */
import type { Plan, PlanLane } from './plan.js';

/** A plan for whoever may not know why somebody is limited: what is to be done, and no reasons. */
export const withoutWords = <P extends Pick<Plan, 'note' | 'blocks'>>(plan: P): P => ({
  ...plan,
  note: '',
  blocks: eachLane(plan.blocks, (lane) => ({ ...lane, why: [] })),
});

/** The words of a plan, apart from what is to be done. */
export interface PlanWords {
  name: string;
  note: string;
  /** Of every line, in the order of the plan. */
  why: PlanLane['why'][];
}

export const wordsOf = ({ name, note, blocks }: Plan): PlanWords => ({
  name,
  note,
  why: blocks.flatMap(({ items }) => items.flatMap(({ lanes }) => lanes.map(({ why }) => why))),
});

/** A plan with its words put back. @throws RangeError where they are of another plan */
export function withWords<P extends Plan>(bare: P, { name, note, why }: PlanWords): P {
  let next = 0;
  const blocks = eachLane(bare.blocks, (lane) => ({ ...lane, why: why[next++] ?? [] }));
  if (next !== why.length) throw new RangeError('these are the words of another plan');
  return { ...bare, name, note, blocks };
}

const eachLane = (blocks: Plan['blocks'], change: (lane: PlanLane) => PlanLane): Plan['blocks'] =>
  blocks.map((block) => ({
    ...block,
    items: block.items.map((item) => ({ ...item, lanes: item.lanes.map(change) })),
  }));
