/** Last time, carried forward: the same movements in the same order, with what changes for each and why. */
import { latest } from '../client/history.js';
import type { PastSession } from '../client/history-schema.js';
import { buildLadder } from '../ladder/graph.js';
import { kitCounts } from '../movement/kit.js';
import type { KitPiece } from '../movement/kit-schema.js';
import type { MovementSummary } from '../movement/summary-schema.js';
import type { Purpose } from '../movement/vocabulary.js';
import { type Because, fitNow, isOpen } from '../progress/fit.js';
import type { StepReason } from '../progress/reason.js';
import { laneFor, type LaneRequest } from './lane-for.js';
import type { Block, PlanItem, PlanLane } from './plan.js';
import type { LineReason } from './reason.js';
import type { SuggestClient } from './suggest.js';

export interface CarryRequest {
  clients: readonly SuggestClient[];
  movements: readonly MovementSummary[];
  kit: readonly KitPiece[];
  purpose: Purpose;
  newId: () => string;
  /** Names the faults that were open last time. */
  faultOf?: LaneRequest['faultOf'];
}

/** Who goes on without what, and why. */
export interface LeftOut {
  clientId: string;
  movementId: string;
  why: StepReason[];
  /** What closes it now, in full: a plan keeps less of it. */
  closedBy: Because[];
}

export interface Carried {
  blocks: Block[];
  leftOut: LeftOut[];
}

/** Sessions within this many hours of one another are one visit. */
const ONE_VISIT_MS = 6 * 3_600_000;

/** Movements of the latest visit, in the order in which they were begun. */
export function lastVisit(sets: Readonly<Record<string, readonly PastSession[]>>): string[] {
  const starts = Object.entries(sets).flatMap(([id, sessions]) =>
    sessions.map(({ at }) => ({ id, at: Date.parse(at) })),
  );
  const latest = Math.max(...starts.map(({ at }) => at));
  return starts
    .filter(({ at }) => latest - at < ONE_VISIT_MS)
    .sort((a, b) => a.at - b.at)
    .map(({ id }) => id);
}

/** A movement that was swapped for another one of the same visit, and not gone back to: the other one is the rung now. */
function leftBehind({ moves = [], sets }: SuggestClient, id: string, visit: readonly string[]): boolean {
  const last = moves.findLast(({ from, to }) => from === id || to === id);
  const done = latest(sets[last?.to ?? ''] ?? []);
  return last?.from === id && visit.includes(last.to) && done !== undefined && last.at <= done.at;
}

/**
 * Blocks for the next session, each line as the policy of progress has it: a rung up where its sign is met, one down where it was too hard.
 * What is closed today, or hurt last time, is left out and named.
 */
export function carryForward({ clients, movements, kit, purpose, newId, faultOf }: CarryRequest): Carried {
  const ladder = buildLadder(movements);
  const byId = new Map(movements.map((movement) => [movement.id, movement]));
  const find = (id: string) => byId.get(id);
  const lines = new Map<string, PlanItem>();
  const leftOut: LeftOut[] = [];
  for (const client of clients) {
    const { standing } = client;
    const visit = lastVisit(client.sets);
    const left = (client.left ?? []).filter((id) => !visit.includes(id));
    for (const id of [...visit, ...left]) {
      if (leftBehind(client, id, visit)) continue;
      const movement = byId.get(id);
      if (!movement) continue;
      const dose = (one: MovementSummary) =>
        laneFor({
          clientId: client.id,
          standing,
          movement: one,
          purpose,
          sets: client.sets,
          kit,
          ladder,
          find,
          faultOf,
        });
      const same = dose(movement);
      const { kind, why, to } = same.step;
      const other = to === null ? undefined : byId.get(to);
      const fit = fitNow(standing, kitCounts(kit), movement);
      const leaveOut = (because: StepReason[]) =>
        leftOut.push({ clientId: client.id, movementId: id, why: because, closedBy: isOpen(fit) ? [] : fit.because });
      if (kind === 'stop' || (kind === 'rung-down' && !other)) {
        leaveOut(why);
        continue;
      }
      const next = other ? dose(other) : same;
      // The rung below may be too hard as well, or nothing may go on there.
      if (next.step.kind === 'stop') {
        leaveOut(next.step.why);
        continue;
      }
      const way = kind === 'rung-up' ? 'up' : 'down';
      const moved: LineReason[] = other ? [{ code: 'moved', way, movementId: id }, ...why] : [];
      const kept: LineReason[] = left.includes(id) ? [{ code: 'kept-from-last-time' }] : [];
      const lane = { ...next.lane, why: [...kept, ...moved, ...next.lane.why] };
      put(lines, movement.families[0] ?? id, lane, newId);
    }
  }
  const items = [...lines.values()];
  const block: Block = { id: newId(), kind: 'strength', rounds: 1, workSeconds: null, items };
  return { blocks: items.length > 0 ? [block] : [], leftOut };
}

/** People who did the same family share a line; a second movement of one family gets a line of its own. */
function put(lines: Map<string, PlanItem>, family: string, lane: PlanLane, newId: () => string): void {
  let key = family;
  while (lines.get(key)?.lanes.some(({ clientId }) => clientId === lane.clientId)) key += '+';
  const line = lines.get(key);
  if (line) line.lanes.push(lane);
  else lines.set(key, { id: newId(), locked: false, tied: false, lanes: [lane] });
}
