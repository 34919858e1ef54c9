/** Last time, carried forward: the same movements in the same order, with what changes for each and why. */
import type { MovementSummary } from '../formats/answers.js';
import { buildLadder } from '../ladder/graph.js';
import { latest, readiness, signWords, type PastSession } from '../ladder/readiness.js';
import { fitFor, mayDo } from '../movement/limits.js';
import { kitCounts, type KitPiece } from '../movement/kit.js';
import type { Purpose } from '../movement/vocabulary.js';
import { lastKg, laneFor } from './lane-for.js';
import type { Block, PlanItem, PlanLane } from './plan.js';
import type { SuggestClient } from './suggest.js';

export interface CarryRequest {
  clients: readonly SuggestClient[];
  movements: readonly MovementSummary[];
  kit: readonly KitPiece[];
  purpose: Purpose;
  newId: () => string;
}

export interface Carried {
  blocks: Block[];
  /** What was left out, and why. */
  reasons: string[];
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
 * Blocks for the next session. A rung that its sign says is owned gives way to the next one that is open and that the kit allows;
 * one that a limit closes today, or that hurt last time, is left out and named.
 */
export function carryForward({ clients, movements, kit, purpose, newId }: CarryRequest): Carried {
  const ladder = buildLadder(movements);
  const byId = new Map(movements.map((movement) => [movement.id, movement]));
  const counts = kitCounts(kit);
  const lines = new Map<string, PlanItem>();
  const reasons: string[] = [];
  for (const client of clients) {
    const may = (movement: MovementSummary | undefined): movement is MovementSummary =>
      movement !== undefined && !client.avoid.includes(movement.id) && mayDo(movement, client.limits, counts);
    const visit = lastVisit(client.sets);
    for (const id of visit) {
      if (leftBehind(client, id, visit)) continue;
      const movement = byId.get(id);
      if (!movement) continue;
      const past = client.sets[id] ?? [];
      const rung = ladder.rungs.get(id);
      const dose = (one: MovementSummary, fromKg: number | null = null) =>
        laneFor({
          clientId: client.id,
          movement: one,
          purpose,
          past: client.sets[one.id] ?? [],
          kit,
          ease: client.ease,
          fromKg,
        });
      const same = dose(movement);
      const down =
        same.change === 'easier' ? rung?.easier.map(({ to }) => byId.get(to)).find((one) => may(one)) : undefined;
      const up = client.ease
        ? undefined
        : rung?.harder.find(({ to, readyWhen }) => readyWhen && may(byId.get(to)) && readiness(readyWhen, past).ready);
      const next = down ?? (up ? byId.get(up.to) : movement);
      if (!may(next)) {
        const fit = fitFor(movement.demands, client.limits);
        const why = client.avoid.includes(id)
          ? 'it hurt last time'
          : fit.status === 'closed'
            ? `closed by ${fit.because.join('; ')}`
            : 'its kit is not here';
        reasons.push(`${client.name} leaves out ${movement.name}: ${why}.`);
        continue;
      }
      const { lane } = next === movement ? same : dose(next, down ? null : lastKg(past));
      const why = down
        ? `Down from ${movement.name}: ${same.lane.why} ${lane.why}`
        : up?.readyWhen
          ? `Up from ${movement.name}: ${signWords(up.readyWhen)}. ${lane.why}`
          : lane.why;
      put(lines, movement.families[0] ?? id, { ...lane, why: why.slice(0, 400) }, newId);
    }
  }
  const items = [...lines.values()];
  const block: Block = { id: newId(), kind: 'strength', rounds: 1, workSeconds: null, items };
  return { blocks: items.length > 0 ? [block] : [], reasons };
}

/** People who did the same family share a line; a second movement of one family gets a line of its own. */
function put(lines: Map<string, PlanItem>, family: string, lane: PlanLane, newId: () => string): void {
  let key = family;
  while (lines.get(key)?.lanes.some(({ clientId }) => clientId === lane.clientId)) key += '+';
  const line = lines.get(key);
  if (line) line.lanes.push(lane);
  else lines.set(key, { id: newId(), locked: false, tied: false, lanes: [lane] });
}
