/** Pain reported in a session closes what it must for the rest of it. Usual caution only; what it is, a clinician says. */
import { REGION_DEMANDS } from '../ladder/substitutes.js';
import type { Limit } from '../movement/limits.js';
import { inWords } from '../movement/words.js';
import type { Region } from '../movement/vocabulary.js';

export const PAIN_QUALITIES = ['sharp', 'dull'] as const;
export type PainQuality = (typeof PAIN_QUALITIES)[number];

export interface Pain {
  region: Region;
  quality: PainQuality;
}

/** Sharp pain allows nothing on the region's demands, dull pain a trace. */
export const limitsFromPain = (pains: readonly Pain[]): Limit[] =>
  pains.flatMap(({ region, quality }) =>
    REGION_DEMANDS[region].map((demand) => ({
      demand,
      allowed: quality === 'sharp' ? 0 : 1,
      reason: `${quality} pain at the ${inWords(region)} today`,
    })),
  );

/** What to tell the client and do, by quality. */
export const PAIN_ADVICE: Readonly<Record<PainQuality, string>> = {
  sharp:
    'Stop this movement and do not go back to it today. Advise the client to have it looked at by a qualified clinician.',
  dull: 'Ease off: take a movement that does not hurt. If it stays or grows, stop, and advise a qualified clinician.',
};

/** Signs that end the whole session. */
export const EMERGENCY_ADVICE =
  'Chest pain, faintness, or short of breath at rest: stop everything and follow your emergency plan.';
