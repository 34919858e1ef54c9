/** Who wants the same piece at the same time, and loads that the kit cannot make. */
import { isImprovised, type Load, loadsFor } from '../dosage/loads.js';
import { kitCounts, usableOption } from '../movement/kit.js';
import type { KitPiece } from '../movement/kit-schema.js';
import type { KitItem } from '../movement/vocabulary.js';
import { inWords } from '../movement/words.js';
import { laneOfSet } from './by-set.js';
import type { PlanContext, PlanLane } from './plan.js';

type Find = Pick<PlanContext, 'find'>;

export interface Shortage {
  /** What is wanted, in words: `2 × 8 kg`, `bench`. */
  what: string;
  /** Pieces wanted in all, and how many there are. */
  wanted: number;
  there: number;
  clientIds: string[];
}

/** Whether a weight is set on a piece, by plates, a pin or filling, and not only picked up. */
const isSet = (piece: KitPiece): boolean =>
  Boolean(piece.plates?.length || (piece.stepKg && piece.mostKg) || (piece.kg && isImprovised(piece)));

/** The pieces that a load can be taken from: fixed ones of its weight, or else all that can be set, because one handle has one weight at a time. */
function piecesOf({ item, count, kg, label, changeSeconds }: Load, kit: readonly KitPiece[]): KitPiece[] {
  const fixed = kit.filter(
    (piece) =>
      piece.item === item &&
      !isSet(piece) &&
      (kg === null
        ? loadsFor([{ needs: [{ item, count: 1 }] }], [piece]).some((one) => label.endsWith(one.label))
        : Math.abs((piece.kg ?? 0) * count - kg) < 1e-6),
  );
  return changeSeconds === 0 && fixed.length > 0 ? fixed : kit.filter((piece) => piece.item === item && isSet(piece));
}

/** Loads that people want at once from the same pieces, a pair of them taking two. */
function loadShortages(lanes: readonly PlanLane[], kit: readonly KitPiece[]): Shortage[] {
  const byPieces = new Map<string, { pieces: KitPiece[]; users: PlanLane[] }>();
  for (const lane of lanes) {
    if (!lane.load) continue;
    const pieces = piecesOf(lane.load, kit);
    const key = pieces.map((piece) => kit.indexOf(piece)).join() || lane.load.label;
    const all = byPieces.get(key) ?? { pieces, users: [] };
    byPieces.set(key, { pieces, users: [...all.users, lane] });
  }
  return [...byPieces.values()].flatMap(({ pieces, users }): Shortage[] => {
    const wanted = users.reduce((sum, { load }) => sum + (load?.count ?? 0), 0);
    const there = pieces.reduce((sum, { count }) => sum + count, 0);
    if (wanted <= there) return [];
    const what = [...new Set(users.map(({ load }) => load?.label))].join(' and ');
    return [{ what, wanted, there, clientIds: users.map(({ clientId }) => clientId) }];
  });
}

/** Pieces that are not a load, which a movement takes in this room: its first option that the kit can meet. */
function fixtures(lane: PlanLane, kit: readonly KitPiece[], { find }: Find): { item: KitItem; count: number }[] {
  const movement = find(lane.movementId);
  const options = movement?.kit ?? [];
  const fitting = lane.load
    ? options.filter(({ needs }) => needs.some(({ item }) => item === lane.load?.item))
    : options;
  const option = usableOption(fitting, kitCounts(kit));
  return (option?.needs ?? []).filter(({ item }) => item !== lane.load?.item);
}

/** Everything that people on one line want at once, in any of its rounds, and that is not there often enough. */
export function shortagesOf(lanes: readonly PlanLane[], kit: readonly KitPiece[], context: Find): Shortage[] {
  // After the last round that differs come those that are as the line says.
  const last = Math.max(0, ...lanes.flatMap(({ bySet = [] }) => bySet.map(({ set }) => set)));
  const all = Array.from({ length: last + 1 }, (_, i) =>
    shortagesAt(
      lanes.map((lane) => laneOfSet(lane, i + 1)),
      kit,
      context,
    ),
  ).flat();
  return all.filter(({ what }, i) => all.findIndex((one) => one.what === what) === i);
}

function shortagesAt(lanes: readonly PlanLane[], kit: readonly KitPiece[], context: Find): Shortage[] {
  const shortages = loadShortages(lanes, kit);
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
export function loadExists(lane: PlanLane, kit: readonly KitPiece[], { find }: Find): boolean {
  const { load } = lane;
  if (!load) return true;
  return loadsFor(find(lane.movementId)?.kit ?? [], kit).some(
    ({ label, kg }) => label === load.label && kg === load.kg,
  );
}
