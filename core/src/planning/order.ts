/**
 * The order of things that costs least: exact to twelve by dynamic programming over subsets (Held & Karp 1962), above that by iterated local search.
 * Costs are seconds, or penalties counted as seconds. Locked things keep their place; a pair stays together.
 */

export interface OrderProblem {
  /** How many things there are. */
  size: number;
  /** Cost of beginning with one. */
  first: readonly number[];
  /** Cost of going from one straight to another. */
  step: readonly (readonly number[])[];
  /** Cost of having one at a place, from 0. */
  place: readonly (readonly number[])[];
  /** How often the whole is gone round: from the last back to the first, `rounds − 1` times. */
  rounds: number;
  /** The place that one must keep; null where it is free. */
  locked: readonly (number | null)[];
  /** The one that must follow straight after; null where any may. */
  then: readonly (number | null)[];
  /** Those that must have come before it. */
  after: readonly (readonly number[])[];
}

/** Most things that are ordered exactly. */
export const EXACT_SIZE = 12;

/** What an order costs; infinite when it moves something locked, parts a pair or puts one before what it builds on. */
export function orderCost(problem: OrderProblem, order: readonly number[]): number {
  const { first, step, place, rounds, locked, then, after } = problem;
  let cost = first[order[0] ?? 0] ?? 0;
  for (let i = 0; i < order.length; i += 1) {
    const one = order[i] as number;
    const keep = locked[one];
    if (keep !== null && keep !== undefined && keep !== i) return Infinity;
    const follower = then[one];
    if (follower !== null && follower !== undefined && order[i + 1] !== follower) return Infinity;
    if (after[one]?.some((other) => order.indexOf(other) > i)) return Infinity;
    cost += place[one]?.[i] ?? 0;
    if (i > 0) cost += rounds * (step[order[i - 1] as number]?.[one] ?? 0);
  }
  if (rounds > 1 && order.length > 1) cost += (rounds - 1) * (step[order.at(-1) as number]?.[order[0] as number] ?? 0);
  return cost;
}

/** The order of least cost; null when locks and pairs contradict one another. The given order wins a tie where it can. */
export function bestOrder(problem: OrderProblem): number[] | null {
  const given = Array.from({ length: problem.size }, (_, i) => i);
  if (problem.size < 2) return given;
  const best = problem.size <= EXACT_SIZE ? exact(problem) : searched(problem, given);
  if (!best) return null;
  return orderCost(problem, given) <= orderCost(problem, best) + 1e-9 ? given : best;
}

/** Least cost over all orders. Where the last leads back to the first, each possible first is tried. */
function exact(problem: OrderProblem): number[] | null {
  const closes = problem.rounds > 1;
  const starts = closes ? Array.from({ length: problem.size }, (_, i) => i) : [null];
  let best: { cost: number; order: number[] } | null = null;
  for (const start of starts) {
    const found = fromStart(problem, start);
    if (found && (!best || found.cost < best.cost)) best = found;
  }
  return best?.order ?? null;
}

function fromStart(problem: OrderProblem, start: number | null): { cost: number; order: number[] } | null {
  const { size: n, first, step, place, rounds, locked, then, after } = problem;
  const needs = after.map((others) => others.reduce((bits, other) => bits | (1 << other), 0));
  const all = (1 << n) - 1;
  // The cheapest way to have done a set of things, by the one done last.
  const cost = new Float64Array((all + 1) * n).fill(Infinity);
  const from = new Int8Array((all + 1) * n).fill(-1);
  // Whoever must follow straight after somebody may come after nobody else.
  const leader = new Int8Array(n).fill(-1);
  then.forEach((follower, i) => {
    if (follower !== null) leader[follower] = i;
  });
  const fits = (one: number, at: number) => locked[one] === null || locked[one] === at;
  for (let i = 0; i < n; i += 1)
    if ((start === null || i === start) && fits(i, 0) && leader[i] === -1 && !needs[i])
      cost[(1 << i) * n + i] = (first[i] ?? 0) + (place[i]?.[0] ?? 0);
  const counts = new Uint8Array(all + 1);
  for (let mask = 1; mask <= all; mask += 1) {
    counts[mask] = (counts[mask >> 1] ?? 0) + (mask & 1);
    const at = counts[mask] as number;
    for (let last = 0; last < n; last += 1) {
      const here = cost[mask * n + last] as number;
      if (here === Infinity) continue;
      const steps = step[last] as readonly number[];
      const must = then[last];
      for (let next = 0; next < n; next += 1) {
        if (mask & (1 << next) || (needs[next] as number) & ~mask || !fits(next, at)) continue;
        if (must !== null && must !== undefined ? next !== must : leader[next] !== -1) continue;
        const there = (mask | (1 << next)) * n + next;
        const total = here + rounds * (steps[next] as number) + ((place[next] as readonly number[])[at] ?? 0);
        if (total < (cost[there] as number)) {
          cost[there] = total;
          from[there] = last;
        }
      }
    }
  }
  let best = Infinity;
  let last = -1;
  for (let i = 0; i < n; i += 1) {
    if (then[i] !== null && then[i] !== undefined) continue;
    const total = (cost[all * n + i] as number) + (start === null ? 0 : (rounds - 1) * (step[i]?.[start] ?? 0));
    if (total < best) {
      best = total;
      last = i;
    }
  }
  if (last < 0) return null;
  const order: number[] = [];
  for (let mask = all; last >= 0;) {
    order.unshift(last);
    const before = from[mask * n + last] as number;
    mask &= ~(1 << last);
    last = before;
  }
  return { cost: best, order };
}

