/** Steps back through a plan: what is typed into one field without leaving it is one step. */
import type { Plan } from '@waxwing/core/planning';

export interface Edited {
  plan: Plan;
  /** Earlier plans, the latest last. */
  past: readonly Plan[];
  /** The field that the last change was typed into; null for a change of another kind. */
  field: object | null;
}

const MOST_STEPS = 50;

export function changed({ plan, past, field }: Edited, next: Plan, typedInto: object | null): Edited {
  if (next === plan) return { plan, past, field };
  const same = typedInto !== null && typedInto === field;
  return { plan: next, past: same ? past : [...past, plan].slice(-MOST_STEPS), field: typedInto };
}

/** The plan before the last step; a change after it is a step of its own. */
export function undone(edited: Edited): Edited {
  const before = edited.past.at(-1);
  return before ? { plan: before, past: edited.past.slice(0, -1), field: null } : edited;
}
