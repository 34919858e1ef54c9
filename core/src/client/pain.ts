/** Pain reported in a session closes what it must for the rest of it. Usual caution only; what it is, a clinician says. */
import type { Limit } from '../movement/limit-schema.js';
import type { Demand, Region } from '../movement/vocabulary.js';
import { inWords } from '../movement/words.js';

export const PAIN_QUALITIES = ['sharp', 'dull'] as const;
export type PainQuality = (typeof PAIN_QUALITIES)[number];

export const BODY_SIDES = ['left', 'right', 'middle'] as const;
export type BodySide = (typeof BODY_SIDES)[number];

export interface Pain {
  region: Region;
  quality: PainQuality;
  /** Where it was said. */
  side?: BodySide | undefined;
}

/** What is left out for a pain, for those who may not know where it is. */
export interface HeldBack {
  region: null;
  quality: PainQuality;
  side?: undefined;
  limits: readonly { demand: Demand; allowed: number }[];
}

/** `left knee`, `lower back`. */
export function painPlace({ region, side }: Pick<Pain | HeldBack, 'region' | 'side'>): string {
  if (region === null) return 'place that the trainer knows';
  return side === undefined || side === 'middle' ? inWords(region) : `${side} ${inWords(region)}`;
}

/** Which demands a painful region must not meet. A usual caution, not a diagnosis. */
export const REGION_DEMANDS: Readonly<Record<Region, readonly Demand[]>> = {
  neck: ['neck-load', 'overhead'],
  shoulder: ['overhead', 'loaded-shoulder', 'weight-on-wrist'],
  elbow: ['loaded-shoulder', 'hard-grip', 'weight-on-wrist'],
  wrist: ['weight-on-wrist', 'hard-grip'],
  'upper-back': ['loaded-hinge', 'loaded-spine-bend', 'spine-twist', 'overhead'],
  'low-back': [
    'loaded-hinge',
    'loaded-spine-bend',
    'spine-bend',
    'spine-twist',
    'spine-arch',
    'long-lever-trunk',
    'impact',
  ],
  hip: ['deep-knee-bend', 'hip-bend', 'hip-turn', 'single-leg-balance', 'impact'],
  knee: ['deep-knee-bend', 'kneeling', 'weight-on-knees', 'impact', 'single-leg-balance'],
  ankle: ['impact', 'single-leg-balance', 'toes-bent-under-load'],
  foot: ['impact', 'toes-bent-under-load', 'single-leg-balance'],
};

/**
 * Sharp pain allows nothing on the region's demands, dull pain a trace.
 * @param when as in “today”, or “on 3 May”
 */
export const limitsFromPain = (pains: readonly (Pain | HeldBack)[], when = 'today'): Limit[] =>
  pains.flatMap((pain) => {
    if (pain.region === null) return pain.limits.map((limit) => ({ ...limit, reason: `held back ${when}` }));
    const { region, quality } = pain;
    return REGION_DEMANDS[region].map((demand) => ({
      demand,
      allowed: allowedAfter(quality),
      reason: `${quality} pain at the ${painPlace(pain)} ${when}`,
    }));
  });

const allowedAfter = (quality: PainQuality): number => (quality === 'sharp' ? 0 : 1);

/** A pain without its place: what is left out for it stays. */
export const heldBackFor = ({ region, quality }: Pain) => ({
  quality,
  limits: REGION_DEMANDS[region].map((demand) => ({ demand, allowed: allowedAfter(quality) })),
});

/** What to tell the client and do, by quality. */
export const PAIN_ADVICE: Readonly<Record<PainQuality, string>> = {
  sharp:
    'Stop this movement and do not go back to it today. Advise the client to have it looked at by a qualified clinician.',
  dull: 'Ease off: take a movement that does not hurt. If it stays or grows, stop, and advise a qualified clinician.',
};

/** Signs that end the whole session. */
export const EMERGENCY_ADVICE =
  'Chest pain, faintness, or short of breath at rest: stop everything and follow your emergency plan.';
