/**
 * A plan in time: whole seconds of teaching, changes, work and rest, one after the other.
 * Minutes = work + rest + load changes + position changes + teaching of what is new. Everybody on a line works at once.
 */
import { setSeconds } from '../dosage/tempo.js';
import type { MovementSummary } from '../movement/summary.js';
import { CHANGE_SECONDS, changesBetween } from './changes.js';
import { turnsOf, type Block, type Plan, type PlanContext, type PlanLane } from './plan.js';

export const SEGMENT_KINDS = ['work', 'rest', 'load', 'position', 'teach'] as const;
export type SegmentKind = (typeof SEGMENT_KINDS)[number];

export interface Segment {
  kind: SegmentKind;
  /** Whole seconds, at least 1. */
  seconds: number;
  /** Seconds from the start of the plan. */
  from: number;
  blockId: string;
  itemId: string;
  set: number;
}

/** Seconds of one set of a lane; a combination takes both movements in each rep. */
export function laneSeconds(
  lane: PlanLane,
  block: Pick<Block, 'kind' | 'workSeconds'>,
  { find }: { find: (id: string) => Pick<MovementSummary, 'dose' | 'sides'> | undefined },
): number {
  if (block.kind === 'circuit' && block.workSeconds !== null) return block.workSeconds;
  const movement = find(lane.movementId);
  const other = lane.withId === null ? undefined : find(lane.withId);
  const own = setSeconds(
    { mode: movement?.dose.mode ?? 'reps', tempo: lane.tempo },
    movement?.sides ?? 'both',
    lane.amount,
  );
  if (!other) return own;
  return own + (other.dose.mode === 'reps' ? setSeconds(other.dose, 'both', lane.amount) : 0);
}

/** The whole plan as segments without gaps. */
export function timelineOf(plan: Pick<Plan, 'blocks'>, context: PlanContext): Segment[] {
  const segments: Segment[] = [];
  const taught = new Set<string>();
  let now = 0;
  let before: readonly PlanLane[] = [];
  for (const block of plan.blocks)
    for (const { item, set, lanes, last } of turnsOf(block)) {
      const add = (kind: SegmentKind, seconds: number) => {
        if (seconds <= 0) return;
        segments.push({ kind, seconds, from: now, blockId: block.id, itemId: item.id, set });
        now += seconds;
      };
      const changes = changesBetween(before, lanes, context);
      add('position', changes.position);
      add('load', changes.load);
      let lessons = 0;
      for (const { clientId, movementId } of lanes) {
        if (taught.has(movementId) || context.knows(clientId, movementId)) continue;
        taught.add(movementId);
        lessons += CHANGE_SECONDS.teach;
      }
      add('teach', lessons);
      add('work', Math.max(...lanes.map((lane) => laneSeconds(lane, block, context))));
      if (!last) add('rest', Math.max(...lanes.map(({ rest }) => rest)));
      before = lanes;
    }
  return segments;
}

/** Whole seconds of a timeline. */
export const secondsOf = (segments: readonly Segment[]): number => {
  const end = segments.at(-1);
  return end ? end.from + end.seconds : 0;
};

/** `52 min`, `52 min 30 s`. */
export function minuteWords(seconds: number): string {
  const rest = seconds % 60;
  return `${Math.floor(seconds / 60)} min${rest ? ` ${rest} s` : ''}`;
}