/** Rounds of shaking up and settling again: enough for thirty things to come within two in a hundred of a much longer search. */
const SHAKES = 150;

/** A shaken order is gone on from while it is at most this much worse than the best. */
const STRAY = 1.06;

function searched(problem: OrderProblem, given: readonly number[], shakes = SHAKES): number[] | null {
  const dice = mulberry(problem.size);
  const flat = laidFlat(problem);
  let now = Int32Array.from(given);
  if (!flat.keeps(now)) now = Int32Array.from(lawful(problem, given));
  if (!flat.keeps(now)) return null;
  let bestCost = settle(now, flat);
  let best = [...now];
  for (let i = 0; i < shakes; i += 1) {
    shake(now, flat, dice);
    const cost = settle(now, flat);
    if (cost < bestCost) {
      bestCost = cost;
      best = [...now];
    } else if (cost > STRAY * bestCost) now.set(best);
  }
  return best;
}

/** For comparison: the same search, many times as long. */
export const longSearch = (problem: OrderProblem, shakes: number): number[] | null =>
  searched(
    problem,
    Array.from({ length: problem.size }, (_, i) => i),
    shakes,
  );

/** A problem laid flat for many looks: costs in one array each, rules apart from them. */
interface Flat {
  n: number;
  rounds: number;
  first: Float64Array;
  step: Float64Array;
  place: Float64Array;
  /** Whether an order keeps every lock, pair and what must come before. */
  keeps: (order: Int32Array) => boolean;
}

function laidFlat(problem: OrderProblem): Flat {
  const { size: n, rounds } = problem;
  const locks = problem.locked.flatMap((at, one) => (at === null ? [] : [[one, at] as const]));
  const pairs = problem.then.flatMap((next, one) => (next === null ? [] : [[one, next] as const]));
  const befores = problem.after.flatMap((others, one) => others.map((other) => [other, one] as const));
  const keeps = (order: Int32Array): boolean =>
    locks.every(([one, at]) => order[at] === one) &&
    pairs.every(([one, next]) => order[order.indexOf(one) + 1] === next) &&
    befores.every(([one, later]) => order.indexOf(one) < order.indexOf(later));
  return {
    n,
    rounds,
    first: Float64Array.from(problem.first),
    step: Float64Array.from(problem.step.flat()),
    place: Float64Array.from(problem.place.flat()),
    keeps,
  };
}

/** What it costs to have `one` at a place after `before`. */
const stepTo = ({ n, rounds, first, step, place }: Flat, before: number, one: number, at: number): number =>
  (place[one * n + at] as number) + (at === 0 ? (first[one] as number) : rounds * (step[before * n + one] as number));

/** A first order with every lock and pair kept, if a simple filling finds one. */
function lawful({ size, locked, then }: OrderProblem, given: readonly number[]): number[] {
  const places: (number | undefined)[] = Array.from({ length: size });
  const used = new Set<number>();
  const put = (one: number, at: number): void => {
    for (
      let next: number | null | undefined = one, i = at;
      next !== null && next !== undefined;
      next = then[next], i += 1
    ) {
      places[i] = next;
      used.add(next);
    }
  };
  const followers = new Set(then.filter((one) => one !== null));
  locked.forEach((at, one) => {
    if (at !== null && !used.has(one) && places[at] === undefined) put(one, at);
  });
  const length = (one: number): number => {
    const next = then[one];
    return next === null || next === undefined ? 1 : 1 + length(next);
  };
  // Long chains first: they need room.
  const free = given.filter((one) => !used.has(one) && !followers.has(one)).sort((a, b) => length(b) - length(a));
  for (const one of free) {
    const need = length(one);
    const at = places.findIndex((_, i) => i + need <= size && places.slice(i, i + need).every((x) => x === undefined));
    if (at >= 0) put(one, at);
  }
  return places.map((one) => one ?? 0);
}

