/** How far somebody has come: rungs, loads, faults. Plain facts for a glance, by which nothing is decided. */
import type { FaultLoad, PastSession } from '../client/history-schema.js';
import { SAME_KG } from '../dosage/loads.js';
import type { Ladder } from '../ladder/graph.js';
import type { MovementSummary } from '../movement/summary-schema.js';

/** From the movement with which somebody began in a family to the one they do now. */
export interface Climb {
  family: string;
  from: string;
  to: string;
  /** Levels up its ladder; below nought for down. */
  levels: number;
}

/** The heaviest of the first session of a movement with a weight, and of the last, in kg. */
export interface Gain {
  movementId: string;
  from: number;
  to: number;
}

/** Faults marked in ten sets: at first, lately, and by session, the earliest first. */
export interface FaultTrend {
  first: number;
  lately: number;
  series: number[];
}

export interface Headway {
  /** The furthest first; families in which nothing moved are left out. */
  climbs: Climb[];
  /** The largest share first; only what went up. */
  gains: Gain[];
  /** Null before there are enough sessions to compare. */
  faults: FaultTrend | null;
}

/** Sessions from which on the first are set against the last. */
const ENOUGH = 4;

interface Known {
  sets: Readonly<Record<string, readonly PastSession[]>>;
  faultLoads: readonly FaultLoad[];
}

export function headwayOf(
  { sets, faultLoads }: Known,
  find: (movementId: string) => MovementSummary | undefined,
  { levels }: Pick<Ladder, 'levels'>,
): Headway {
  return { climbs: climbsIn(sets, find, levels), gains: gainsIn(sets), faults: trendOf(faultLoads) };
}

function climbsIn(
  sets: Known['sets'],
  find: (id: string) => MovementSummary | undefined,
  levels: Ladder['levels'],
): Climb[] {
  const times = Object.entries(sets).flatMap(([id, past]) =>
    past.map(({ at }) => ({ id, at, family: find(id)?.families[0], level: levels.get(id) ?? 0 })),
  );
  const ends = new Map<string, { first: (typeof times)[number]; last: (typeof times)[number] }>();
  for (const one of times) {
    if (one.family === undefined) continue;
    const known = ends.get(one.family) ?? { first: one, last: one };
    // Of one visit the hardest counts.
    const sooner = one.at < known.first.at || (one.at === known.first.at && one.level > known.first.level);
    const later = one.at > known.last.at || (one.at === known.last.at && one.level > known.last.level);
    ends.set(one.family, { first: sooner ? one : known.first, last: later ? one : known.last });
  }
  return [...ends]
    .map(([family, { first, last }]) => ({ family, from: first.id, to: last.id, levels: last.level - first.level }))
    .filter(({ levels: moved }) => moved !== 0)
    .toSorted((a, b) => b.levels - a.levels);
}

const heaviest = ({ sets }: PastSession): number => Math.max(0, ...sets.map(({ kg }) => kg ?? 0));

function gainsIn(sets: Known['sets']): Gain[] {
  return Object.entries(sets)
    .flatMap(([movementId, past]): Gain[] => {
      const loaded = past.toSorted((a, b) => a.at.localeCompare(b.at)).filter((one) => heaviest(one) > 0);
      const [first, last] = [loaded[0], loaded.at(-1)];
      return first && last && first !== last ? [{ movementId, from: heaviest(first), to: heaviest(last) }] : [];
    })
    .filter(({ from, to }) => to > from + SAME_KG)
    .toSorted((a, b) => b.to / b.from - a.to / a.from);
}

/** In ten sets, so that long and short sessions weigh as they should. */
const rate = (loads: readonly FaultLoad[]): number => {
  const all = loads.reduce((sum, { sets }) => sum + sets, 0);
  return all === 0 ? 0 : (10 * loads.reduce((sum, { faults }) => sum + faults, 0)) / all;
};

function trendOf(loads: readonly FaultLoad[]): FaultTrend | null {
  const ordered = loads.filter(({ sets }) => sets > 0).toSorted((a, b) => a.at.localeCompare(b.at));
  if (ordered.length < ENOUGH) return null;
  const part = Math.max(2, Math.floor(ordered.length / 4));
  return {
    first: rate(ordered.slice(0, part)),
    lately: rate(ordered.slice(-part)),
    series: ordered.map((one) => rate([one])),
  };
}
