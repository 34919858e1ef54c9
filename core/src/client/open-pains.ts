/**
 * Pain of earlier sessions. What hurt sharply closes what its place must not meet until somebody says that it is over, or does the movement
 * again without pain; what was dull holds back until then, or until a whole session without it.
 */
import { DEMANDS, REGIONS } from '../movement/vocabulary.js';
import { day, text, uuid, whole } from '../schema/atoms.js';
import { z } from '../schema/zod.js';
import { BODY_SIDES, heldBackFor, PAIN_QUALITIES, painPlace, type PainQuality } from './pain.js';

const reported = {
  /** Of its event. */
  id: z.string(),
  at: z.string(),
  quality: z.enum(PAIN_QUALITIES),
  /** What was in hand; null where nothing was. */
  movementId: z.string().nullable(),
};

export const pastPainSchema = z.strictObject({
  ...reported,
  region: z.enum(REGIONS),
  side: z.enum(BODY_SIDES).optional(),
});
/** A pain that was reported. */
export type PastPain = z.infer<typeof pastPainSchema>;

/** The same for whoever may not know where it hurts. */
const heldPastSchema = z.strictObject({
  ...reported,
  region: z.null(),
  limits: z.array(z.strictObject({ demand: z.enum(DEMANDS), allowed: whole(0, 3) })).readonly(),
});

/** A pain that is open, as it is told. */
export const openPainSchema = z.union([pastPainSchema, heldPastSchema]);
export type OpenPain = z.infer<typeof openPainSchema>;

export const withoutPlace = (pain: OpenPain): OpenPain => {
  if (pain.region === null) return pain;
  const { id, at, movementId } = pain;
  return { id, at, movementId, region: null, ...heldBackFor(pain) };
};

/** That a pain is over, and on whose word. */
export const painOverSchema = z.strictObject({ pain: uuid, on: day, by: text(200) });
export type PainOver = z.infer<typeof painOverSchema>;

/** A session as far as pain is concerned. */
export interface Visit {
  pains: readonly PastPain[];
  /** Movements of which a set was done, and in which nothing hurt. */
  painless: readonly string[];
}

/**
 * The pains that are open after some sessions, the earliest first.
 * @param visits earliest first
 */
export function openPains(visits: readonly Visit[], over: readonly PainOver[]): PastPain[] {
  const isOver = new Set(over.map(({ pain }) => pain));
  let open: PastPain[] = [];
  for (const { pains, painless } of visits) {
    // Where it hurts again, even dully, nothing is over.
    const goesOn = ({ quality, movementId, region }: PastPain): boolean =>
      pains.some((pain) => pain.region === region) ||
      (quality === 'sharp' ? movementId === null || !painless.includes(movementId) : painless.length === 0);
    open = [...open.filter(goesOn), ...pains.filter(({ id }) => !isOver.has(id))];
  }
  return open;
}

/** Pains of one place together, for one question about it. */
export interface PainAtPlace {
  ids: string[];
  /** As `painPlace` reads it; null for whoever may not know. */
  place: string | null;
  /** Sharp where one of them was. */
  quality: PainQuality;
  /** What was in hand. */
  movementIds: string[];
  /** When it was reported last. */
  at: string;
}

export function painsByPlace(pains: readonly OpenPain[]): PainAtPlace[] {
  const places = new Map<string | null, OpenPain[]>();
  for (const pain of pains) {
    const place = pain.region === null ? null : painPlace(pain);
    places.set(place, [...(places.get(place) ?? []), pain]);
  }
  return [...places].map(([place, all]) => ({
    ids: all.map(({ id }) => id),
    place,
    quality: all.some(({ quality }) => quality === 'sharp') ? 'sharp' : 'dull',
    movementIds: [...new Set(all.flatMap(({ movementId }) => movementId ?? []))],
    at: all.map(({ at }) => at).reduce((late, at) => (at > late ? at : late)),
  }));
}
