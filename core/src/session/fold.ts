/**
 * A live session as a fold: events in any order, any number of times → the same state.
 * Undo is an event: the later one in logical order decides, and an undo can itself be undone.
 */
import type { HeldBack, Pain } from '../client/pain.js';
import type { PlaceRef } from '../client/place.js';
import type { NotedSetUp } from '../client/set-up-schema.js';
import type { Test } from '../client/tests.js';
import type { Attempt } from '../coaching/correct.js';
import type { Outcome } from '../coaching/outcomes.js';
import type { KitPiece } from '../movement/kit-schema.js';
import type { Effort, View } from '../movement/vocabulary.js';
import type { PlanLane } from '../planning/plan.js';
import type { Part } from '../schema/part.js';
import type { EventOf, SessionEvent, SetSide } from './events.js';
import type { Span, Timer } from './timer.js';

export interface SetRecord {
  id: string;
  side: SetSide;
  /** Reps or seconds; seconds where it was not counted. */
  amount: number;
  /** Done by a clock, and nobody counted. */
  uncounted: boolean;
  /** The seconds of each piece of a hold that was broken; null for one that was not. */
  pieces: number[] | null;
  /** What was done of a composed set; null for a plain one. */
  parts: Part[] | null;
  /** The test that it was; null for any other set. */
  test: Test | null;
  /** What it went on with at lighter weights, without a rest. One of nothing says that it did not. */
  drops: DropRecord[];
  kg: number | null;
  loadLabel: string | null;
  effort: Effort | null;
  /** Reps left in the tank, where they were asked for by number. */
  left: number | null;
  at: string;
  /** Faults that were open when the set was logged, or that were seen in it, whenever they were marked and whatever came after. */
  openFaults: string[];
  /** Why it should not have been done, where it was done all the same. */
  despite: string | null;
  /** Where the trainer said they stood; null for where they were told to. */
  stood: View | null;
}

export interface DropRecord {
  amount: number;
  kg: number | null;
  loadLabel: string | null;
}

export interface CorrectionRecord extends Attempt {
  eventId: string;
  addresses: string[];
  outcome: Outcome | null;
  at: string;
}

export interface FaultRecord {
  faultId: string;
  times: number;
  /** Seen, and not fixed since. */
  open: boolean;
}

/** One stay at a movement. */
export interface Entry {
  id: string;
  movementId: string;
  /** The second movement of the same rep. */
  withId?: string | undefined;
  why: string | null;
  /** It says nothing about the rung that somebody is on. */
  aside?: true | undefined;
  /** The line of the session that it is done for. */
  itemId: string | null;
  startedAt: string;
  sets: SetRecord[];
  /** Reps counted by tap since the last set, by side. */
  counted: Record<SetSide, number>;
  /** Where the trainer says they stand for the set in hand. */
  stood: View | null;
  faults: FaultRecord[];
  /** Faults marked since the last set, without saying in which: the next set has them, or the last one where none follows. */
  unplaced: string[];
  /** Causes that the trainer named, the latest last. */
  causes: string[];
  corrections: CorrectionRecord[];
  /** The mark for today was asked about here, and whether it was taken; null before. */
  marked: boolean | null;
}

/** What a line, or one set of it, is done with from now on. */
export type ChangedDose = Pick<PlanLane, 'amount' | 'load' | 'tempo' | 'parts'> & { rest?: number | undefined };

/** What the trainer changed in one client's programme: what is put in, left out, done otherwise or in another order. */
export interface Course {
  added: { itemId: string; afterId: string | null; lane: PlanLane }[];
  dropped: string[];
  /** Sets to do instead of those planned, by line. */
  sets: Record<string, number>;
  doses: Record<string, ChangedDose>;
  /** The same for single sets: by line, then by set. */
  setDoses: Record<string, Record<number, ChangedDose>>;
  /** Sets left out, by line. */
  skipped: Record<string, number[]>;
  /** Where the trainer went by hand. */
  place: { itemId: string; set: number; at: string } | null;
}

/** One client's part of the session. */
export interface Lane {
  clientId: string;
  entries: Entry[];
  pains: ((Pain | HeldBack) & { id: string; movementId: string | null; at: string })[];
  notes: { id: string; text: string; at: string }[];
  setUps: NotedSetUp[];
  /** Movements that were left for the next time. */
  left: string[];
  /** Timers of this client, the latest last. */
  timers: Timer[];
  course: Course;
}

