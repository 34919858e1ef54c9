/**
 * What one session teaches about one client, to be kept: no answer folds old sessions again.
 * It follows from the session's events alone; when they change it is made anew.
 */
import { bestSingle } from '../client/history.js';
import type { DoneSet, FaultLoad, FaultTally, Move, PastSession } from '../client/history-schema.js';
import { openPains, type PainOver, type PastPain } from '../client/open-pains.js';
import type { Aim } from '../client/place.js';
import type { NotedSetUp } from '../client/set-up-schema.js';
import type { TestResult } from '../client/tests.js';
import { styleOf } from '../coaching/correct.js';
import type { ClientRecord, Counted, Trial } from '../coaching/evidence-schema.js';
import { sideCount } from '../dosage/tempo.js';
import { combined } from '../movement/combined.js';
import { correctionKey } from '../movement/ids.js';
import type { Movement } from '../movement/schema.js';
import { EFFORTS } from '../movement/vocabulary.js';
import type { Entry, Lane, SetRecord } from './fold.js';

/** Kept digests of another version are made anew. */
export const DIGEST_VERSION = 5;

export interface Digest {
  /** When the client's part began (ISO). */
  at: string;
  trials: Trial[];
  /** By movement. */
  sets: Record<string, PastSession>;
  /** By movement. */
  faults: Record<string, FaultTally>;
  moves: Move[];
  faultLoad: FaultLoad | null;
  /** In the order in which they were reported. */
  pains: PastPain[];
  setUps: NotedSetUp[];
  /** What came out of tests, one for each. */
  tests: TestResult[];
  /** Movements that were left for the next time. */
  left: string[];
  /** Movements of which a set was done, and in which nothing hurt sharply. */
  painless: string[];
}

/** Finds a movement by id; undefined for one that is no longer in the library. */
export type FindMovement = (id: string) => Movement | undefined;

export function digestOf(lane: Lane, find: FindMovement): Digest {
  const hurt = new Set(lane.pains.flatMap(({ quality, movementId }) => (quality === 'sharp' ? movementId : [])));
  const done = new Set(lane.entries.flatMap(({ movementId, sets }) => (sets.length > 0 ? [movementId] : [])));
  return {
    at: lane.entries[0]?.startedAt ?? lane.pains[0]?.at ?? lane.notes[0]?.at ?? '',
    trials: trialsOf(lane, find),
    sets: Object.fromEntries(setsOf(lane, find)),
    faults: Object.fromEntries(tallyFaults(lane.entries, find)),
    moves: movesOf(lane),
    faultLoad: faultLoadOf(lane),
    // What is told without its place is never what is kept.
    pains: lane.pains.flatMap((pain) => (pain.region === null ? [] : pain)),
    setUps: lane.setUps,
    tests: testsOf(lane.entries),
    left: lane.left,
    painless: [...done].filter((id) => !hurt.has(id)),
  };
}

/**
 * What all sessions teach about a client.
 * @param digests of this client, in any order
 * @param others everybody else's trials by correction, faded
 * @param known beside what sessions teach: the pains that somebody called over, and what is planned
 */
