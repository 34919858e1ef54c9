/** What a client goes to instead of a movement, and never anything closed, or up while that is held back. */
import { type Catalog, type SubstituteAnswer, type SubstituteQuery, substitutes } from '../ladder/substitutes.js';
import type { KitItem } from '../movement/vocabulary.js';
import { isUp } from './held.js';
import { avoidedBy, type Standing } from './standing.js';

const NOTHING: SubstituteAnswer = { ranked: [], ruledOut: [] };

/** More is asked for than is shown, because some of it may be a way up that is held back. */
const SPARE = 12;

/**
 * Ranked substitutes for a client.
 * @param held nothing goes up now
 * A movement that is no longer in the library has none.
 */
export function swapsFor(
  catalog: Catalog,
  {
    standing,
    kit,
    held,
    most = 6,
    ...query
  }: Pick<SubstituteQuery, 'from' | 'reason' | 'region' | 'space'> & {
    standing: Standing;
    kit: ReadonlyMap<KitItem, number>;
    held: boolean;
    most?: number;
  },
): SubstituteAnswer {
  if (!catalog.entries.has(query.from) || (held && query.reason === 'too-easy')) return NOTHING;
  const { ranked, ruledOut } = substitutes(catalog, {
    ...query,
    kit,
    limits: standing.limits,
    avoid: avoidedBy(standing),
    most: held ? most + SPARE : most,
  });
  return {
    ranked: ranked.filter(({ id }) => !held || !isUp(catalog.ladder, query.from, id)).slice(0, most),
    ruledOut: ruledOut.slice(0, most),
  };
}

/** The best open movement in the place of a closed one, for what it was meant for, and never a way up; null where nothing is. */
export const replacementFor = (
  catalog: Catalog,
  standing: Standing,
  kit: ReadonlyMap<KitItem, number>,
  movementId: string,
): { id: string; name: string } | null =>
  swapsFor(catalog, { from: movementId, reason: 'closed', standing, kit, held: true, most: 1 }).ranked[0] ?? null;
