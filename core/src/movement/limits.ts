/**
 * Demands against limits: the one comparison that planning, substitution and the floor share.
 * A limit says how much of a demand (0–3) a client may meet, for good or until a date, and why.
 */
import { usableOptions } from './kit.js';
import { isRuling, type Limit, type LimitOnDay } from './limit-schema.js';
import type { KitOption } from './schema.js';
import type { Demand, KitItem, Limited } from './vocabulary.js';

export type Demands = Readonly<Partial<Record<Demand, number>>>;

/** `closed`: asks more than is allowed; `care`: asks exactly the most that is allowed; `open`: nothing stands against it. */
export type Openness = 'open' | 'care' | 'closed';

/** A limit that stands in the way, or comes near to it. */
export interface LimitMet {
  code: 'limit';
  demand: Limited;
  /** How much of it is asked for. */
  asked: number;
  /** The limit's own. */
  reason: string;
}

export interface Fit {
  status: Openness;
  /** The limits that made it closed or a matter of care. */
  because: LimitMet[];
}

/** The limits that hold on `day` (YYYY-MM-DD). */
export const limitsOn = (limits: readonly Limit[], day: string): Limit[] =>
  limits.filter((limit) => !limit.until || day <= limit.until);

/** How much of what a limit is on is asked for; what is ruled out as a whole is no matter of amounts. */
const amountOf = (demands: Demands, { demand }: Limit): number => (isRuling(demand) ? 0 : (demands[demand] ?? 0));

/** Somebody's limits in the form that a whole library is looked over with: the strictest of each demand, and what rules on whole movements. */
interface Terms {
  allowed: Partial<Record<Demand, number>>;
  rulings: Limit[];
}

/** Six conditions bring some forty limits, many on the same demand; they are sorted once for each list of them. */
const termsKept = new WeakMap<readonly Limit[], Terms>();

function termsOf(limits: readonly Limit[]): Terms {
  const kept = termsKept.get(limits);
  if (kept) return kept;
  const terms: Terms = { allowed: {}, rulings: [] };
  for (const limit of limits) {
    const { demand, allowed } = limit;
    if (isRuling(demand)) terms.rulings.push(limit);
    else terms.allowed[demand] = Math.min(terms.allowed[demand] ?? allowed, allowed);
  }
  termsKept.set(limits, terms);
  return terms;
}

/** The same comparison without its words, for looking over a whole library. Demands alone: rulings are on whole movements. */
export function opennessFor(demands: Demands, limits: readonly Limit[]): Openness {
  const { allowed } = termsOf(limits);
  let status: Openness = 'open';
  for (const key in demands) {
    const demand = key as Demand;
    const asked = demands[demand] ?? 0;
    const most = allowed[demand];
    if (most === undefined || asked < most || asked === 0) continue;
    if (asked > most) return 'closed';
    status = 'care';
  }
  return status;
}

/** A movement as far as limits and kit decide on it. */
export interface Equipped {
  id: string;
  demands: Demands;
  kit: readonly KitOption[];
  /** Conditions that its cautions rule it out for. */
  notFor: readonly string[];
  /** Conditions that somebody marked it as suitable for. */
  suits: readonly string[];
}

/** Whether a limit rules a movement out as a whole, whatever is in the hands. */
export function rulesOut(
  limit: Limit | LimitOnDay,
  { id, notFor, suits }: Pick<Equipped, 'id' | 'notFor' | 'suits'>,
): boolean {
  const { demand, condition } = limit;
  if ('movements' in limit && limit.movements) return limit.movements.includes(id);
  if (demand === 'ruled-out') return notFor.includes(condition ?? '');
  return demand === 'not-suitable' && !suits.includes(condition ?? '');
}

/** The limits that rule a movement out. */
const rulings = (movement: Equipped, limits: readonly Limit[]): LimitMet[] =>
  limits
    .filter((limit) => rulesOut(limit, movement))
    .map(({ demand, reason }) => ({ code: 'limit', demand, asked: 1, reason }));

/** What a movement asks for when it is done with an option of its kit. */
export const demandsWith = (demands: Demands, option: Pick<KitOption, 'demands'>): Demands =>
  option.demands ? { ...demands, ...option.demands } : demands;

/** The options that the kit meets and that no limit closes. */
export const openOptions = (
  movement: Equipped,
  limits: readonly Limit[],
  counts: ReadonlyMap<KitItem, number>,
): KitOption[] =>
  termsOf(limits).rulings.some((limit) => rulesOut(limit, movement))
    ? []
    : usableOptions(movement.kit, counts).filter(
        (option) => opennessFor(demandsWith(movement.demands, option), limits) !== 'closed',
      );

/** Whether somebody may do a movement at all with what is there: the kit has one of its options that no limit closes. */
export const mayDo = (movement: Equipped, limits: readonly Limit[], counts: ReadonlyMap<KitItem, number>): boolean =>
  openOptions(movement, limits, counts).length > 0;

const RANK: Readonly<Record<Openness, number>> = { open: 0, care: 1, closed: 2 };

/**
 * How a movement stands with what is there: as its best option does. Without its kit, as it does in any case.
 * @param item what is in the hands: then only options with it count
 */
export function fitWith(
  movement: Equipped,
  limits: readonly Limit[],
  counts: ReadonlyMap<KitItem, number>,
  item?: KitItem,
): Fit {
  const ruled = rulings(movement, limits);
  if (ruled.length > 0) return { status: 'closed', because: ruled };
  const { demands, kit } = movement;
  const met = usableOptions(kit, counts);
  const held = item === undefined ? [] : met.filter(({ needs }) => needs.some((need) => need.item === item));
  let best: Fit | undefined;
  for (const option of held.length > 0 ? held : met) {
    const fit = fitFor(demandsWith(demands, option), limits);
    if (!best || RANK[fit.status] < RANK[best.status]) best = fit;
    if (fit.status === 'open') break;
  }
  return best ?? fitFor(demands, limits);
}

/** The same without its words, for looking over a whole library. */
export function opennessWith(
  movement: Equipped,
  limits: readonly Limit[],
  counts: ReadonlyMap<KitItem, number>,
): Openness {
  if (limits.length === 0) return 'open';
  if (termsOf(limits).rulings.some((limit) => rulesOut(limit, movement))) return 'closed';
  // Few options ask for anything of their own.
  const { demands, kit } = movement;
  if (kit.every((option) => option.demands === undefined)) return opennessFor(demands, limits);
  let best: Openness | undefined;
  for (const option of usableOptions(kit, counts)) {
    const status = opennessFor(demandsWith(demands, option), limits);
    if (best === undefined || RANK[status] < RANK[best]) best = status;
    if (status === 'open') break;
  }
  return best ?? opennessFor(demands, limits);
}

/** Compares a movement's demands with limits that hold now; rulings are for `fitWith`. */
export function fitFor(demands: Demands, limits: readonly Limit[]): Fit {
  const closed: LimitMet[] = [];
  const care: LimitMet[] = [];
  for (const limit of limits) {
    const asked = amountOf(demands, limit);
    if (asked === 0) continue;
    const met: LimitMet = { code: 'limit', demand: limit.demand, asked, reason: limit.reason };
    if (asked > limit.allowed) closed.push(met);
    else if (asked === limit.allowed) care.push(met);
  }
  if (closed.length > 0) return { status: 'closed', because: closed };
  return care.length > 0 ? { status: 'care', because: care } : { status: 'open', because: [] };
}