/** Before anything happened. */
export const emptyLane = (clientId: string): Lane => ({
  clientId,
  entries: [],
  pains: [],
  notes: [],
  setUps: [],
  left: [],
  timers: [],
  course: { added: [], dropped: [], sets: {}, doses: {}, setDoses: {}, skipped: {}, place: null },
});

export interface SessionState {
  lanes: Record<string, Lane>;
  /** Clocks of everybody at a block, the latest last. */
  clocks: Timer[];
  /** When the whole session stood still. */
  breaks: Span[];
  finishedAt: string | null;
  /** Where it was moved to; null for where it was planned. */
  place: PlaceRef | null;
  /** Weights that were brought along. */
  brought: KitPiece[];
  /** Highest logical clock seen, undone events included: the next event takes one more. */
  counter: number;
  /** Events that count, in logical order. */
  log: SessionEvent[];
}

/** Logical order: counter, then id. */
export const byClock = (a: SessionEvent, b: SessionEvent): number =>
  a.counter - b.counter || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0);

/** The one with each id. Two different events with one id cannot come from one device; the smaller text wins. */
function once(events: readonly SessionEvent[]): Map<string, SessionEvent> {
  const byId = new Map<string, SessionEvent>();
  for (const event of events) {
    const twin = byId.get(event.id);
    if (!twin || (twin !== event && JSON.stringify(event) < JSON.stringify(twin))) byId.set(event.id, event);
  }
  return byId;
}

/** Ids taken back, judged from the last event to the first: an undo that was itself undone has no effect, nor has one of a later event. */
function undoneIds(ordered: readonly SessionEvent[], byId: ReadonlyMap<string, SessionEvent>): Set<string> {
  const undone = new Set<string>();
  for (let i = ordered.length - 1; i >= 0; i -= 1) {
    const event = ordered[i];
    if (event?.type !== 'undone' || undone.has(event.id)) continue;
    const target = byId.get(event.data.eventId);
    if (target && byClock(target, event) < 0) undone.add(target.id);
  }
  return undone;
}

interface Building {
  state: SessionState;
  entries: Map<string, Entry>;
  sets: Map<string, SetRecord>;
  corrections: Map<string, { record: CorrectionRecord; entry: Entry }>;
  timers: Map<string, Timer>;
}

/** The state after all events. */
export function fold(events: readonly SessionEvent[], clientIds: readonly string[]): SessionState {
  const byId = once(events);
  const ordered = [...byId.values()].sort(byClock);
  const undone = undoneIds(ordered, byId);
  const log = ordered.filter((event) => !undone.has(event.id) && event.type !== 'undone');
  const building: Building = {
    state: {
      lanes: Object.fromEntries(clientIds.map((clientId) => [clientId, emptyLane(clientId)])),
      clocks: [],
      breaks: [],
      finishedAt: null,
      place: null,
      brought: [],
      counter: ordered.at(-1)?.counter ?? 0,
      log,
    },
    entries: new Map(),
    sets: new Map(),
    corrections: new Map(),
    timers: new Map(),
  };
  for (const event of log) apply(building, event);
  for (const { sets, unplaced } of building.entries.values())
    for (const faultId of unplaced) markSet(sets.at(-1), faultId);
  return building.state;
}

