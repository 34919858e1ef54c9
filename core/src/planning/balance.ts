/**
 * Four weeks of sets against what would balance them: by pattern, plane and muscle, for an aim and for how the day is spent.
 * The shares are guesses, labelled so: only their order of size is argued for. Somebody who sits all day gets more pulling and hinging; who
 * lifts all day needs less of it here, and more of a trunk that holds and turns.
 */
import type { DayKind } from '../client/client.js';
import { setsIn } from '../client/history.js';
import type { PastSession } from '../client/history-schema.js';
import type { MovementSummary } from '../movement/summary-schema.js';
import type { Muscle, Pattern, Plane, Purpose } from '../movement/vocabulary.js';

/** Shares of the sets of a month, by pattern, for somebody of whom nothing else is known. They add up to 1. */
const SHARES: Readonly<Partial<Record<Pattern, number>>> = {
  squat: 0.14,
  lunge: 0.12,
  hinge: 0.16,
  push: 0.14,
  pull: 0.18,
  brace: 0.1,
  carry: 0.08,
  rotate: 0.08,
};
export const BALANCED: readonly Pattern[] = Object.keys(SHARES) as Pattern[];

type Times = Readonly<Partial<Record<Pattern, number>>>;

const BY_DAY: Readonly<Record<DayKind, Times>> = {
  sits: { pull: 1.4, hinge: 1.25, lunge: 1.1, push: 0.9 },
  bends: { hinge: 0.75, brace: 1.3, squat: 1.15, pull: 1.1 },
  lifts: { carry: 0.5, hinge: 0.8, brace: 1.3, rotate: 1.25 },
  stands: { brace: 1.2, pull: 1.1, lunge: 0.9 },
};

const BY_AIM: Readonly<Partial<Record<Purpose, Times>>> = {
  muscle: { push: 1.15, pull: 1.15, squat: 1.1 },
  endurance: { carry: 1.4, lunge: 1.2 },
  power: { hinge: 1.2, squat: 1.1 },
};

/** Shares of the planes in which a body moves. */
const PLANE_SHARES: Readonly<Record<Plane, number>> = { sagittal: 0.6, frontal: 0.2, transverse: 0.2 };

/** Sets in four weeks from which a balance says anything. */
const ENOUGH_SETS = 12;
/** Less than this share of what is wanted is short. */
const SHORT_BELOW = 0.6;
const WEEKS = 4;
const WEEK_MS = 7 * 86_400_000;

/** A day of that kind asks for more of a pattern. */
export const moreForDay = (day: DayKind, pattern: Pattern): boolean => (BY_DAY[day][pattern] ?? 1) > 1;

/** What each pattern should have of the whole, for an aim and a day. They add up to 1. */
export function sharesFor(aim: Purpose, day: DayKind | null): Map<Pattern, number> {
  const raw = BALANCED.map((pattern): [Pattern, number] => [
    pattern,
    (SHARES[pattern] ?? 0) * (BY_AIM[aim]?.[pattern] ?? 1) * (day === null ? 1 : (BY_DAY[day][pattern] ?? 1)),
  ]);
  const whole = raw.reduce((sum, [, share]) => sum + share, 0);
  return new Map(raw.map(([pattern, share]) => [pattern, share / whole]));
}

export interface Part<K> {
  of: K;
  sets: number;
  /** Sets that would balance what was done. */
  wanted: number;
  /** Clearly less than that. */
  short: boolean;
}

export interface Balance {
  /** Sets of what is balanced, in four weeks. */
  sets: number;
  patterns: Part<Pattern>[];
  planes: Part<Plane>[];
  /** A prime mover counts a whole set, a helper half. Most first. */
  muscles: [muscle: Muscle, sets: number][];
}

/** What is balanced: how the sets of some people lie, who share a session. */
export interface BalanceQuestion {
  people: readonly { sets: Readonly<Record<string, readonly PastSession[]>>; day: DayKind | null }[];
  aim: Purpose;
  find: (id: string) => Pick<MovementSummary, 'pattern' | 'planes' | 'muscles'> | undefined;
  /** Today, ISO. */
  now: string;
}

export function balanceOf({ people, aim, find, now }: BalanceQuestion): Balance {
  const from = Date.parse(now) - WEEKS * WEEK_MS;
  const patterns = new Map<Pattern, number>();
  const planes = new Map<Plane, number>();
  const muscles = new Map<Muscle, number>();
  const add = <K>(map: Map<K, number>, key: K, n: number): void => void map.set(key, (map.get(key) ?? 0) + n);
  for (const { sets } of people)
    for (const [id, sessions] of Object.entries(sets)) {
      const movement = find(id);
      if (!movement || !BALANCED.includes(movement.pattern)) continue;
      const done = sessions.filter(({ at }) => Date.parse(at) >= from).reduce((sum, one) => sum + setsIn(one), 0);
      if (done === 0) continue;
      add(patterns, movement.pattern, done);
      for (const plane of movement.planes) add(planes, plane, done / movement.planes.length);
      for (const muscle of movement.muscles.prime) add(muscles, muscle, done);
      for (const muscle of movement.muscles.assist) add(muscles, muscle, done / 2);
    }
  const all = [...patterns.values()].reduce((sum, n) => sum + n, 0);
  const enough = all >= ENOUGH_SETS;
  const part = <K>(of: K, sets: number, share: number): Part<K> => {
    const wanted = share * all;
    return { of, sets, wanted, short: enough && sets < wanted * SHORT_BELOW };
  };
  // Each has a day of their own; what they share is what all of them want together.
  const shares = people.map(({ day }) => sharesFor(aim, day));
  const shareOf = (pattern: Pattern): number =>
    shares.reduce((sum, one) => sum + (one.get(pattern) ?? 0), 0) / Math.max(1, shares.length);
  return {
    sets: all,
    patterns: BALANCED.map((pattern) => part(pattern, patterns.get(pattern) ?? 0, shareOf(pattern))),
    planes: (Object.keys(PLANE_SHARES) as Plane[]).map((plane) =>
      part(plane, Math.round(planes.get(plane) ?? 0), PLANE_SHARES[plane]),
    ),
    muscles: [...muscles].toSorted((a, b) => b[1] - a[1]),
  };
}

/** Sets that are missing to a pattern; 0 where nothing is short. */
export const missing = ({ sets, wanted, short }: Part<unknown>): number => (short ? wanted - sets : 0);
