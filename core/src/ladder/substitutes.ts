/**
 * Substitutes: from one movement, a reason, a client's limits and what is in the room to ranked replacements with their reasons.
 * Hard conditions first (limits, kit, room, the reason's own); then rungs that are linked, then the same family, then others, each by least cost.
 * Only links say what is easier than what: levels of different branches of a family tell nothing of each other.
 */
import { demandWords, inWords, kitWords, leverWords } from '../movement/words.js';
import { fitFor, opennessFor, type Limit, type Openness } from '../movement/limits.js';
import { usableOption } from '../movement/kit.js';
import type { Movement } from '../movement/schema.js';
import {
  DEMANDS,
  KIT_ITEMS,
  MUSCLES,
  SPACES,
  type Demand,
  type KitItem,
  type Lever,
  type Muscle,
  type Region,
  type Space,
} from '../movement/vocabulary.js';
import { REGION_DEMANDS } from '../client/pain.js';
import { buildLadder, reach, type Ladder, type Step } from './graph.js';
import { SUBSTITUTE_COST as COST } from './weights.js';

export const SWAP_REASONS = ['too-hard', 'too-easy', 'wobbly', 'pain', 'no-kit', 'no-room', 'bored'] as const;
export type SwapReason = (typeof SWAP_REASONS)[number];

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
  | 'links'
>;

interface Entry {
  facts: MovementFacts;
  prime: number;
  assist: number;
  /** Every item of any kit option, as bits. */
  items: number;
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
  reason: SwapReason;
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
  reasons: string[];
}

export interface RuledOut {
  id: string;
  name: string;
  because: string;
}

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
        items: facts.kit.flat().reduce((all, need) => all | (1 << KIT_ITEMS.indexOf(need.item)), 0),
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

const WANTED: Readonly<Record<SwapReason, Wanted>> = {
  'too-hard': 'down',
  wobbly: 'down',
  'too-easy': 'up',
  pain: 'level',
  'no-kit': 'level',
  'no-room': 'level',
  bored: 'level',
};

const FITTING_LEVERS: Readonly<Partial<Record<SwapReason, readonly Lever[]>>> = {
  wobbly: ['base', 'assistance', 'coordination'],
};

const STEPWISE: readonly SwapReason[] = ['too-hard', 'too-easy'];

const FAR = 6;
/** Share of muscles in common from which another pattern is worth offering. */
const SOME_SHARED = 0.3;

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
    const openness = opennessFor(entry.facts.demands, query.limits);
    const cost =
      costOf(query.reason, wanted, from, entry, steps, levels, shared) + (openness === 'care' ? COST.withCare : 0);
    candidates.push({ entry, steps, levels, overlap: shared, openness, cost });
  }
  const far = ({ entry, steps, levels }: Candidate): number =>
    entry.facts.pattern !== from.facts.pattern ? 3 : steps ? 0 : levels !== null ? 1 : 2;
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
    const because = hardCondition(query, from, candidate);
    if (because === null) ranked.push(describe(query, from, candidate));
    else if (ruledOut.length < most) ruledOut.push({ id, name, because });
  }
  return { ranked, ruledOut };
}

/**
 * Off the wanted path, only a movement of the same pattern and role may stand in, and only if nothing says that it goes the wrong way.
 * After pain another pattern may, if it still works some of the same muscles: what spares the region matters more than how it is trained.
 */
function mayStandIn(reason: SwapReason, wanted: Wanted, from: Entry, entry: Entry, shared: number): boolean {
  if (entry.facts.role !== from.facts.role) return false;
  if (entry.facts.pattern !== from.facts.pattern) return reason === 'pain' && shared >= SOME_SHARED;
  if (reason === 'pain') return true;
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
  reason: SwapReason,
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
  if (b.kit.length > 0 && (from.items & entry.items) === 0) cost += COST.otherKit;
  if (wanted !== 'up') cost += COST.asksMore * asksMore(entry, from);
  if (steps) cost += COST.linkAway * (steps.length - 1);
  if (steps && wanted === 'level') cost += COST.levelOff * Math.abs(levels ?? 0);
  if (lever && FITTING_LEVERS[reason]?.includes(lever)) cost += COST.fittingLever;
  return cost;
}

