/** Who wants the same piece at the same time, and loads that the kit cannot make. */
import { loadsFor, type Load } from '../dosage/loads.js';
import { kitCounts, usableOption, type KitPiece } from '../movement/kit.js';
import type { KitItem } from '../movement/vocabulary.js';
import { inWords } from '../movement/words.js';
import type { PlanContext, PlanLane } from './plan.js';

export interface Shortage {
  /** What is wanted, in words: `2 × 8 kg`, `bench`. */
  what: string;
  wanted: number;
  there: number;
  clientIds: string[];
}

/** How many people at once can have this load. */
export function placesFor(
  load: Pick<Load, 'item' | 'count' | 'kg' | 'label' | 'changeSeconds'>,
  kit: readonly KitPiece[],
): number {
  const pieces = kit.filter((piece) => piece.item === load.item);
  const fixed = (piece: KitPiece) => !piece.plates?.length && !(piece.stepKg && piece.mostKg);
  return pieces
    .filter((piece) => (load.changeSeconds > 0 ? !fixed(piece) : fixed(piece)))
    .filter((piece) =>
      loadsFor([[{ item: load.item, count: load.count }]], [piece]).some(
        ({ label, kg }) => label === load.label && kg === load.kg,
      ),
    )
    .reduce((sum, piece) => sum + Math.floor(piece.count / load.count), 0);
}

/** Pieces that are not a load, which a movement takes in this room: its first option that the kit can meet. */
function fixtures(lane: PlanLane, kit: readonly KitPiece[], { find }: PlanContext): { item: KitItem; count: number }[] {
  const movement = find(lane.movementId);
  const options = movement?.kit ?? [];
  const fitting = lane.load ? options.filter((needs) => needs.some(({ item }) => item === lane.load?.item)) : options;
  const needs = usableOption(fitting, kitCounts(kit)) ?? [];
  return needs.filter(({ item }) => item !== lane.load?.item);
}

/** Everything that people on one line want at once and that is not there often enough. */
export function shortagesOf(lanes: readonly PlanLane[], kit: readonly KitPiece[], context: PlanContext): Shortage[] {
  const shortages: Shortage[] = [];
  const loads = new Map<string, PlanLane[]>();
  for (const lane of lanes)
    if (lane.load) {
      const key = `${lane.load.item} ${lane.load.label} ${lane.load.kg}`;
      loads.set(key, [...(loads.get(key) ?? []), lane]);
    }
  for (const users of loads.values()) {
    const load = users[0]?.load;
    if (!load) continue;
    const there = placesFor(load, kit);
    if (users.length > there)
      shortages.push({
        what: load.label,
        wanted: users.length,
        there,
        clientIds: users.map(({ clientId }) => clientId),
      });
  }
  const counts = kitCounts(kit);
  const wanted = new Map<KitItem, { clientIds: string[]; count: number }>();
  for (const lane of lanes)
    for (const { item, count } of fixtures(lane, kit, context)) {
      const all = wanted.get(item) ?? { clientIds: [], count: 0 };
      wanted.set(item, { clientIds: [...all.clientIds, lane.clientId], count: all.count + count });
    }
  for (const [item, { clientIds, count }] of wanted) {
    const there = counts.get(item) ?? 0;
    if (clientIds.length > 1 && count > there) shortages.push({ what: inWords(item), wanted: count, there, clientIds });
  }
  return shortages;
}

/** Whether the kit can make a lane's load for its movement. */
export function loadExists(lane: PlanLane, kit: readonly KitPiece[], { find }: PlanContext): boolean {
  const { load } = lane;
  if (!load) return true;
  return loadsFor(find(lane.movementId)?.kit ?? [], kit).some(
    ({ label, kg }) => label === load.label && kg === load.kg,
  );
}
