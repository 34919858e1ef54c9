/**
 * Substitutes: from one movement, a reason, a client's limits and what is in the room to ranked replacements with their reasons.
 * Hard conditions first (limits, kit, room, the reason's own); then rungs that are linked, then the same family, then others, each by least cost.
 * In place of what is closed or hurts, what it was meant for comes first: the same muscles, then the smallest step, whatever the pattern is called.
 * Only links say what is easier than what: levels of different branches of a family tell nothing of each other.
 */
import { REGION_DEMANDS } from '../client/pain.js';
import { itemsOf, needsNothing, usableOption } from '../movement/kit.js';
import type { Limit } from '../movement/limit-schema.js';
import {
  type Demands,
  demandsWith,
  fitWith,
  type LimitMet,
  type Openness,
  opennessWith,
  openOptions,
} from '../movement/limits.js';
import type { KitOption, Movement } from '../movement/schema.js';
import {
  type Demand,
  DEMANDS,
  type KitItem,
  type Lever,
  type Muscle,
  MUSCLES,
  type Pattern,
  type Region,
  type Space,
  SPACES,
} from '../movement/vocabulary.js';
import { buildLadder, type Ladder, reach } from './graph.js';
import type { Step } from './page.js';
import { SUBSTITUTE_COST as COST } from './weights.js';

export const SWAP_REASONS = ['too-hard', 'too-easy', 'wobbly', 'pain', 'no-kit', 'no-room', 'bored'] as const;
export type SwapReason = (typeof SWAP_REASONS)[number];

/** Reasons that lie in the room and not in the client: what is taken for them says nothing about the rung that somebody is on. */
export const ASIDE: readonly SwapReason[] = ['no-kit', 'no-room', 'bored'];

/** The part of a movement that substitution looks at: small enough to hold for a whole library. */
export type MovementFacts = Pick<
  Movement,
  | 'id'
  | 'name'
  | 'aliases'
  | 'families'
  | 'pattern'
  | 'role'
  | 'position'
  | 'sides'
  | 'planes'
  | 'muscles'
  | 'kit'
  | 'space'
  | 'demands'
  | 'notFor'
  | 'suits'
  | 'links'
>;

interface Entry {
  facts: MovementFacts;
  prime: number;
  assist: number;
  /** Every item of any kit option. */
  items: ReadonlySet<KitItem>;
  /** It can be done with nothing. */
  bare: boolean;
  /** Demand by its place in `DEMANDS`. */
  asks: Uint8Array;
  space: number;
  component: number;
  level: number;
}

/** A library prepared for many queries. Build it once per library change. */
export interface Catalog {
  ladder: Ladder;
  entries: ReadonlyMap<string, Entry>;
}

export interface SubstituteQuery {
  from: string;
  /** `closed`: nobody asked for another, and this one may not be done. */
  reason: SwapReason | 'closed';
  /** Needed for `pain`. */
  region?: Region | undefined;
  /** Limits that hold now, pain of today included. */
  limits: readonly Limit[];
  kit: ReadonlyMap<KitItem, number>;
  /** Movements that must not come back today, because they hurt. */
  avoid?: readonly string[];
  /** Largest room there is; no limit when left out. */
  space?: Space | undefined;
  /** How many to return; 6 unless said. */
  most?: number;
}

export interface Substitute {
  id: string;
  name: string;
  cost: number;
  /** Rungs up (positive) or down (negative) by levels; null off the ladder. */
  levels: number | null;
  care: boolean;
  why: SwapFact[];
}

export interface RuledOut {
  id: string;
  name: string;
  by: RuledOutBy;
}

/** What speaks for a substitute, and what it takes. */
export type SwapFact =
  | { code: 'spares'; region: Region }
  | { code: 'other-pattern'; pattern: Pattern }
  | { code: 'off-ladder' }
  | { code: 'other-branch' }
  | { code: 'same-level' }
  /** Rungs up (positive) or down, and by what they differ. */
  | { code: 'rungs'; levels: number; levers: Lever[] }
  | { code: 'same-muscles' }
  | { code: 'mostly-same-muscles' }
  | { code: 'also-works'; muscles: Muscle[] }
  | { code: 'other-muscles' }
  /** The option of kit that it would be done with; null for none. */
  | { code: 'needs'; option: KitOption | null }
  | { code: 'care'; because: LimitMet[] };