/** Why a movement cannot be taken at all, in words; null when it can. */
function hardCondition(query: SubstituteQuery, from: Entry, { entry, openness }: Candidate): string | null {
  const { facts } = entry;
  if (query.avoid?.includes(facts.id)) return 'hurt when it was last done';
  if (openness === 'closed') return fitFor(facts.demands, query.limits).because.join('; ');
  if (usableOption(facts.kit, query.kit) === undefined) return `needs ${kitWords(facts.kit)}`;
  if (query.space && entry.space > SPACES.indexOf(query.space)) return `needs room: ${facts.space}`;
  switch (query.reason) {
    case 'pain': {
      const asked = painful(query.region, facts, from.facts);
      return asked.length > 0 ? `still asks for ${asked.map(demandWords).join(' and ')}` : null;
    }
    case 'wobbly': {
      // What cannot be held steady this way is not steadied by another way to go: it wants support, or a wider and stiller base.
      if (facts.planes.some((plane) => !from.facts.planes.includes(plane))) return 'goes another way';
      const sway = facts.demands['single-leg-balance'] ?? 0;
      return sway > 0 && sway >= (from.facts.demands['single-leg-balance'] ?? 0) ? 'asks for as much balance' : null;
    }
    case 'no-kit':
      return usableOption(facts.kit, without(query.kit, from.facts)) === undefined ? 'needs the same kit' : null;
    case 'no-room':
      return entry.space >= from.space && from.space > 0 ? 'needs as much room' : null;
    default:
      return null;
  }
}

/** The kit without what a movement may be using. */
function without(kit: ReadonlyMap<KitItem, number>, facts: MovementFacts): Map<KitItem, number> {
  const taken = new Set(facts.kit.flat().map((need) => need.item));
  return new Map([...kit].filter(([item]) => !taken.has(item)));
}

/** Demands on the painful region that are more than a trace, or no less than now. */
function painful(region: Region | undefined, facts: MovementFacts, from: MovementFacts): Demand[] {
  if (!region) return [];
  return REGION_DEMANDS[region].filter((demand) => {
    const asked = facts.demands[demand] ?? 0;
    return asked > 1 || (asked > 0 && asked >= (from.demands[demand] ?? 0));
  });
}

function describe(query: SubstituteQuery, from: Entry, candidate: Candidate): Substitute {
  const { entry, steps, levels, openness, cost } = candidate;
  const { facts } = entry;
  const option = usableOption(facts.kit, query.kit) ?? [];
  const reasons = [
    facts.pattern === from.facts.pattern ? ladderWords(steps, levels) : `another pattern: ${facts.pattern}`,
    muscleWords(from, entry, candidate.overlap),
    `needs ${kitWords(option.length ? [option] : [])}`,
  ];
  if (query.reason === 'pain' && query.region) reasons.unshift(`spares the ${inWords(query.region)}`);
  if (openness === 'care') reasons.push(`with care: ${fitFor(facts.demands, query.limits).because.join('; ')}`);
  return { id: facts.id, name: facts.name, cost, levels, care: openness === 'care', reasons };
}

function ladderWords(steps: readonly Step[] | undefined, levels: number | null): string {
  if (levels === null) return 'same pattern, off this ladder';
  if (!steps) return 'same family, on another branch';
  if (levels === 0) return 'same level';
  const direction = levels < 0 ? 'easier' : 'harder';
  const changes = [...new Set(steps.map((step) => leverWords(step.lever, direction)))];
  const rungs = Math.abs(levels) === 1 ? 'one rung' : `${Math.abs(levels)} rungs`;
  return `${rungs} ${direction}: ${changes.slice(0, 2).join(', ')}`;
}

function muscleWords(from: Entry, entry: Entry, shared: number): string {
  if (shared >= 0.8) return 'same muscles';
  if (shared >= 0.5) return 'mostly the same muscles';
  const common = from.facts.muscles.prime.filter((muscle) =>
    [...entry.facts.muscles.prime, ...entry.facts.muscles.assist].includes(muscle),
  );
  return common.length > 0 ? `also works ${common.map(inWords).join(', ')}` : 'other muscles';
}
