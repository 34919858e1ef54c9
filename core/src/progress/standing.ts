/** How a client stands now: what is limited, what hurts, and whether anything may go up. What every decision about them begins with. */
import type { ClientOnDay } from '../client/client-schema.js';
import type { Ease } from '../client/ease.js';
import type { Hurt } from '../client/history-schema.js';
import { type HeldBack, limitsFromPain, type Pain } from '../client/pain.js';
import type { Limit } from '../movement/limit-schema.js';

export interface Standing {
  /** Recorded, from today's check, and from pain of this session. */
  limits: readonly Limit[];
  /** Movements that hurt sharply in this session. */
  hurtNow: readonly string[];
  /** Movements that hurt sharply when they were last done. */
  hurtBefore: readonly string[];
  /** Any pain was reported in this session. */
  pain: boolean;
  /** Why nothing goes up today; null when it may. */
  ease: Ease | null;
  /** Whole years of training so far; null when not noted. */
  trainingYears: number | null;
}

/** @param pains reported in the session under way; none outside of one */
export const standingOf = (
  {
    limits,
    ease,
    trainingYears = null,
  }: Pick<ClientOnDay, 'limits' | 'ease'> & Partial<Pick<ClientOnDay, 'trainingYears'>>,
  hurt: readonly Hurt[],
  pains: readonly ((Pain | HeldBack) & { movementId: string | null })[] = [],
): Standing => ({
  limits: [...limits, ...limitsFromPain(pains)],
  hurtNow: pains.flatMap(({ quality, movementId }) => (quality === 'sharp' && movementId !== null ? movementId : [])),
  hurtBefore: hurt.map(({ movementId }) => movementId),
  pain: pains.length > 0,
  ease,
  trainingYears,
});

/** Movements that no suggestion may bring back. */
export const avoidedBy = ({ hurtNow, hurtBefore }: Standing): string[] => [...hurtNow, ...hurtBefore];
