/** A session as it is told: what a list shows of it, and its events piece by piece. */
import type { SessionEvent } from './events.js';
import type { Programme } from './run.js';

export interface SessionSummary {
  id: string;
  startedAt: string;
  finishedAt: string | null;
  clients: { id: string; name: string }[];
}

/** Events that came after a place, at most as many as one answer holds. */
export interface LaterEvents {
  events: SessionEvent[];
  /** Place of the last of them in the store: what comes later has a higher one. */
  place: number;
  /** The highest place that this session has: more is to be fetched while `place` is below it. */
  last: number;
  /** Another one each time the server starts: it may have come back from an older copy. */
  boot: string;
}

export interface SessionView extends SessionSummary, LaterEvents {
  /** The plan that it began with; null for one from nothing. */
  programme: Programme | null;
}
