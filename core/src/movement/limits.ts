/**
 * Demands against limits: the one comparison that planning, substitution and the floor share.
 * A limit says how much of a demand (0–3) a client may meet, for good or until a date, and why.
 */
import { demandWords } from './words.js';
import { usableOption } from './kit.js';
import type { KitNeed } from './schema.js';
import type { Demand, KitItem } from './vocabulary.js';

export interface Limit {
  demand: Demand;
  /** Most that is allowed: 0 none, 1 a little, 2 clearly. */
  allowed: number;
  reason: string;
  /** Last day it holds (YYYY-MM-DD); without it the limit lasts. */
  until?: string | null;
}

export type Demands = Readonly<Partial<Record<Demand, number>>>;

/** `closed`: asks more than is allowed; `care`: asks exactly the most that is allowed; `open`: nothing stands against it. */
export type Openness = 'open' | 'care' | 'closed';

export interface Fit {
  status: Openness;
  /** In words, the limits that made it closed or a matter of care. */
  because: string[];
}

/** The limits that hold on `day` (YYYY-MM-DD). */
export const limitsOn = (limits: readonly Limit[], day: string): Limit[] =>
  limits.filter((limit) => !limit.until || day <= limit.until);

/** The same comparison without its words, for looking over a whole library. */
export function opennessFor(demands: Demands, limits: readonly Limit[]): Openness {
  let status: Openness = 'open';
  for (const limit of limits) {
    const asked = demands[limit.demand] ?? 0;
    if (asked > limit.allowed) return 'closed';
    if (asked > 0 && asked === limit.allowed) status = 'care';
  }
  return status;
}

/** Whether somebody may do a movement at all with what is there: no limit closes it, and the kit has one of its options. */
export const mayDo = (
  { demands, kit }: { demands: Demands; kit: readonly (readonly KitNeed[])[] },
  limits: readonly Limit[],
  counts: ReadonlyMap<KitItem, number>,
): boolean => opennessFor(demands, limits) !== 'closed' && usableOption(kit, counts) !== undefined;

/** Compares a movement's demands with limits that hold now. */
export function fitFor(demands: Demands, limits: readonly Limit[]): Fit {
  const closed: string[] = [];
  const care: string[] = [];
  for (const limit of limits) {
    const asked = demands[limit.demand] ?? 0;
    if (asked === 0) continue;
    const words = `${demandWords(limit.demand)}: ${limit.reason}`;
    if (asked > limit.allowed) closed.push(words);
    else if (asked === limit.allowed) care.push(words);
  }
  if (closed.length > 0) return { status: 'closed', because: closed };
  return care.length > 0 ? { status: 'care', because: care } : { status: 'open', because: [] };
}