function apply({ state, entries, sets, corrections, timers }: Building, event: SessionEvent): void {
  const lane = state.lanes[event.clientId];
  if (!lane) return;
  switch (event.type) {
    case 'movement-started': {
      const { movementId, withId, why, itemId = null, aside } = event.data;
      const entry: Entry = {
        id: event.id,
        movementId,
        ...(withId && { withId }),
        why,
        ...(aside && { aside }),
        itemId,
        startedAt: event.at,
        sets: [],
        counted: { both: 0, left: 0, right: 0 },
        stood: null,
        faults: [],
        unplaced: [],
        causes: [],
        corrections: [],
        marked: null,
      };
      lane.entries.push(entry);
      entries.set(event.id, entry);
      break;
    }
    case 'set-done': {
      const entry = entries.get(event.data.entryId);
      if (entry) addSet(entry, event, sets);
      if (entry && lane.timers.at(-1)?.entryId === entry.id) stopTimer(lane.timers.at(-1), event.at);
      break;
    }
    case 'effort-felt': {
      const set = sets.get(event.data.setId);
      if (set) {
        set.effort = event.data.effort;
        set.left = event.data.left ?? null;
      }
      break;
    }
    case 'rep-counted': {
      const counted = entries.get(event.data.entryId)?.counted;
      if (counted) counted[event.data.side] += 1;
      break;
    }
    case 'stood': {
      const entry = entries.get(event.data.entryId);
      if (entry) entry.stood = event.data.view;
      break;
    }
    case 'set-corrected': {
      const { setId, ...numbers } = event.data;
      const set = sets.get(setId);
      // What was put right was counted, and is whole.
      if (set) Object.assign(set, numbers, { uncounted: false, pieces: null, parts: null });
      break;
    }
    case 'mark-noted': {
      const entry = entries.get(event.data.entryId);
      if (entry) entry.marked = event.data.took !== 'nothing';
      break;
    }
    case 'drop-done': {
      const { setId, ...numbers } = event.data;
      sets.get(setId)?.drops.push(numbers);
      break;
    }
    case 'fault-seen': {
      const entry = entries.get(event.data.entryId);
      if (entry) seeFault(entry, event.data.faultId, sets.get(event.data.setId ?? ''));
      break;
    }
    case 'cause-named': {
      const entry = entries.get(event.data.entryId);
      const { cause, holds } = event.data;
      if (entry) entry.causes = [...entry.causes.filter((one) => one !== cause), ...(holds ? [cause] : [])];
      break;
    }
    case 'correction-given': {
      const entry = entries.get(event.data.entryId);
      if (!entry) break;
      const { faultId, correctionId, addresses } = event.data;
      const record: CorrectionRecord = {
        eventId: event.id,
        faultId,
        correctionId,
        addresses,
        outcome: null,
        at: event.at,
      };
      entry.corrections.push(record);
      corrections.set(event.id, { record, entry });
      break;
    }
    case 'outcome-noted': {
      const given = corrections.get(event.data.correctionEventId);
      if (!given) break;
      given.record.outcome = event.data.outcome;
      if (event.data.outcome === 'fixed')
        for (const fault of given.entry.faults) if (given.record.addresses.includes(fault.faultId)) fault.open = false;
      break;
    }
    case 'pain-reported':
    case 'held-back': {
      const { entryId, ...pain } = event.data;
      // Nobody goes on by a clock or a beat with that.
      if (pain.quality === 'sharp') stopTimer(lane.timers.at(-1), event.at);
      lane.pains.push({
        ...('region' in pain ? pain : { ...pain, region: null }),
        id: event.id,
        movementId: entries.get(entryId ?? '')?.movementId ?? null,
        at: event.at,
      });
      break;
    }
    case 'note-written':
      lane.notes.push({ id: event.id, text: event.data.text, at: event.at });
      break;
    case 'set-up-noted':
      lane.setUps.push({ ...event.data, at: event.at });
      break;
    case 'left-for-next':
      lane.left = event.data.movementIds;
      break;
    case 'session-finished':
      state.finishedAt = event.at;
      break;
    case 'place-changed':
      state.place = event.data.place;
      break;
    case 'weight-brought':
      state.brought.push(event.data);
      break;
    case 'session-paused':
      if (state.breaks.at(-1)?.to !== null) state.breaks.push({ from: event.at, to: null });
      break;
    case 'session-resumed': {
      const pause = state.breaks.at(-1);
      if (pause) pause.to ??= event.at;
      break;
    }
    case 'timer-started': {
      const { entryId, ...times } = event.data;
      if (entryId !== null && !entries.has(entryId)) break;
      const timer: Timer = {
        id: event.id,
        entryId,
        ...times,
        startedAt: event.at,
        pauses: [],
        extended: false,
        stoppedAt: null,
      };
      // One at a time: a new one ends the one before.
      const others = entryId === null ? state.clocks : lane.timers;
      stopTimer(others.at(-1), event.at);
      others.push(timer);
      timers.set(event.id, timer);
      break;
    }
    case 'timer-paused': {
      const timer = timers.get(event.data.timerId);
      if (timer?.stoppedAt === null && timer.pauses.at(-1)?.to !== null)
        timer.pauses.push({ from: event.at, to: null });
      break;
    }
    case 'timer-resumed': {
      const timer = timers.get(event.data.timerId);
      const pause = timer?.pauses.at(-1);
      if (!timer || pause?.to !== null) break;
      pause.to = event.at;
      if (event.data.cut !== undefined) pause.from = earlier(timer, pause.from, event.data.cut);
      break;
    }
    case 'timer-extended': {
      const timer = timers.get(event.data.timerId);
      if (timer) timer.extended = true;
      break;
    }
    case 'timer-stopped':
      stopTimer(timers.get(event.data.timerId), event.at);
      break;
    case 'item-added':
    case 'item-dropped':
    case 'sets-changed':
    case 'dose-changed':
    case 'step-skipped':
    case 'gone-to':
      changeCourse(lane.course, event);
      break;
    case 'undone':
      break;
  }
}

