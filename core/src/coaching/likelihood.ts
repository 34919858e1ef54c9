/** How likely a fault is to show in the next set of a client. */
import type { FaultTally } from '../client/history-schema.js';
import type { Fault } from '../movement/schema.js';
import { FAULT_PRIOR } from './weights.js';

/** Trials that the prior is worth when a client's own record is mixed in. */
const PRIOR_SETS = 4;

/** Chance per set that a fault shows in this client: the prior by severity, moved by the record of its movement. */
export const likelyFault = (fault: Fault, tally: FaultTally | undefined): number =>
  ((tally?.seen[fault.id] ?? 0) + FAULT_PRIOR[fault.severity] * PRIOR_SETS) / ((tally?.sets ?? 0) + PRIOR_SETS);
