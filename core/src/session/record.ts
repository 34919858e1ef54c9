/** What finished and running sessions teach for the next one: trials of corrections, sets by movement, how often a fault shows. */
import { styleOf } from '../coaching/correct.js';
import type { Trial } from '../coaching/evidence.js';
import { FAULT_PRIOR } from '../coaching/weights.js';
import type { DoneSet, PastSession } from '../ladder/readiness.js';
import { correctionKey, faultKey } from '../movement/ids.js';
import type { Fault, Movement } from '../movement/schema.js';
import { EFFORTS } from '../movement/vocabulary.js';
import type { Entry, Lane, SetRecord } from './fold.js';

export interface FaultTally {
  seen: number;
  sets: number;
}

/** Finds a movement by id; undefined for one that is no longer in the library. */
export type FindMovement = (id: string) => Movement | undefined;

/** Outcomes of corrections in one client's part of a session. */
export function trialsOf(lane: Lane, find: FindMovement): Trial[] {
  return lane.entries.flatMap((entry) => {
    const movement = find(entry.movementId);
    if (!movement) return [];
    return entry.corrections.flatMap((given): Trial[] => {
      const fault = movement.faults.find((f) => f.id === given.faultId);
      const correction = fault?.corrections.find((c) => c.id === given.correctionId);
      if (!correction || given.outcome === null) return [];
      return [
        {
          clientId: lane.clientId,
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
    const movement = find(entry.movementId);
    if (!movement || entry.sets.length === 0) continue;
    const before = byMovement.get(movement.id);
    const sets = [...(before?.sets ?? []), ...doneSets(entry, movement)];
    byMovement.set(movement.id, { at: before?.at ?? entry.startedAt, sets });
  }
  return byMovement;
}

/** A set is clean when no stop or fix fault was open at it. Left and right make one set, as good as its weaker side. */
function doneSets(entry: Entry, movement: Movement): DoneSet[] {
  const serious = new Set(movement.faults.filter((f) => f.severity !== 'polish').map((f) => f.id));
  const asDone = (set: SetRecord): DoneSet => ({
    amount: set.amount,
    effort: set.effort,
    kg: set.kg,
    clean: !set.openFaults.some((id) => serious.has(id)),
  });
  if (movement.sides !== 'each') return entry.sets.map(asDone);
  const left = entry.sets.filter((set) => set.side === 'left').map(asDone);
  const right = entry.sets.filter((set) => set.side === 'right').map(asDone);
  return left.slice(0, right.length).map((l, i) => weaker(l, right[i] ?? l));
}

const weaker = (a: DoneSet, b: DoneSet): DoneSet => ({
  amount: Math.min(a.amount, b.amount),
  // An unanswered side leaves the pair unanswered: readiness must not rest on half of it.
  effort: a.effort && b.effort ? (EFFORTS.indexOf(a.effort) > EFFORTS.indexOf(b.effort) ? a.effort : b.effort) : null,
  clean: a.clean && b.clean,
  kg: a.kg ?? null,
});

/** How often each fault was seen over how many sets, by `movement/fault`. */
export function tallyFaults(entries: readonly Entry[], find: FindMovement): Map<string, FaultTally> {
  const tallies = new Map<string, FaultTally>();
  for (const entry of entries) {
    for (const fault of find(entry.movementId)?.faults ?? []) {
      const key = faultKey(entry.movementId, fault.id);
      const tally = tallies.get(key) ?? { seen: 0, sets: 0 };
      tally.sets += entry.sets.length;
      tally.seen += Math.min(entry.sets.length, entry.faults.find((f) => f.faultId === fault.id)?.times ?? 0);
      tallies.set(key, tally);
    }
  }
  return tallies;
}

/** A line that was gone on with as another movement. */
export interface Move {
  from: string;
  to: string;
  why: string | null;
  /** When the other one was begun. */
  at: string;
}

/** The swaps in one client's part of a session, in order. */
export function movesOf({ entries }: Lane): Move[] {
  const at = new Map<string, string>();
  return entries.flatMap(({ itemId, movementId, why, startedAt }): Move[] => {
    if (itemId === null) return [];
    const from = at.get(itemId);
    at.set(itemId, movementId);
    return from === undefined || from === movementId ? [] : [{ from, to: movementId, why, at: startedAt }];
  });
}

export interface FaultLoad {
  at: string;
  sets: number;
  /** Times that a fault was marked. */
  faults: number;
}

/** How much was to be corrected in one client's part of a session; null when nothing was done. */
export function faultLoadOf({ entries }: Lane): FaultLoad | null {
  const [first] = entries;
  const sets = entries.reduce((sum, entry) => sum + entry.sets.length, 0);
  if (!first || sets === 0) return null;
  const faults = entries.flatMap((entry) => entry.faults).reduce((sum, { times }) => sum + times, 0);
  return { at: first.startedAt, sets, faults };
}

/**
 * Movements in which sharp pain was reported, each with the time of the last report; those done in a later session without it are left out.
 * Coming back to one is the trainer's choice, and never a suggestion's.
 */
export function stillHurting(lanes: readonly Lane[]): { movementId: string; at: string }[] {
  const hurt = new Map<string, string>();
  const inOrder = lanes.toSorted((a, b) => startOf(a).localeCompare(startOf(b)));
  for (const { entries, pains } of inOrder) {
    const now = new Map(
      pains.flatMap(({ quality, movementId, at }) =>
        quality === 'sharp' && movementId !== null ? [[movementId, at] as const] : [],
      ),
    );
    for (const { movementId, sets } of entries) if (sets.length > 0 && !now.has(movementId)) hurt.delete(movementId);
    for (const [movementId, at] of now) hurt.set(movementId, at);
  }
  return [...hurt].map(([movementId, at]) => ({ movementId, at }));
}

const startOf = ({ entries, pains }: Lane): string => entries[0]?.startedAt ?? pains[0]?.at ?? '';

/** Trials that the prior is worth when a client's own record is mixed in. */
const PRIOR_SETS = 4;

/** Chance per set that a fault shows in this client: the prior by severity, moved by the record. */
export const likelyFault = (fault: Fault, tally: FaultTally | undefined): number =>
  ((tally?.seen ?? 0) + FAULT_PRIOR[fault.severity] * PRIOR_SETS) / ((tally?.sets ?? 0) + PRIOR_SETS);