/**
 * Swaps two things, turns stretches round and moves chains of one to three, as long as anything gets cheaper.
 * Only the stretch that changes is priced anew, and only until it is dearer. @returns what the order costs then
 */
function settle(order: Int32Array, flat: Flat): number {
  const { n, rounds, step } = flat;
  const next = new Int32Array(n);
  // Cost of everything before a place.
  const upTo = new Float64Array(n + 1);
  const wrap = (all: Int32Array): number =>
    (rounds - 1) * (step[(all[n - 1] as number) * n + (all[0] as number)] as number);
  const price = (): number => {
    for (let i = 0; i < n; i += 1)
      upTo[i + 1] = (upTo[i] as number) + stepTo(flat, order[i - 1] ?? 0, order[i] as number, i);
    return (upTo[n] as number) + wrap(order);
  };
  let cost = price();
  /** Takes `next`, which differs from `order` from one place to another, if it is cheaper and lawful. */
  const take = (from: number, to: number): boolean => {
    const most = cost - 1e-9;
    const last = Math.min(n - 1, to + 1);
    let there = (upTo[from] as number) + wrap(next) + ((upTo[n] as number) - (upTo[last + 1] as number));
    for (let i = from; i <= last; i += 1) {
      there += stepTo(flat, next[i - 1] ?? 0, next[i] as number, i);
      if (there >= most) return false;
    }
    if (!flat.keeps(next)) return false;
    order.set(next);
    cost = price();
    return true;
  };
  // `next` is always brought back to `order`, so that a trial costs a few writes and no copy.
  next.set(order);
  const swap = (i: number, j: number): void => {
    const one = next[i] as number;
    next[i] = next[j] as number;
    next[j] = one;
  };
  const turnRound = (i: number, j: number): void => {
    for (let a = i, b = j; a < b; a += 1, b -= 1) swap(a, b);
  };
  /** A chain, place by place, to one end; the first place that is cheaper is taken. */
  const slide = (from: number, length: number, by: 1 | -1): boolean => {
    for (let at = from + by; at >= 0 && at + length <= n; at += by) {
      // What the chain passes goes to its other side.
      const passed = by > 0 ? at + length - 1 : at;
      for (let k = 0; k < length; k += 1) swap(passed - by * k, passed - by * (k + 1));
      if (take(Math.min(from, at), Math.max(from, at) + length - 1)) return true;
    }
    next.set(order);
    return false;
  };
  for (let better = true; better;) {
    better = false;
    for (let i = 0; i < n; i += 1) {
      for (let j = i + 1; j < n; j += 1) {
        swap(i, j);
        if (take(i, j)) better = true;
        else swap(i, j);
      }
      for (let j = i + 2; j < Math.min(n, i + LONGEST_TURN); j += 1) {
        turnRound(i, j);
        if (take(i, j)) better = true;
        else turnRound(i, j);
      }
      for (let length = 1; length <= 3 && i + length <= n; length += 1)
        better = slide(i, length, 1) || slide(i, length, -1) || better;
    }
  }
  return cost;
}

/** Longest stretch that is turned round. */
const LONGEST_TURN = 8;

/** Two stretches change places, if that is lawful: a change that no single move takes back. */
function shake(order: Int32Array, flat: Flat, dice: () => number): void {
  const n = order.length;
  for (let tries = 0; tries < 8; tries += 1) {
    const cuts = Array.from({ length: 3 }, () => 1 + Math.floor(dice() * (n - 1))).sort((a, b) => a - b);
    const [a = 0, b = 0, c = 0] = cuts;
    const next = Int32Array.of(...order.slice(0, a), ...order.slice(b, c), ...order.slice(a, b), ...order.slice(c));
    if (flat.keeps(next)) {
      order.set(next);
      return;
    }
  }
}

/** A small seeded generator (mulberry32), so that the same plan always gets the same order. */
function mulberry(seed: number): () => number {
  let state = seed | 0;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}
