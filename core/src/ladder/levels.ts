/**
 * The same movement at three levels, and one that anybody can do: what a class is offered at once.
 * Each client's level is looked for with their own limits; the fallback is open to everybody without any care.
 */
import type { Limit } from '../movement/limit-schema.js';
import { fitWith, type LimitMet, mayDo } from '../movement/limits.js';
import type { KitItem } from '../movement/vocabulary.js';
import { type Catalog, type Substitute, substitutes } from './substitutes.js';

export interface LevelClient {
  clientId: string;
  limits: readonly Limit[];
  /** Movements that hurt. */
  avoid: readonly string[];
}

export interface Levels {
  clientId: string;
  easier: Substitute | null;
  /** Whether the movement itself is open to this client. */
  same: boolean;
  /** It hurt. */
  hurt: boolean;
  /** Limits that close it, or ask for care. */
  because: LimitMet[];
  harder: Substitute | null;
}

/** Three levels of a movement for each client. A movement that is not in the library has none. */
export function threeLevels(
  catalog: Catalog,
  from: string,
  clients: readonly LevelClient[],
  kit: ReadonlyMap<KitItem, number>,
): Levels[] {
  const facts = catalog.entries.get(from)?.facts;
  if (!facts) return [];
  return clients.map(({ clientId, limits, avoid }) => {
    const best = (reason: 'too-hard' | 'too-easy') =>
      substitutes(catalog, { from, reason, limits, kit, avoid, most: 1 }).ranked[0] ?? null;
    const hurt = avoid.includes(from);
    return {
      clientId,
      easier: best('too-hard'),
      same: !hurt && mayDo(facts, limits, kit),
      hurt,
      because: fitWith(facts, limits, kit).because,
      harder: best('too-easy'),
    };
  });
}

/**
 * The one that asks the least among what could stand in for several movements: what everybody at stations, each at another, can go to at any time.
 * Null where nothing is open to all, and where all do it already.
 */
export function fallbackForAll(
  catalog: Catalog,
  from: readonly string[],
  clients: readonly LevelClient[],
  kit: ReadonlyMap<KitItem, number>,
): { id: string; name: string } | null {
  const asked = (id: string): number => catalog.entries.get(id)?.asks.reduce((sum, n) => sum + n, 0) ?? 0;
  const found = [...new Set(from)]
    .flatMap((id) => fallbackFor(catalog, id, clients, kit) ?? [])
    .toSorted((a, b) => asked(a.id) - asked(b.id) || a.name.localeCompare(b.name));
  const [easiest] = found;
  return easiest && !from.every((id) => id === easiest.id) ? easiest : null;
}

/** One movement of the same pattern that is open to everybody and needs no kit that is not there: of the same family if there is one, the lowest rung of them. */
export function fallbackFor(
  catalog: Catalog,
  from: string,
  clients: readonly LevelClient[],
  kit: ReadonlyMap<KitItem, number>,
): { id: string; name: string } | null {
  const origin = catalog.entries.get(from)?.facts;
  if (!origin) return null;
  const open = [...catalog.entries.values()].filter(
    ({ facts }) =>
      facts.pattern === origin.pattern &&
      facts.role === origin.role &&
      clients.every(
        ({ limits, avoid }) =>
          !avoid.includes(facts.id) && mayDo(facts, limits, kit) && fitWith(facts, limits, kit).status === 'open',
      ),
  );
  const away = ({ facts }: (typeof open)[number]) =>
    Number(!facts.families.some((one) => origin.families.includes(one)));
  const asked = ({ asks }: (typeof open)[number]) => asks.reduce((sum, n) => sum + n, 0);
  const easiest = open.sort(
    (a, b) =>
      away(a) - away(b) ||
      a.level - b.level ||
      asked(a) - asked(b) ||
      Number(b.bare) - Number(a.bare) ||
      a.facts.name.localeCompare(b.facts.name),
  )[0];
  return easiest ? { id: easiest.facts.id, name: easiest.facts.name } : null;
}