/** The hard condition that a movement does not meet. */
export type RuledOutBy =
  | { code: 'hurt-before' }
  | { code: 'limits'; because: LimitMet[] }
  | { code: 'kit'; options: readonly KitOption[] }
  | { code: 'room'; space: Space }
  | { code: 'still-asks'; demands: Demand[] }
  | { code: 'other-way' }
  | { code: 'as-much-balance' }
  | { code: 'same-kit' }
  | { code: 'as-much-room' };

export interface SubstituteAnswer {
  ranked: Substitute[];
  /** Near movements that a hard condition excludes, nearest first. */
  ruledOut: RuledOut[];
}

const mask = (muscles: readonly Muscle[]): number =>
  muscles.reduce((bits, muscle) => bits | (1 << MUSCLES.indexOf(muscle)), 0);

/** Bits set in a 32-bit integer. */
function bits(n: number): number {
  let v = n - ((n >>> 1) & 0x55555555);
  v = (v & 0x33333333) + ((v >>> 2) & 0x33333333);
  return (((v + (v >>> 4)) & 0x0f0f0f0f) * 0x01010101) >>> 24;
}

/** Weighted Jaccard overlap of two movements' muscles, 0–1: a prime mover counts 1, a helper ½, one that changes role ½. */
function overlap(a: Entry, b: Entry): number {
  const allA = a.prime | a.assist;
  const allB = b.prime | b.assist;
  const prime = bits(a.prime & b.prime);
  const shared = prime + (bits(allA & allB) - prime) / 2;
  const eitherPrime = bits(a.prime | b.prime);
  const total = eitherPrime + (bits(allA | allB) - eitherPrime) / 2;
  return total === 0 ? 0 : shared / total;
}

/** Prepares a library. @throws CycleError when its ladders run in a circle. */
export function buildCatalog(movements: readonly MovementFacts[]): Catalog {
  const ladder = buildLadder(movements);
  const entries = new Map(
    movements.map((facts): [string, Entry] => [
      facts.id,
      {
        facts,
        prime: mask(facts.muscles.prime),
        assist: mask(facts.muscles.assist),
        items: new Set(itemsOf(facts.kit)),
        bare: needsNothing(facts.kit),
        asks: Uint8Array.from(DEMANDS, (demand) => facts.demands[demand] ?? 0),
        space: SPACES.indexOf(facts.space),
        component: ladder.components.get(facts.id) ?? -1,
        level: ladder.levels.get(facts.id) ?? 0,
      },
    ]),
  );
  return { ladder, entries };
}

type Wanted = 'down' | 'up' | 'level';

const WANTED: Readonly<Record<SwapReason | 'closed', Wanted>> = {
  closed: 'level',
  'too-hard': 'down',
  wobbly: 'down',
  'too-easy': 'up',
  pain: 'level',
  'no-kit': 'level',
  'no-room': 'level',
  bored: 'level',
};

const FITTING_LEVERS: Readonly<Partial<Record<SubstituteQuery['reason'], readonly Lever[]>>> = {
  wobbly: ['base', 'assistance', 'coordination'],
};

const STEPWISE: readonly SubstituteQuery['reason'][] = ['too-hard', 'too-easy'];
/** Where a movement is left although it was the right one. */
const STANDS_IN: readonly SubstituteQuery['reason'][] = ['pain', 'closed'];
/** Levels that somebody goes without being a beginner again, or out of their depth. */
const NEAR_LEVELS = 2;

const FAR = 6;
/** Share of muscles in common from which another pattern is worth offering. */
const SOME_SHARED = 0.3;
/** The same from which it works mostly the same. */
const MOSTLY_SHARED = 0.5;

interface Candidate {
  entry: Entry;
  cost: number;
  steps: readonly Step[] | undefined;
  levels: number | null;
  overlap: number;
  openness: Openness;
}

/**
 * Ranked substitutes for a movement.
 * @throws RangeError when `from` is not in the catalog or a pain query names no region.
 */
