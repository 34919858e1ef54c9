/** What all sessions so far teach about one client. */
import type { FaultLoad, FaultTally, Hurt, Move, PastSession } from '../client/history.js';
import type { NotedSetUp } from '../client/set-up.js';
import type { TestResult } from '../client/tests.js';
import type { Evidence } from './evidence.js';

export interface ClientRecord extends Evidence {
  /** Sessions by movement, earliest first. */
  sets: Record<string, PastSession[]>;
  /** By movement. */
  faults: Record<string, FaultTally>;
  hurt: Hurt[];
  /** Swaps of a line, earliest first: the rung that somebody went to. */
  moves: Move[];
  /** What the latest session left for the next one. */
  left: string[];
  /** How they were set up, earliest first. */
  setUps: NotedSetUp[];
  /** What came out of tests in sessions, earliest first. */
  tests: TestResult[];
  /** Session by session, earliest first: sets done and faults seen. */
  faultLoads: FaultLoad[];
}
