/**
 * Limits as earlier versions wrote them, in today's form: load on a long, leaning back was not told apart from load on a bent one, and a
 * condition stood in a limit's reason alone, with weeks after which it lapsed. Nothing gets more open than it was.
 */
import type { Limit } from '../movement/limit-schema.js';

/** Conditions by the name that their limits' reasons begin with; days after which some of them lapsed. */
const FORMER: Readonly<Record<string, { id: string; days?: number }>> = {
  'Pregnancy, first third': { id: 'pregnancy-first-third' },
  'Pregnancy, middle third': { id: 'pregnancy-middle-third' },
  'Pregnancy, last third': { id: 'pregnancy-last-third' },
  'After birth, first eight weeks': { id: 'after-birth-early', days: 56 },
  'After birth, from eight weeks': { id: 'after-birth-later' },
  Osteoporosis: { id: 'osteoporosis' },
  'High blood pressure': { id: 'high-blood-pressure' },
  'Hernia of the belly or groin': { id: 'hernia' },
  'Dizziness, or falls': { id: 'dizziness' },
  'Worn or uneasy knee': { id: 'worn-knee' },
  'New hip or knee joint': { id: 'new-joint' },
  'Lower back that flares up': { id: 'uneasy-back' },
  'Shoulder that pinches': { id: 'uneasy-shoulder' },
  'Wrist that dislikes weight on it': { id: 'uneasy-wrist' },
  'Neck that flares up': { id: 'uneasy-neck' },
  'Weak pelvic floor': { id: 'pelvic-floor' },
  'Ankle turned lately': { id: 'turned-ankle', days: 42 },
  'Reflux, or sick when lying flat': { id: 'reflux' },
  'Uses a wheelchair': { id: 'wheelchair' },
};

function withCondition(limit: Limit): Limit {
  if (limit.condition) return limit;
  const [name = ''] = limit.reason.split(': clear it with ');
  const former = name === limit.reason ? undefined : FORMER[name];
  if (!former) return limit;
  const { until, ...lasting } = limit;
  if (!until || former.days === undefined) return { ...limit, condition: former.id };
  return { ...lasting, condition: former.id, since: dayBefore(until, former.days) };
}

/** Brings limits up to date. Once is as good as twice. */
export function limitsToday(limits: readonly Limit[]): Limit[] {
  const named = limits.map(withCondition);
  const hinges = named
    .filter(({ demand }) => demand === 'loaded-spine-bend')
    .filter((bend) => !named.some((one) => one.demand === 'loaded-hinge' && one.allowed <= bend.allowed && !one.until))
    .map((bend): Limit => ({ ...bend, demand: 'loaded-hinge' }));
  const conditions = new Set(named.flatMap(({ condition }) => condition ?? []));
  const ruled = new Set(named.flatMap(({ demand, condition }) => (demand === 'ruled-out' ? (condition ?? []) : [])));
  const rulings = [...conditions]
    .filter((condition) => !ruled.has(condition))
    .flatMap((condition) => named.find((one) => one.condition === condition) ?? [])
    .map((one): Limit => ({ ...one, demand: 'ruled-out', allowed: 0 }));
  return [...named, ...hinges, ...rulings];
}

function dayBefore(day: string, days: number): string {
  const at = new Date(`${day}T00:00:00Z`);
  at.setUTCDate(at.getUTCDate() - days);
  return at.toISOString().slice(0, 10);
}
