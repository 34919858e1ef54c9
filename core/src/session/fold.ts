/**
 * A live session as a fold: events in any order, any number of times → the same state.
 * Undo is an event: the later one in logical order decides, and an undo can itself be undone.
 */
import type { Attempt } from '../coaching/correct.js';
import type { Outcome } from '../coaching/evidence.js';
import type { Pain } from '../coaching/pain.js';
import type { Effort } from '../movement/vocabulary.js';
import type { EventOf, SessionEvent, SetSide } from './events.js';

export interface SetRecord {
  id: string;
  side: SetSide;
  amount: number;
  kg: number | null;
  loadLabel: string | null;
  effort: Effort | null;
  at: string;
  /** Faults that were open when the set was logged. */
  openFaults: string[];
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
  why: string | null;
  startedAt: string;
  sets: SetRecord[];
  faults: FaultRecord[];
  corrections: CorrectionRecord[];
}

/** One client's part of the session. */
export interface Lane {
  clientId: string;
  entries: Entry[];
  pains: (Pain & { id: string; movementId: string | null; at: string })[];
  notes: { id: string; text: string; at: string }[];
}

export interface SessionState {
  lanes: Record<string, Lane>;
  finishedAt: string | null;
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
}

/** The state after all events. */
export function fold(events: readonly SessionEvent[], clientIds: readonly string[]): SessionState {
  const byId = once(events);
  const ordered = [...byId.values()].sort(byClock);
  const undone = undoneIds(ordered, byId);
  const log = ordered.filter((event) => !undone.has(event.id) && event.type !== 'undone');
  const building: Building = {
    state: {
      lanes: Object.fromEntries(
        clientIds.map((clientId) => [clientId, { clientId, entries: [], pains: [], notes: [] }]),
      ),
      finishedAt: null,
      counter: ordered.at(-1)?.counter ?? 0,
      log,
    },
    entries: new Map(),
    sets: new Map(),
    corrections: new Map(),
  };
  for (const event of log) apply(building, event);
  return building.state;
}

function apply({ state, entries, sets, corrections }: Building, event: SessionEvent): void {
  const lane = state.lanes[event.clientId];
  if (!lane) return;
  switch (event.type) {
    case 'movement-started': {
      const { movementId, why } = event.data;
      const entry: Entry = {
        id: event.id,
        movementId,
        why,
        startedAt: event.at,
        sets: [],
        faults: [],
        corrections: [],
      };
      lane.entries.push(entry);
      entries.set(event.id, entry);
      break;
    }
    case 'set-done': {
      const entry = entries.get(event.data.entryId);
      if (entry) addSet(entry, event, sets);
      break;
    }
    case 'effort-felt': {
      const set = sets.get(event.data.setId);
      if (set) set.effort = event.data.effort;
      break;
    }
    case 'fault-seen': {
      const entry = entries.get(event.data.entryId);
      if (entry) seeFault(entry, event.data.faultId);
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
    case 'pain-reported': {
      const { region, quality, entryId } = event.data;
      lane.pains.push({
        id: event.id,
        region,
        quality,
        movementId: entries.get(entryId ?? '')?.movementId ?? null,
        at: event.at,
      });
      break;
    }
    case 'note-written':
      lane.notes.push({ id: event.id, text: event.data.text, at: event.at });
      break;
    case 'session-finished':
      state.finishedAt = event.at;
      break;
    case 'undone':
      break;
  }
}

function addSet(entry: Entry, event: EventOf<'set-done'>, sets: Map<string, SetRecord>): void {
  const { side, amount, kg, loadLabel } = event.data;
  const openFaults = entry.faults.filter((fault) => fault.open).map((fault) => fault.faultId);
  const set: SetRecord = { id: event.id, side, amount, kg, loadLabel, effort: null, at: event.at, openFaults };
  entry.sets.push(set);
  sets.set(event.id, set);
}

function seeFault(entry: Entry, faultId: string): void {
  const known = entry.faults.find((fault) => fault.faultId === faultId);
  if (known) {
    known.times += 1;
    known.open = true;
  } else entry.faults.push({ faultId, times: 1, open: true });
}

/** The movement that a lane is at. */
export const currentEntry = (lane: Lane): Entry | undefined => lane.entries.at(-1);

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