/** A time so many seconds before another one, but never before the piece that it ends began. */
function earlier({ startedAt, pauses }: Timer, from: string, seconds: number): string {
  const began = pauses.at(-2)?.to ?? startedAt;
  return new Date(Math.max(Date.parse(began), Date.parse(from) - seconds * 1000)).toISOString();
}

const stopTimer = (timer: Timer | undefined, at: string): void => {
  if (timer) timer.stoppedAt ??= at;
};

type CourseEvent = EventOf<
  'item-added' | 'item-dropped' | 'sets-changed' | 'dose-changed' | 'step-skipped' | 'gone-to'
>;

function changeCourse(course: Course, event: CourseEvent): void {
  switch (event.type) {
    case 'item-added':
      course.added.push(event.data);
      break;
    case 'item-dropped':
      course.dropped.push(event.data.itemId);
      break;
    case 'sets-changed':
      course.sets[event.data.itemId] = event.data.sets;
      break;
    case 'dose-changed': {
      const { itemId, set, ...dose } = event.data;
      // A rest that was changed stays with what is changed later.
      if (set === undefined) course.doses[itemId] = { ...course.doses[itemId], ...dose };
      else (course.setDoses[itemId] ??= {})[set] = dose;
      break;
    }
    case 'step-skipped':
      (course.skipped[event.data.itemId] ??= []).push(event.data.set);
      break;
    case 'gone-to':
      course.place = { ...event.data, at: event.at };
      break;
  }
}

function addSet(entry: Entry, event: EventOf<'set-done'>, sets: Map<string, SetRecord>): void {
  const {
    side,
    amount,
    kg,
    loadLabel,
    despite = null,
    uncounted = false,
    pieces = null,
    parts = null,
    test = null,
  } = event.data;
  // What was seen in a set was in it, though it was put right before the set was over.
  const seen = [...new Set([...openFaults(entry), ...entry.unplaced])];
  entry.unplaced = [];
  const set: SetRecord = {
    id: event.id,
    side,
    amount,
    uncounted,
    pieces,
    parts,
    test,
    drops: [],
    kg,
    loadLabel,
    effort: null,
    left: null,
    at: event.at,
    openFaults: seen,
    despite,
    stood: entry.stood,
  };
  entry.sets.push(set);
  entry.counted[side] = 0;
  // Both sides of a set are watched from one place.
  const on = (one: SetSide) => entry.sets.filter((other) => other.side === one).length;
  if (on('left') === on('right')) entry.stood = null;
  sets.set(event.id, set);
}

/** A fault of a set makes it unclean, whenever it was marked. */
function markSet(set: SetRecord | undefined, faultId: string): void {
  if (set && !set.openFaults.includes(faultId)) set.openFaults.push(faultId);
}

function seeFault(entry: Entry, faultId: string, set: SetRecord | undefined): void {
  if (set) markSet(set, faultId);
  else entry.unplaced.push(faultId);
  const known = entry.faults.find((fault) => fault.faultId === faultId);
  if (known) {
    known.times += 1;
    known.open = true;
  } else entry.faults.push({ faultId, times: 1, open: true });
}

/** The movement that a lane is at. */
export const currentEntry = (lane: Lane): Entry | undefined => lane.entries.at(-1);

/** The stay and the set that were logged last. */
export function latestSet({ entries }: Lane): { entry: Entry; set: SetRecord } | null {
  let latest: { entry: Entry; set: SetRecord } | null = null;
  for (const entry of entries) {
    const set = entry.sets.at(-1);
    if (set && (!latest || set.at >= latest.set.at)) latest = { entry, set };
  }
  return latest;
}

/** Faults that are open in an entry, by id. */
export const openFaults = (entry: Entry): string[] =>
  entry.faults.filter((fault) => fault.open).map((fault) => fault.faultId);

/** The events of the last tap, latest first: what undo takes back. Events of one tap share its client and time. */
export function lastTap({ log }: SessionState): SessionEvent[] {
  const last = log.at(-1);
  if (!last) return [];
  const before = log.findLastIndex((event) => event.at !== last.at || event.clientId !== last.clientId);
  return log.slice(before + 1).reverse();
}
