/** What the server answers, as types that server and page share. */
import type { Trial } from '../coaching/evidence.js';
import type { Benchmark, ReadinessCheck, TodayCheck } from '../coaching/screening.js';
import type { Step } from '../ladder/graph.js';
import type { PastSession } from '../ladder/readiness.js';
import type { Change } from '../movement/difference.js';
import type { RuleChoices } from '../movement/house-rules.js';
import type { KitPiece } from '../movement/kit.js';
import type { Limit } from '../movement/limits.js';
import type { Movement } from '../movement/schema.js';
import type { Plan } from '../planning/plan.js';
import type { SessionEvent } from '../session/events.js';
import type { SessionState } from '../session/fold.js';
import type { Programme } from '../session/run.js';
import type { FaultLoad, FaultTally, Move } from '../session/record.js';
import type { ImportRow } from './pack.js';

/** What a list of movements shows, and all that substitution needs. */
export type MovementSummary = Omit<Movement, 'cues' | 'faults' | 'breath' | 'cautions' | 'phases'> & { level: number };

export interface MovementList {
  items: MovementSummary[];
  nextCursor: string | null;
  total: number;
}

export interface Neighbour extends Step {
  name: string;
}

export interface MovementPage {
  movement: Movement;
  version: number;
  updatedAt: string;
  /** Who saved this version; empty for the starter library. */
  author: string;
  archivedAt: string | null;
  level: number;
  easier: Neighbour[];
  harder: Neighbour[];
  sideways: Neighbour[];
}

/** One saved version of a movement, and what it changed from the one before. */
export interface MovementVersion {
  version: number;
  author: string;
  savedAt: string;
  movement: Movement;
  changes: Change[];
}

export interface Picture {
  id: string;
  caption: string;
  addedAt: string;
}

/** What an import would do, before it is done. */
export interface ImportPreview {
  importId: string;
  rows: ImportRow[];
}

/** One line of an import under way. */
export type ImportProgress = { done: number; total: number } | { finished: number } | { problem: string };

export interface Client {
  id: string;
  version: number;
  name: string;
  about: string;
  goal: string;
  /** Private: only ever sent with this one client, never in a list. */
  healthNote: string;
  /** Day on which the client agreed to be touched for correction (YYYY-MM-DD). */
  touchConsentOn: string | null;
  /** Day on which the client agreed to be filmed (YYYY-MM-DD). */
  filmConsentOn: string | null;
  /** Where sheets are sent; empty for nowhere. */
  email: string;
  /** The trainer's notes that are not about health. */
  note: string;
  /** Whole years of training so far; null when not noted. */
  trainingYears: number | null;
  /** Kilograms; null when not noted. */
  bodyKg: number | null;
  /** The unit in which weights are read. */
  unit: 'kg' | 'lb';
  /** Questions asked before the first session; null until they were. */
  readiness: ReadinessCheck | null;
  /** The latest check before a session; it holds for its own day only. */
  today: TodayCheck | null;
  benchmarks: Benchmark[];
  limits: Limit[];
  kit: KitPiece[];
  /** Where this client's schools differ from the studio's. */
  houseRules: RuleChoices;
}

export type ClientSummary = Pick<Client, 'id' | 'name' | 'about' | 'goal'> & { limits: number };

export interface SessionSummary {
  id: string;
  startedAt: string;
  finishedAt: string | null;
  clients: { id: string; name: string }[];
}

export interface SessionView extends SessionSummary {
  /** The plan that it began with; null for one from nothing. */
  programme: Programme | null;
  events: SessionEvent[];
  /** Place of the latest event in the store: what comes later has a higher one. */
  place: number;
  state: Omit<SessionState, 'log'>;
}

/** Events that came after a place. */
export interface LaterEvents {
  events: SessionEvent[];
  place: number;
}

/** What all sessions teach about one client. Other clients' trials come without their ids. */
export interface ClientRecord {
  trials: Trial[];
  /** Sessions by movement, earliest first. */
  sets: Record<string, PastSession[]>;
  /** By `movement/fault`. */
  faults: Record<string, FaultTally>;
  /** Movements in which sharp pain was reported and that were not done since, with the day. */
  hurt: { movementId: string; at: string }[];
  /** Swaps of a line, earliest first: the rung that somebody went to. */
  moves: Move[];
  /** Session by session, earliest first: sets done and faults seen. */
  faultLoads: FaultLoad[];
}

export interface Studio {
  version: number;
  name: string;
  trainer: string;
  kit: KitPiece[];
  houseRules: RuleChoices;
  /** What is done here in an emergency, in the studio's own words, and whom to call. */
  emergencyText: string;
  emergencyPhone: string;
  clients: number;
  movements: number;
}

/** A plan as it is stored. */
export interface StoredPlan extends Plan {
  id: string;
  version: number;
  updatedAt: string;
}

export type PlanSummary = Pick<StoredPlan, 'id' | 'name' | 'startsAt' | 'template' | 'minutes' | 'updatedAt'> & {
  clients: { id: string; name: string }[];
};

/** A message that waits in the outbox folder. */
export interface OutboxMessage {
  name: string;
  to: string;
  subject: string;
  writtenAt: string;
}
