/**
 * A session in time: whole seconds of teaching, changes, work and rest, one after the other. What the plan says and what the floor has left
 * are reckoned here, so that they agree. Everybody at a turn works at once; a circuit by time goes by its clock, and is taught before it.
 */
import { partsSeconds } from '../dosage/parts.js';
import { setSeconds, SIDE_CHANGE_SECONDS } from '../dosage/tempo.js';
import type { MovementSummary } from '../movement/summary-schema.js';
import type { DoseMode } from '../movement/vocabulary.js';
import { type Going, isEvery, roundsIn, turnSeconds } from './block-clock.js';
import { laneOfSet, type SetLane, sidesOfSet, timesOfSet } from './by-set.js';
import { CHANGE_SECONDS, changesBetween } from './changes.js';
import { type Block, type Plan, type PlanContext, type PlanLane, turnsOf } from './plan.js';
import type { Rotation } from './stations.js';
import { rotationsOf } from './stations-of.js';

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

/** What is done at once: one set of a line by everybody on it, or at stations a set of another line by each. */
export interface Moment {
  block: Pick<Block, 'id'> & Going;
  itemId: string;
  set: number;
  lanes: readonly SetLane[];
}

type Find = (id: string) => Pick<MovementSummary, 'dose' | 'sides' | 'position'> | undefined;

/**
 * Seconds of one set of a lane: a combination takes both movements in each rep, a composed set all of its parts, and lighter weights are taken
 * up at once. A set of one side only is half of it; sides that take turns rep by rep need no change between them.
 * @param set which one, from 1, where a clock gives its rounds other seconds
 */
export function laneSeconds(
  lane: SetLane,
  block: Going,
  { find }: { find: (id: string) => Pick<MovementSummary, 'dose' | 'sides'> | undefined },
  set = 1,
): number {
  const turn = turnSeconds(block, set);
  if (turn !== null) return turn;
  const movement = find(lane.movementId);
  const other = lane.withId === null ? undefined : find(lane.withId);
  const sides = movement?.sides ?? 'both';
  const times = timesOfSet(sides, lane.side);
  const dose = { mode: movement?.dose.mode ?? 'reps', tempo: lane.tempo };
  const once = lane.parts ? partsSeconds(lane.parts, lane.tempo, 'both') : setSeconds(dose, 'both', lane.amount);
  const own = once * times + (sidesOfSet(sides, lane.side) === 'each' ? SIDE_CHANGE_SECONDS : 0);
  const withOther = other?.dose.mode === 'reps' ? setSeconds(other.dose, 'both', lane.amount) : 0;
  return own + withOther + dropSeconds(lane, dose) * times;
}

/** Seconds of the lighter weights that a set goes on with: each is picked up, or set where it has to be. */
const dropSeconds = ({ drops = [] }: PlanLane, dose: { mode: DoseMode; tempo: string }): number =>
  drops.reduce(
    (sum, { load, amount }) =>
      sum + Math.max(CHANGE_SECONDS.pickUp, load.changeSeconds) + setSeconds(dose, 'both', amount),
    0,
  );

/** The moments of a block: line after line, or round after round; at stations everybody at their own. */
export function momentsOf(block: Block, clientIds: readonly string[], rotation: Rotation | undefined): Moment[] {
  if (!rotation) return turnsOf(block).map(({ item, set, lanes }) => ({ block, itemId: item.id, set, lanes }));
  return Array.from({ length: block.rounds }, (_, round) =>
    rotation.flatMap((places): Moment[] => {
      const here = clientIds.flatMap((clientId, who) => {
        const item = block.items[places[who] ?? -1];
        const lane = item?.lanes.find((one) => one.clientId === clientId);
        return item && lane ? [{ itemId: item.id, lane: laneOfSet(lane, round + 1) }] : [];
      });
      const [first] = here;
      return first ? [{ block, itemId: first.itemId, set: round + 1, lanes: here.map(({ lane }) => lane) }] : [];
    }),
  ).flat();
}

/** The whole plan as segments without gaps. */
export function timelineOf(plan: Pick<Plan, 'blocks'>, context: PlanContext): Segment[] {
  const clientIds = [
    ...new Set(plan.blocks.flatMap(({ items }) => items.flatMap(({ lanes }) => lanes.map((lane) => lane.clientId)))),
  ];
  const rotations = context.kit ? rotationsOf({ ...plan, clientIds }, context.kit, context) : {};
  return timelineOfMoments(
    plan.blocks.flatMap((block) => momentsOf(block, clientIds, rotations[block.id])),
    context,
  );
}

/** Moments in their order as segments without gaps; after the last there is no rest. */
export function timelineOfMoments(
  moments: readonly Moment[],
  { find, knows }: { find: Find; knows: PlanContext['knows'] },
): Segment[] {
  const segments: Segment[] = [];
  const taught = new Set<string>();
  let now = 0;
  let before: readonly PlanLane[] = [];
  moments.forEach((moment, i) => {
    const { block, itemId, set, lanes } = moment;
    const add = (kind: SegmentKind, seconds: number) => {
      if (seconds <= 0) return;
      segments.push({ kind, seconds, from: now, blockId: block.id, itemId, set });
      now += seconds;
    };
    const lessons = (all: readonly PlanLane[]): number =>
      all.reduce((sum, { clientId, movementId }) => {
        if (taught.has(movementId) || knows(clientId, movementId)) return sum;
        taught.add(movementId);
        return sum + CHANGE_SECONDS.teach;
      }, 0);
    const together = roundsIn(block);
    const timed = turnSeconds(block) !== null || together !== null;
    const begins = moments[i - 1]?.block.id !== block.id;
    const ends = moments[i + 1]?.block.id !== block.id;
    // Once its clock runs, changes are made while it rests.
    if (!timed || begins) {
      const changes = changesBetween(before, lanes, { find });
      add('position', changes.position);
      add('load', changes.load);
      add(
        'teach',
        lessons(timed ? moments.filter((one) => one.block.id === block.id).flatMap((one) => one.lanes) : lanes),
      );
    }
    // As many rounds as go into its time are one piece of work.
    if (together === null) add('work', Math.max(...lanes.map((lane) => laneSeconds(lane, block, { find }, set))));
    else if (begins) add('work', together);
    if (together !== null && !ends) return;
    if (i < moments.length - 1)
      add(
        'rest',
        timed && !ends
          ? isEvery(block)
            ? 0
            : clockRest(moments, block.id)
          : Math.max(...lanes.map(({ rest }) => rest)),
      );
    before = lanes;
  });
  return segments;
}

/** Seconds that the clock of a block gives to change. */
export const clockRest = (moments: readonly Pick<Moment, 'block' | 'lanes'>[], blockId: string): number =>
  Math.max(
    0,
    ...moments.filter(({ block }) => block.id === blockId).flatMap(({ lanes }) => lanes.map(({ rest }) => rest)),
  );

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
