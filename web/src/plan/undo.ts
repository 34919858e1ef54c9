/** Steps back through a plan: letters typed in one go are one step. */
import type { Plan } from '@waxwing/core/planning';

export interface Edited {
  plan: Plan;
  /** Earlier plans, the latest last. */
  past: readonly Plan[];
  /** When it was last changed, in milliseconds. */
  at: number;
}

/** Changes closer together than this are one step. */
const ONE_GO_MS = 800;
const MOST_STEPS = 50;

export function changed({ plan, past, at }: Edited, next: Plan, now: number): Edited {
  if (next === plan) return { plan, past, at };
  const same = past.length > 0 && now - at < ONE_GO_MS;
  return { plan: next, past: same ? past : [...past, plan].slice(-MOST_STEPS), at: now };
}

/** The plan before the last step; a change after it is a step of its own. */
export function undone(edited: Edited): Edited {
  const before = edited.past.at(-1);
  return before ? { plan: before, past: edited.past.slice(0, -1), at: 0 } : edited;
}