export function recordOf(
  digests: readonly Digest[],
  others: Readonly<Record<string, Counted>>,
  { over = [], aim = null }: { over?: readonly PainOver[]; aim?: Aim | null } = {},
): ClientRecord {
  const inOrder = digests.toSorted((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
  const sets: Record<string, PastSession[]> = {};
  const faults: Record<string, FaultTally> = {};
  for (const digest of inOrder) {
    for (const [movementId, past] of Object.entries(digest.sets)) (sets[movementId] ??= []).push(past);
    for (const [movementId, tally] of Object.entries(digest.faults)) {
      const sum = (faults[movementId] ??= { sets: 0, seen: {} });
      sum.sets += tally.sets;
      for (const [faultId, n] of Object.entries(tally.seen)) sum.seen[faultId] = (sum.seen[faultId] ?? 0) + n;
    }
  }
  const pains = openPains(inOrder, over);
  const hurt = new Map(
    pains.flatMap(({ quality, movementId, at }) =>
      quality === 'sharp' && movementId !== null ? [[movementId, at] as const] : [],
    ),
  );
  return {
    trials: inOrder.flatMap(({ trials }) => trials),
    others,
    sets,
    faults,
    hurt: [...hurt].map(([movementId, at]) => ({ movementId, at })),
    pains,
    moves: inOrder.flatMap(({ moves }) => moves),
    left: inOrder.at(-1)?.left ?? [],
    setUps: inOrder.flatMap(({ setUps }) => setUps),
    tests: inOrder.flatMap(({ tests }) => tests),
    aim,
    faultLoads: inOrder.flatMap(({ faultLoad }) => faultLoad ?? []),
  };
}

/** The movement of a stay; of a combination both as one. */
export function movementIn({ movementId, withId }: Pick<Entry, 'movementId' | 'withId'>, find: FindMovement) {
  const movement = find(movementId);
  const other = withId === undefined ? undefined : find(withId);
  return movement && other ? combined(movement, other) : movement;
}

/** What the tests of a session came to: the best try of each, and the weaker side where each was tested. */
function testsOf(entries: readonly Entry[]): TestResult[] {
  const tries = entries.flatMap(({ movementId, sets }) =>
    sets.flatMap(({ test, side, amount, kg, at }) => {
      const value = test?.unit === 'kg' ? kg : amount;
      return test && value !== null ? [{ test, side, value, movementId, on: at.slice(0, 10) }] : [];
    }),
  );
  const names = [...new Set(tries.map(({ test }) => test.name))];
  return names.flatMap((name): TestResult[] => {
    const own = tries.filter(({ test }) => test.name === name);
    const [first] = own;
    if (!first) return [];
    const best = (['both', 'left', 'right'] as const).flatMap((side) => {
      const values = own.filter((one) => one.side === side).map(({ value }) => value);
      return values.length > 0 ? [Math.max(...values)] : [];
    });
    const { unit, seconds, clean } = first.test;
    return [{ name, unit, seconds, clean, movementId: first.movementId, on: first.on, value: Math.min(...best) }];
  });
}

/** Outcomes of corrections in one client's part of a session. */
export function trialsOf(lane: Lane, find: FindMovement): Trial[] {
  return lane.entries.flatMap((entry) => {
    const movement = movementIn(entry, find);
    if (!movement) return [];
    return entry.corrections.flatMap((given): Trial[] => {
      const fault = movement.faults.find((f) => f.id === given.faultId);
      const correction = fault?.corrections.find((c) => c.id === given.correctionId);
      if (!correction || given.outcome === null) return [];
      return [
        {
          correction: correctionKey(movement.id, given.faultId, given.correctionId),
          ...styleOf(movement, correction),
          outcome: given.outcome,
          at: given.at,
        },
      ];
    });
  });
}

/** Sets by movement, for readiness. Coming back to a movement within a session is still one session. */
export function setsOf(lane: Lane, find: FindMovement): Map<string, PastSession> {
  const byMovement = new Map<string, PastSession>();
  for (const entry of lane.entries) {
    const movement = movementIn(entry, find);
    if (!movement || entry.sets.length === 0) continue;
    const before = byMovement.get(movement.id);
    const sets = [...(before?.sets ?? []), ...doneSets(entry, movement)];
    const byClock = (before?.byClock ?? 0) + byClockIn(entry, movement);
    const marked = before?.marked ?? entry.marked;
    byMovement.set(movement.id, {
      at: before?.at ?? entry.startedAt,
      sets,
      ...(byClock > 0 ? { byClock } : {}),
      ...(marked ? { marked: true as const } : {}),
    });
  }
  return byMovement;
}

/** Sets that nobody counted; left and right make one. */
const byClockIn = ({ sets }: Entry, { sides }: Movement): number =>
  Math.ceil(sets.filter(({ uncounted }) => uncounted).length / sideCount(sides));

/** A set is clean when no stop or fix fault was open at it. Left and right make one set, as good as its weaker side. */
export function doneSets(entry: Entry, movement: Movement): DoneSet[] {
  const serious = new Set(movement.faults.filter((f) => f.severity !== 'polish').map((f) => f.id));
  const asDone = (set: SetRecord): DoneSet => {
    const faults = set.openFaults.filter((id) => serious.has(id));
    return {
      amount: set.amount,
      ...(set.pieces ? { pieces: set.pieces } : {}),
      ...(set.parts ? { parts: set.parts } : {}),
      effort: set.effort,
      kg: set.kg,
      clean: faults.length === 0,
      ...(faults.length > 0 ? { faults } : {}),
    };
  };
  const counted = entry.sets.filter(({ uncounted }) => !uncounted);
  if (movement.sides !== 'each') return counted.map(asDone);
  const left = counted.filter((set) => set.side === 'left').map(asDone);
  const right = counted.filter((set) => set.side === 'right').map(asDone);
  // Sides that took turns were logged together; parts are those of one side.
  const inTurn = counted
    .filter((set) => set.side === 'both')
    .map((set) => ({ ...asDone(set), amount: set.parts ? set.amount : Math.floor(set.amount / 2) }));
  return [...left.slice(0, right.length).map((l, i) => weaker(l, right[i] ?? l)), ...inTurn];
}

function weaker(a: DoneSet, b: DoneSet): DoneSet {
  const faults = [...new Set([...(a.faults ?? []), ...(b.faults ?? [])])];
  const { pieces } = bestSingle(a) <= bestSingle(b) ? a : b;
  const { parts } = a.amount <= b.amount ? a : b;
  return {
    amount: Math.min(a.amount, b.amount),
    ...(pieces ? { pieces } : {}),
    ...(parts ? { parts } : {}),
    // An unanswered side leaves the pair unanswered: readiness must not rest on half of it.
    effort: a.effort && b.effort ? (EFFORTS.indexOf(a.effort) > EFFORTS.indexOf(b.effort) ? a.effort : b.effort) : null,
    clean: a.clean && b.clean,
    kg: a.kg ?? null,
    ...(faults.length > 0 ? { faults } : {}),
  };
}

/** Over how many sets of each movement how often its faults were seen. */
export function tallyFaults(entries: readonly Entry[], find: FindMovement): Map<string, FaultTally> {
  const tallies = new Map<string, FaultTally>();
  for (const { movementId, sets, faults } of entries) {
    if (!find(movementId)) continue;
    const tally = tallies.get(movementId) ?? { sets: 0, seen: {} };
    tallies.set(movementId, tally);
    tally.sets += sets.length;
    for (const { faultId, times } of faults) {
      const seen = Math.min(sets.length, times);
      if (seen > 0) tally.seen[faultId] = (tally.seen[faultId] ?? 0) + seen;
    }
  }
  return tallies;
}

/** The swaps in one client's part of a session, in order. */
export function movesOf({ entries }: Lane): Move[] {
  const at = new Map<string, string>();
  /** What was gone to from each movement. */
  const left = new Map<string, string>();
  return entries.flatMap(({ itemId, movementId, why, aside, startedAt }, i): Move[] => {
    // Earlier versions knew no lines without a plan: what was taken for a reason took the place of what was in hand.
    const inPlace = itemId !== null ? at.get(itemId) : why === null ? undefined : entries[i - 1]?.movementId;
    // A new line with what was left earlier goes back to it.
    const from = inPlace ?? left.get(movementId);
    if (itemId !== null) at.set(itemId, movementId);
    if (from === undefined || from === movementId) return [];
    left.set(from, movementId);
    left.delete(movementId);
    return [{ from, to: movementId, why, at: startedAt, ...(aside && { aside }) }];
  });
}

/** How much was to be corrected in one client's part of a session; null when nothing was done. */
export function faultLoadOf({ entries }: Lane): FaultLoad | null {
  const [first] = entries;
  const sets = entries.reduce((sum, entry) => sum + entry.sets.length, 0);
  if (!first || sets === 0) return null;
  const faults = entries.flatMap((entry) => entry.faults).reduce((sum, { times }) => sum + times, 0);
  return { at: first.startedAt, sets, faults };
}