export function substitutes(catalog: Catalog, query: SubstituteQuery): SubstituteAnswer {
  const from = catalog.entries.get(query.from);
  if (!from) throw new RangeError(`no movement "${query.from}"`);
  if (query.reason === 'pain' && !query.region) throw new RangeError('pain needs the region that hurts');
  const wanted = WANTED[query.reason];
  const easier = reach(catalog.ladder, query.from, ['easier'], FAR);
  const harder = reach(catalog.ladder, query.from, ['harder'], FAR);
  const nearby = reach(catalog.ladder, query.from, ['sideways', 'easier', 'harder'], 3);

  const candidates: Candidate[] = [];
  for (const entry of catalog.entries.values()) {
    if (entry === from) continue;
    const { id } = entry.facts;
    const steps = wanted === 'down' ? easier.get(id) : wanted === 'up' ? harder.get(id) : nearby.get(id);
    const shared = overlap(from, entry);
    if (!steps && !mayStandIn(query.reason, wanted, from, entry, shared)) continue;
    const levels = entry.component === from.component ? entry.level - from.level : null;
    const openness = opennessWith(entry.facts, query.limits, query.kit);
    const cost =
      costOf(query.reason, wanted, from, entry, steps, levels, shared) + (openness === 'care' ? COST.withCare : 0);
    candidates.push({ entry, steps, levels, overlap: shared, openness, cost });
  }
  const standsIn = STANDS_IN.includes(query.reason);
  const far = (candidate: Candidate): number =>
    standsIn ? awayFromMeant(from, candidate) : awayOnLadder(from, candidate);
  // One small step at a time, where only the size of the step is asked for.
  const rungs = ({ steps, levels }: Candidate): number =>
    STEPWISE.includes(query.reason) && steps ? Math.abs(levels ?? 0) : 0;
  candidates.sort(
    (a, b) =>
      far(a) - far(b) || rungs(a) - rungs(b) || a.cost - b.cost || (a.entry.facts.id < b.entry.facts.id ? -1 : 1),
  );

  const most = query.most ?? 6;
  const ranked: Substitute[] = [];
  const ruledOut: RuledOut[] = [];
  for (const candidate of candidates) {
    if (ranked.length >= most) break;
    const { id, name } = candidate.entry.facts;
    const by = hardCondition(query, from, candidate);
    if (by === null) ranked.push(describe(query, from, candidate));
    else if (ruledOut.length < most) ruledOut.push({ id, name, by });
  }
  return { ranked, ruledOut };
}

const awayOnLadder = (from: Entry, { entry, steps, levels }: Candidate): number =>
  entry.facts.pattern !== from.facts.pattern ? 3 : steps ? 0 : levels !== null ? 1 : 2;

/** Whether a movement has every prime muscle of another among its own. */
const worksAll = (from: Entry, entry: Entry): boolean => (from.prime & ~entry.prime) === 0;

/**
 * How far a movement is from what another is meant for: its prime muscles for the same purpose near on the ladder, for another purpose,
 * anywhere; then most of its muscles, some of them, or others.
 */
function awayFromMeant(from: Entry, { entry, levels, overlap: shared }: Candidate): number {
  if (worksAll(from, entry)) {
    if (levels === null || Math.abs(levels) > NEAR_LEVELS) return 2;
    return entry.facts.role === from.facts.role ? 0 : 1;
  }
  return shared >= MOSTLY_SHARED ? 3 : shared >= SOME_SHARED ? 4 : 5;
}

/**
 * Off the wanted path, only a movement of the same pattern and role may stand in, and only if nothing says that it goes the wrong way.
 * In place of what is closed or hurts another pattern may, if it still works some of the same muscles: what spares the region matters more than
 * how it is trained.
 */
function mayStandIn(
  reason: SubstituteQuery['reason'],
  wanted: Wanted,
  from: Entry,
  entry: Entry,
  shared: number,
): boolean {
  if (entry.facts.role !== from.facts.role) return false;
  if (entry.facts.pattern !== from.facts.pattern)
    return STANDS_IN.includes(reason) && (shared >= SOME_SHARED || worksAll(from, entry));
  if (wanted === 'level') return true;
  if (entry.component === from.component)
    return wanted === 'down' ? entry.level < from.level : entry.level > from.level;
  return wanted === 'down' && asksMore(entry, from) === 0;
}

/** Steps of demand that `a` asks over what `b` asks. */
function asksMore(a: Entry, b: Entry): number {
  let more = 0;
  for (let i = 0; i < a.asks.length; i += 1) more += Math.max(0, (a.asks[i] ?? 0) - (b.asks[i] ?? 0));
  return more;
}

function costOf(
  reason: SubstituteQuery['reason'],
  wanted: Wanted,
  from: Entry,
  entry: Entry,
  steps: readonly Step[] | undefined,
  levels: number | null,
  shared: number,
): number {
  const a = from.facts;
  const b = entry.facts;
  const lever = steps?.[0]?.lever;
  let cost = COST.otherMuscles * (1 - shared);
  if (b.pattern !== a.pattern) cost += COST.otherPattern;
  if (b.role !== a.role) cost += COST.otherRole;
  if (b.position !== a.position) cost += COST.otherPosition;
  if (b.sides !== a.sides) cost += COST.otherSides;
  if (!entry.bare && ![...from.items].some((item) => entry.items.has(item))) cost += COST.otherKit;
  if (wanted !== 'up') cost += COST.asksMore * asksMore(entry, from);
  if (steps) cost += COST.linkAway * (steps.length - 1);
  if (steps && wanted === 'level') cost += COST.levelOff * Math.abs(levels ?? 0);
  if (lever && FITTING_LEVERS[reason]?.includes(lever)) cost += COST.fittingLever;
  return cost;
}

