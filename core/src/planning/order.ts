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

/** Rounds of shaking up and settling again; enough for thirty things to come within two in a hundred of a much longer search. */
const SHAKES = 60;

/** Pairs as chains, so that they move as one; the free ones in an order that keeps every lock. */
function searched(problem: OrderProblem, given: readonly number[], shakes = SHAKES): number[] | null {
  const dice = mulberry(problem.size);
  let best = settle(problem, lawful(problem, given));
  if (orderCost(problem, best) === Infinity) return null;
  let bestCost = orderCost(problem, best);
  for (let i = 0; i < shakes; i += 1) {
    const shaken = shake(problem, best, dice);
    const settled = settle(problem, shaken);
    const cost = orderCost(problem, settled);
    if (cost < bestCost) [best, bestCost] = [settled, cost];
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

/** Moves chains of one to three things, and turns stretches round, as long as anything gets cheaper. */
function settle(problem: OrderProblem, start: readonly number[]): number[] {
  let order = [...start];
  let cost = orderCost(problem, order);
  for (let better = true; better;) {
    better = false;
    for (const next of neighbours(order)) {
      const there = orderCost(problem, next);
      if (there < cost - 1e-9) {
        order = next;
        cost = there;
        better = true;
        break;
      }
    }
  }
  return order;
}

function* neighbours(order: readonly number[]): Generator<number[]> {
  const n = order.length;
  for (let i = 0; i < n; i += 1)
    for (let j = i + 1; j < n; j += 1) {
      const swapped = [...order];
      [swapped[i], swapped[j]] = [swapped[j] as number, swapped[i] as number];
      yield swapped;
      yield [...order.slice(0, i), ...order.slice(i, j + 1).reverse(), ...order.slice(j + 1)];
    }
  for (let length = 1; length <= 3; length += 1)
    for (let i = 0; i + length <= n; i += 1) {
      const chain = order.slice(i, i + length);
      const rest = [...order.slice(0, i), ...order.slice(i + length)];
      for (let to = 0; to <= rest.length; to += 1)
        if (to !== i) yield [...rest.slice(0, to), ...chain, ...rest.slice(to)];
    }
}

/** A few lawful moves at random. */
function shake(problem: OrderProblem, order: readonly number[], dice: () => number): number[] {
  let shaken = [...order];
  for (let i = 0; i < 4; i += 1) {
    const [a, b] = [Math.floor(dice() * shaken.length), Math.floor(dice() * shaken.length)];
    const next = [...shaken];
    [next[a], next[b]] = [next[b] as number, next[a] as number];
    if (orderCost(problem, next) < Infinity) shaken = next;
  }
  return shaken;
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
