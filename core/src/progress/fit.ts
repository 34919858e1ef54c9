/** Whether a client may do a movement now, and if not, why: limits, pain, and the kit that is there. The one answer for every screen. */
import { usableOption } from '../movement/kit.js';
import { fitFor, type Openness } from '../movement/limits.js';
import type { MovementSummary } from '../movement/summary.js';
import type { KitItem } from '../movement/vocabulary.js';
import type { Standing } from './standing.js';

export type FitCode = 'open' | 'limit' | 'hurt-now' | 'hurt-before' | 'kit';

export interface FitNow {
  status: Openness;
  /** What decided it. */
  code: FitCode;
  /** What closes it, in words that follow "closed by". */
  because: string[];
}

export function fitNow(
  { limits, hurtNow, hurtBefore }: Standing,
  kit: ReadonlyMap<KitItem, number>,
  movement: Pick<MovementSummary, 'id' | 'demands' | 'kit'>,
): FitNow {
  const closed = (code: FitCode, because: string[]): FitNow => ({ status: 'closed', code, because });
  if (hurtNow.includes(movement.id)) return closed('hurt-now', ['sharp pain in it today']);
  const fit = fitFor(movement.demands, limits);
  if (fit.status === 'closed') return closed('limit', fit.because);
  if (hurtBefore.includes(movement.id)) return closed('hurt-before', ['sharp pain when it was last done']);
  if (!usableOption(movement.kit, kit)) return closed('kit', ['kit that is not here']);
  return { ...fit, code: fit.status === 'care' ? 'limit' : 'open' };
}

export const isOpen = (fit: FitNow): boolean => fit.status !== 'closed';
