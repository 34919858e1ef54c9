/** Everything that the floor knows of one client now: where they are, how they stand, what is in hand and what is closed. */
import type { ClientOnDay } from '../client/client-schema.js';
import type { Place } from '../client/place.js';
import type { Studio } from '../client/studio-schema.js';
import type { ClientRecord } from '../coaching/evidence-schema.js';
import type { MovementPage } from '../ladder/page.js';
import type { Catalog } from '../ladder/substitutes.js';
import { combined } from '../movement/combined.js';
import { type HouseRule, tagsInForce, underRules } from '../movement/house-rules.js';
import { withInHand } from '../movement/in-hand.js';
import { kitCounts } from '../movement/kit.js';
import type { Movement } from '../movement/schema.js';
import type { MovementSummary } from '../movement/summary-schema.js';
import type { KitItem } from '../movement/vocabulary.js';
import { type FitNow, fitNow, isOpen } from '../progress/fit.js';
import { replacementFor } from '../progress/replacement.js';
import { type Standing, standingOf } from '../progress/standing.js';
import { currentEntry, type Entry, type Lane, latestSet, type SetRecord } from '../session/fold.js';
import { isPending, type Programme, type RunStep, stepNow, stepsOf } from '../session/run.js';
import type { Timer } from '../session/timer.js';
import { atClock, type ClockTurn } from './clock-turn.js';
import { type Rest, restOf } from './rest.js';

/** What a lane is computed from. */
export interface LaneParts {
  lane: Lane;
  client: ClientOnDay;
  record: ClientRecord;
  studio: Studio;
  /** Where the session is held, with what was brought along. */
  place: Place;
  /** Everywhere that it could be held. */
  places: readonly Place[];
  rules: readonly HouseRule[];
  movements: readonly MovementSummary[];
  catalog: Catalog;
  programme: Programme | null;
  /** The clock that everybody of a block goes by, and the turn it is at. */
  clock: ClockTurn | null;
  /** Whole movements, as far as they are here. */
  pageOf: (movementId: string) => MovementPage | undefined;
}

/** Why the movement in hand must not be done now, and what there is instead. */
export interface Closed {
  fit: FitNow;
  instead: { id: string; name: string } | null;
}

/** The set that was logged last, whatever is on the screen by now. */
export interface JustDone {
  entry: Entry;
  set: SetRecord;
  movement: MovementSummary | undefined;
  page: MovementPage | undefined;
}

export interface LaneView extends Omit<LaneParts, 'rules' | 'clock'> {
  standing: Standing;
  kit: ReadonlyMap<KitItem, number>;
  steps: readonly RunStep[];
  /** The set in hand. */
  step: RunStep | undefined;
  /** The clock that this client goes by now, with everybody of the block; null where none runs. */
  clock: Timer | null;
  /** The clock has no place for this client in this turn. */
  waits: boolean;
  /** The movement in hand, in short and whole. */
  movement: MovementSummary | undefined;
  page: MovementPage | undefined;
  /** The stay at it, once something was recorded of it. */
  entry: Entry | undefined;
  /** The movement in hand is closed now; null when it is not. */
  closed: Closed | null;
  /** Sharp pain that nothing was done about yet; null when there is none. */
  alarm: Lane['pains'][number] | null;
  justDone: JustDone | null;
  /** The rest after the latest set; null while a side or a set is under way. */
  rest: Rest | null;
}

