/** How a client stands now: what is limited, what hurts, and whether anything may go up. What every decision about them begins with. */
import type { ClientOnDay } from '../client/client-schema.js';
import type { Ease } from '../client/ease.js';
import { type HeldBack, limitsFromPain, type Pain } from '../client/pain.js';
import type { ClientRecord } from '../coaching/evidence-schema.js';
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
  /** The day that is asked about, YYYY-MM-DD: how long somebody was away. Null where no day is meant. */
  day: string | null;
}

/** As a day of a past pain is read. */
const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long' });
const onDay = (at: string): string => `on ${DAY.format(new Date(at))}`;

/**
 * @param record what is left of earlier sessions
 * @param pains reported in the session under way; none outside of one
 */
export function standingOf(
  {
    limits,
    ease,
    trainingYears = null,
    day,
  }: Pick<ClientOnDay, 'limits' | 'ease'> & Partial<Pick<ClientOnDay, 'trainingYears' | 'day'>>,
  { hurt, pains: past }: Pick<ClientRecord, 'hurt' | 'pains'>,
  pains: readonly ((Pain | HeldBack) & { id: string; movementId: string | null })[] = [],
): Standing {
  // The record may know the session under way already.
  const earlier = past.filter(({ id }) => !pains.some((pain) => pain.id === id));
  return {
    limits: [...limits, ...earlier.flatMap((pain) => limitsFromPain([pain], onDay(pain.at))), ...limitsFromPain(pains)],
    hurtNow: pains.flatMap(({ quality, movementId }) => (quality === 'sharp' && movementId !== null ? movementId : [])),
    hurtBefore: hurt.map(({ movementId }) => movementId),
    pain: pains.length > 0,
    ease,
    trainingYears,
    day: day ?? null,
  };
}

/** What is left of earlier sessions for somebody of whom nothing is known. */
export const NOTHING_LEFT: Pick<ClientRecord, 'hurt' | 'pains'> = { hurt: [], pains: [] };

/** Movements that no suggestion may bring back. */
export const avoidedBy = ({ hurtNow, hurtBefore }: Standing): string[] => [...hurtNow, ...hurtBefore];
