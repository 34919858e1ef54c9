/**
 * A line of a group at three levels: 1 the easier rung, 2 the movement itself, 3 the harder rung. Each person's level follows from what they did,
 * and may be changed at any time; nothing that is closed, and no way up that is held back, is among them.
 */
import { kitCounts } from '../movement/kit.js';
import type { MovementSummary } from '../movement/summary-schema.js';
import { fitNow, isOpen } from '../progress/fit.js';
import { heldBetween } from '../progress/next-time.js';
import { laneFor, type LaneRequest } from './lane-for.js';
import type { PlanItem, PlanLane } from './plan.js';

export const CLASS_LEVELS = [1, 2, 3] as const;
export type ClassLevel = (typeof CLASS_LEVELS)[number];

export interface LevelsOf {
  /** The movement at each level; null where none is open. */
  movements: Readonly<Record<ClassLevel, string | null>>;
  /** Where this client begins; null where no level is open to them. */
  level: ClassLevel | null;
}

/** The movement of a line at level 2: the one that it was put in as, or what most of the group do; the first of equals. */
export function baseOf({ baseId, lanes }: Pick<PlanItem, 'baseId' | 'lanes'>): string {
  const count = (id: string) => lanes.filter(({ movementId }) => movementId === id).length;
  const most = lanes.toSorted((a, b) => count(b.movementId) - count(a.movementId))[0];
  return baseId ?? most?.movementId ?? '';
}

/** Rungs that are looked at for a level. */
const FAR = 2;

/** The levels of a movement for one client. */
export function classLevels(request: LaneRequest): LevelsOf {
  const { movement, standing, kit, ladder, find, sets } = request;
  const counts = kitCounts(kit);
  const open = (id: string): boolean => {
    const one = find(id);
    return one !== undefined && isOpen(fitNow(standing, counts, one));
  };
  const held = heldBetween(request) !== null;
  const rung = (direction: 'easier' | 'harder'): string | null =>
    ladder.rungs
      .get(movement.id)
      ?.[direction].slice(0, FAR)
      .find(({ to }) => open(to))?.to ?? null;
  const movements = { 1: rung('easier'), 2: open(movement.id) ? movement.id : null, 3: held ? null : rung('harder') };
  return { movements, level: levelFor(request, movements, sets) };
}

function levelFor(
  request: LaneRequest,
  movements: LevelsOf['movements'],
  sets: LaneRequest['sets'],
): ClassLevel | null {
  const known = (level: ClassLevel): boolean => sets[movements[level] ?? ''] !== undefined;
  const orNearest = (wanted: ClassLevel): ClassLevel | null =>
    // What is closed is gone down from first.
    [
      wanted,
      ...CLASS_LEVELS.filter((one) => one < wanted).toReversed(),
      ...CLASS_LEVELS.filter((one) => one === 2),
    ].find((one) => movements[one] !== null) ?? null;
  if (known(2)) {
    const { kind, to } = laneFor(request).step;
    if (kind === 'rung-down') return orNearest(1);
    return orNearest(kind === 'rung-up' && to === movements[3] ? 3 : 2);
  }
  // Whoever has done the rung above is past this one; whoever has done only the one below stays there until they are ready.
  if (known(3)) return orNearest(3);
  if (known(1)) {
    const below = request.find(movements[1] ?? '');
    const ready = below && laneFor({ ...request, movement: below }).step;
    return orNearest(ready?.kind === 'rung-up' && ready.to === movements[2] ? 2 : 1);
  }
  return orNearest(isNew(request) ? 1 : 2);
}

/** Levels of a ladder from which somebody without a year of training begins one lower. */
const BEGINNERS_TO = 1;

const isNew = ({ standing, movement }: { standing: LaneRequest['standing']; movement: MovementSummary }): boolean =>
  (standing.trainingYears ?? 0) < 1 && movement.level > BEGINNERS_TO;

/** A client's lane at a level; null where nothing is open at it. */
export function laneAtLevel(request: LaneRequest, level: ClassLevel): PlanLane | null {
  const movement = request.find(classLevels(request).movements[level] ?? '');
  return movement ? laneFor({ ...request, movement }).lane : null;
}