/** The lane of one client. */
export function viewOf({ rules, clock, ...parts }: LaneParts): LaneView {
  const { lane, client, record, studio, place, movements, catalog, programme, pageOf } = parts;
  const find = (id: string) => movements.find((movement) => movement.id === id) ?? summaryOf(pageOf(id));
  const standing = standingOf(client, record, lane.pains);
  const kit = kitCounts(place.kit);
  const steps = atClock(stepsOf(programme, lane, find), clock);
  const step = stepNow(steps);
  const last = currentEntry(lane);
  const alone = steps.length === 0 && last && !standing.hurtNow.includes(last.movementId) ? last : undefined;
  const movementId = step?.lane.movementId ?? alone?.movementId;
  const movement = movementId === undefined ? undefined : find(movementId);
  const entry = step ? entryOf(lane, step) : alone;
  const tags = tagsInForce(rules, studio.houseRules, client.houseRules, standing.limits);
  const shown = (
    id: string | undefined,
    withId: string | undefined,
    stay: Entry | undefined,
  ): MovementPage | undefined => {
    const page = id === undefined ? undefined : pageOf(id);
    if (!page) return undefined;
    const other = withId === undefined ? undefined : pageOf(withId)?.movement;
    const whole = other ? combined(page.movement, other) : page.movement;
    const taught = underRules(whole, withSeen(tags, whole, stay));
    return { ...page, movement: withInHand(taught, step?.lane.load?.item) };
  };
  const done = latestSet(lane);
  const alarm = alarmOf(lane);
  return {
    ...parts,
    standing,
    kit,
    steps,
    step,
    clock: clock && steps.some((one) => one.block?.id === clock.blockId && isPending(one)) ? clock.timer : null,
    waits: clock !== null && !step && steps.some((one) => one.block?.id === clock.blockId && isPending(one)),
    movement,
    page: shown(movementId, step?.lane.withId ?? entry?.withId, entry),
    entry,
    closed: closedBy(
      [movement, step?.lane.withId == null ? undefined : find(step.lane.withId)],
      step?.lane.load?.item,
      standing,
      kit,
      catalog,
    ),
    alarm,
    justDone: done && {
      ...done,
      movement: find(done.entry.movementId),
      page: shown(done.entry.movementId, done.entry.withId, done.entry),
    },
    rest: alarm ? null : restOf(lane, steps, entry, find),
  };
}

/** Why a movement, or the one it is combined with, must not be done now. */
function closedBy(
  all: readonly (MovementSummary | undefined)[],
  item: KitItem | undefined,
  standing: Standing,
  kit: ReadonlyMap<KitItem, number>,
  catalog: Catalog,
): Closed | null {
  const [movement] = all;
  for (const one of all) {
    const fit = one && fitNow(standing, kit, one, item);
    if (movement && fit && !isOpen(fit)) return { fit, instead: replacementFor(catalog, standing, kit, movement.id) };
  }
  return null;
}

/** The stay at what a step holds now; undefined until something was recorded of it. */
export const entryOf = ({ entries }: Lane, { itemId, lane }: RunStep): Entry | undefined =>
  entries.findLast(
    (entry) =>
      entry.itemId === itemId &&
      entry.movementId === lane.movementId &&
      // What began before combinations were noted says nothing of the second one.
      (entry.withId === undefined || entry.withId === lane.withId),
  );

/** What a list would show of a movement that is in none any more, because it was archived meanwhile. */
const summaryOf = (page: MovementPage | undefined): MovementSummary | undefined =>
  page && { ...page.movement, level: page.level };

/** A fault that was seen stays on the screen and in force, whatever school it belongs to. */
function withSeen(tags: ReadonlySet<string>, movement: Movement, entry: Entry | undefined): ReadonlySet<string> {
  const seen = movement.faults.filter(({ id }) => entry?.faults.some((fault) => fault.faultId === id));
  return new Set([...tags, ...seen.flatMap(({ houseRule }) => houseRule ?? [])]);
}

/** Sharp pain stands until something else was begun, done or gone to. */
function alarmOf({ pains, entries, course }: Lane): LaneView['alarm'] {
  const pain = pains.findLast(({ quality }) => quality === 'sharp');
  if (!pain) return null;
  const later = [
    ...entries.flatMap(({ startedAt, sets }) => [startedAt, ...sets.map(({ at }) => at)]),
    ...(course.place ? [course.place.at] : []),
  ];
  return later.some((at) => at > pain.at) ? null : pain;
}

/** The movement of a stay, in short. */
export const movementOf = (view: LaneView, movementId: string): MovementSummary | undefined =>
  movementId === view.movement?.id ? view.movement : view.movements.find(({ id }) => id === movementId);

/** Whether this client may do a movement now. */
export const fitOf = (
  view: LaneView,
  movement: Pick<MovementSummary, 'id' | 'demands' | 'kit' | 'notFor' | 'suits'>,
  item?: KitItem,
): FitNow => fitNow(view.standing, view.kit, movement, item);
