/** What a plan covers and asks: sets by pattern, muscle and plane, push : pull, trips to the floor, weight changes, reps. */
import type { Muscle, Pattern, Plane } from '../movement/vocabulary.js';
import { laneBySet, repsOfSet, type SetLane } from './by-set.js';
import { groundOf } from './changes.js';
import { type Block, isAround, type Plan, type PlanContext, setsOfLane, turnsOf } from './plan.js';
import { secondsOf, type Segment, type SegmentKind, timelineOf } from './timeline.js';

export interface Coverage {
  sets: number;
  patterns: Map<Pattern, number>;
  planes: Map<Plane, number>;
  /** A prime mover counts a whole set, a helper half. */
  muscles: Map<Muscle, number>;
  /** Reps of everything counted in reps, both sides added up: 10 a side is 20. */
  reps: number;
  floorTrips: number;
}

const add = <K>(map: Map<K, number>, key: K, amount: number): void => void map.set(key, (map.get(key) ?? 0) + amount);

/** What one client gets out of a plan. */
export function coverageOf(plan: Pick<Plan, 'blocks'>, clientId: string, { find }: PlanContext): Coverage {
  const coverage: Coverage = {
    sets: 0,
    patterns: new Map(),
    planes: new Map(),
    muscles: new Map(),
    reps: 0,
    floorTrips: 0,
  };
  let ground = 'feet';
  for (const block of plan.blocks) {
    for (const item of block.items) {
      const lane = item.lanes.find((one) => one.clientId === clientId);
      if (!lane) continue;
      for (const inSet of laneBySet(lane, setsOfLane(block, lane))) countSet(coverage, block, inSet, find);
    }
    for (const { lanes } of turnsOf(block)) {
      const lane = lanes.find((one) => one.clientId === clientId);
      const movement = lane && find(lane.movementId);
      if (!movement) continue;
      const next = groundOf(movement.position);
      if (next === 'floor' && ground !== 'floor') coverage.floorTrips += 1;
      ground = next;
    }
  }
  return coverage;
}

function countSet(coverage: Coverage, block: Block, lane: SetLane, find: PlanContext['find']): void {
  const movement = find(lane.movementId);
  if (!movement) return;
  if (movement.dose.mode === 'reps') coverage.reps += repsOfSet(lane, movement.sides);
  if (isAround(block)) return;
  coverage.sets += 1;
  add(coverage.patterns, movement.pattern, 1);
  for (const plane of movement.planes) add(coverage.planes, plane, 1);
  for (const muscle of movement.muscles.prime) add(coverage.muscles, muscle, 1);
  for (const muscle of movement.muscles.assist) add(coverage.muscles, muscle, 1 / 2);
}

export interface Totals {
  seconds: number;
  by: Record<SegmentKind, number>;
  weightChanges: number;
  /** Seconds over the slot; 0 when it fits. */
  over: number;
}

export function totalsOfPlan(
  plan: Pick<Plan, 'blocks' | 'minutes'>,
  context: PlanContext,
  segments = timelineOf(plan, context),
): Totals {
  const by: Totals['by'] = { work: 0, rest: 0, load: 0, position: 0, teach: 0 };
  for (const { kind, seconds } of segments) by[kind] += seconds;
  const seconds = secondsOf(segments);
  return {
    seconds,
    by,
    weightChanges: weightChanges(segments),
    over: Math.max(0, seconds - plan.minutes * 60),
  };
}

const weightChanges = (segments: readonly Segment[]): number => segments.filter(({ kind }) => kind === 'load').length;

/** Sets of pushing to sets of pulling, as trainers say it: `6 : 9`. */
export const pushPull = ({ patterns }: Coverage): [push: number, pull: number] => [
  patterns.get('push') ?? 0,
  patterns.get('pull') ?? 0,
];
