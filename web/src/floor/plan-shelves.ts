/** Where a plan stands on the floor's first page: today's by their time, done ones apart. */
import type { PlanSummary } from '@waxwing/core/planning';

import { today } from '../words/dates';

/** How long a plan without a time is offered after its last change, and how far ahead is looked. */
const DAYS = { back: 14, ahead: 8 } as const;

/** The span of time that is asked for: the start of a day, and of another one. */
export function spanOf(now = new Date()): [from: string, to: string] {
  const day = (offset: number) => new Date(now.getFullYear(), now.getMonth(), now.getDate() + offset).toISOString();
  return [day(-DAYS.back), day(DAYS.ahead)];
}

export interface Shelves {
  /** Today's that are still to come, or were not held, by their time. */
  todays: PlanSummary[];
  done: PlanSummary[];
  /** Of later days, the next first. */
  next: PlanSummary[];
  /** The latest changed first; one that was held is offered again, as it may be every week's. */
  undated: PlanSummary[];
}

/**
 * @param busy people who are in a session now: their plans wait
 * @param day today, YYYY-MM-DD, in the zone of this device
 */
export function shelve(plans: readonly PlanSummary[], busy: ReadonlySet<string>, day: string): Shelves {
  const dayOf = ({ startsAt }: PlanSummary) => startsAt && today(new Date(startsAt));
  const byTime = (a: PlanSummary, b: PlanSummary) => (a.startsAt ?? '').localeCompare(b.startsAt ?? '');
  const free = plans.filter(({ clients }) => clients.every(({ id }) => !busy.has(id)));
  const fresh = free.filter(({ session }) => !session);
  return {
    todays: fresh.filter((plan) => dayOf(plan) === day).toSorted(byTime),
    done: plans.filter((plan) => dayOf(plan) === day && plan.session?.finished).toSorted(byTime),
    next: fresh.filter((plan) => (dayOf(plan) ?? '') > day).toSorted(byTime),
    undated: free
      .filter(({ startsAt, session }) => startsAt === null && session?.finished !== false)
      .toSorted((a, b) => b.updatedAt.localeCompare(a.updatedAt)),
  };
}