/** Why a movement cannot be taken at all; null when it can. */
function hardCondition(query: SubstituteQuery, from: Entry, { entry, openness }: Candidate): RuledOutBy | null {
  const { facts } = entry;
  if (query.avoid?.includes(facts.id)) return { code: 'hurt-before' };
  if (openness === 'closed') return { code: 'limits', because: fitWith(facts, query.limits, query.kit).because };
  if (usableOption(facts.kit, query.kit) === undefined) return { code: 'kit', options: facts.kit };
  if (query.space && entry.space > SPACES.indexOf(query.space)) return { code: 'room', space: facts.space };
  switch (query.reason) {
    case 'pain': {
      const [asked = []] = openOptions(facts, query.limits, query.kit)
        .map((option) => painful(query.region, demandsWith(facts.demands, option), from.facts))
        .toSorted((a, b) => a.length - b.length);
      return asked.length > 0 ? { code: 'still-asks', demands: asked } : null;
    }
    case 'wobbly': {
      // What cannot be held steady this way is not steadied by another way to go: it wants support, or a wider and stiller base.
      if (facts.planes.some((plane) => !from.facts.planes.includes(plane))) return { code: 'other-way' };
      const sway = facts.demands['single-leg-balance'] ?? 0;
      return sway > 0 && sway >= (from.facts.demands['single-leg-balance'] ?? 0) ? { code: 'as-much-balance' } : null;
    }
    case 'no-kit':
      return usableOption(facts.kit, without(query.kit, from.facts)) === undefined ? { code: 'same-kit' } : null;
    case 'no-room':
      return entry.space >= from.space && from.space > 0 ? { code: 'as-much-room' } : null;
    default:
      return null;
  }
}

/** The kit without what a movement may be using. */
function without(kit: ReadonlyMap<KitItem, number>, facts: MovementFacts): Map<KitItem, number> {
  const taken = new Set(itemsOf(facts.kit));
  return new Map([...kit].filter(([item]) => !taken.has(item)));
}

/** Demands on the painful region that are more than a trace, or no less than now. */
function painful(region: Region | undefined, demands: Demands, from: MovementFacts): Demand[] {
  if (!region) return [];
  return REGION_DEMANDS[region].filter((demand) => {
    const asked = demands[demand] ?? 0;
    return asked > 1 || (asked > 0 && asked >= (from.demands[demand] ?? 0));
  });
}

function describe(query: SubstituteQuery, from: Entry, candidate: Candidate): Substitute {
  const { entry, steps, levels, openness, cost } = candidate;
  const { facts } = entry;
  const option = openOptions(facts, query.limits, query.kit)[0];
  const why: SwapFact[] = [
    facts.pattern === from.facts.pattern
      ? ladderFact(steps, levels)
      : { code: 'other-pattern', pattern: facts.pattern },
    muscleFact(from, entry, candidate.overlap),
    { code: 'needs', option: option ?? null },
  ];
  if (query.reason === 'pain' && query.region) why.unshift({ code: 'spares', region: query.region });
  if (openness === 'care') why.push({ code: 'care', because: fitWith(facts, query.limits, query.kit).because });
  return { id: facts.id, name: facts.name, cost, levels, care: openness === 'care', why };
}

function ladderFact(steps: readonly Step[] | undefined, levels: number | null): SwapFact {
  if (levels === null) return { code: 'off-ladder' };
  if (!steps) return { code: 'other-branch' };
  return levels === 0
    ? { code: 'same-level' }
    : { code: 'rungs', levels, levers: [...new Set(steps.map(({ lever }) => lever))] };
}

function muscleFact(from: Entry, entry: Entry, shared: number): SwapFact {
  if (shared >= 0.8) return { code: 'same-muscles' };
  if (shared >= MOSTLY_SHARED) return { code: 'mostly-same-muscles' };
  const muscles = from.facts.muscles.prime.filter((muscle) =>
    [...entry.facts.muscles.prime, ...entry.facts.muscles.assist].includes(muscle),
  );
  return muscles.length > 0 ? { code: 'also-works', muscles } : { code: 'other-muscles' };
}
