/** Whether a client may do a movement now, and if not, why: limits, pain, and the kit that is there. The one answer for every screen. */
import { usableOption } from '../movement/kit.js';
import { fitWith, type LimitMet, type Openness } from '../movement/limits.js';
import type { MovementSummary } from '../movement/summary-schema.js';
import type { KitItem } from '../movement/vocabulary.js';
import type { Closing } from './reason.js';
import type { Standing } from './standing.js';

/** A limit with its own reason, or what else closes a movement. */
export type Because = LimitMet | Exclude<Closing, { code: 'limit' }>;

export type FitCode = 'open' | 'limit' | 'hurt-now' | 'hurt-before' | 'kit';

export interface FitNow {
  status: Openness;
  /** What decided it. */
  code: FitCode;
  /** What closes it, or asks for care. */
  because: Because[];
}

const closedBy = (code: 'hurt-now' | 'hurt-before' | 'kit'): FitNow => ({
  status: 'closed',
  code,
  because: [{ code }],
});

/** The same without the words of a limit, to be kept with a plan. */
export const closingsOf = (because: readonly Because[]): Closing[] =>
  because.map((one) => (one.code === 'limit' ? { code: 'limit', demand: one.demand, asked: one.asked } : one));

/** @param item what is in the hands, where that is decided */
export function fitNow(
  { limits, hurtNow, hurtBefore }: Standing,
  kit: ReadonlyMap<KitItem, number>,
  movement: Pick<MovementSummary, 'id' | 'demands' | 'kit' | 'notFor' | 'suits'>,
  item?: KitItem,
): FitNow {
  if (hurtNow.includes(movement.id)) return closedBy('hurt-now');
  const fit = fitWith(movement, limits, kit, item);
  if (fit.status === 'closed') return { ...fit, code: 'limit' };
  if (hurtBefore.includes(movement.id)) return closedBy('hurt-before');
  if (!usableOption(movement.kit, kit)) return closedBy('kit');
  return { ...fit, code: fit.status === 'care' ? 'limit' : 'open' };
}

export const isOpen = (fit: FitNow): boolean => fit.status !== 'closed';
