/** Suggesting and ordering sessions, off the page's own thread: the page stays quick whatever the search takes. */
import type { MovementSummary } from '@waxwing/core/movement';
import {
  orderPlan,
  type Plan,
  type Reordered,
  type Suggestion,
  type SuggestRequest,
  suggestSession,
} from '@waxwing/core/planning';
import { expose } from 'comlink';
import { v7 as uuidv7 } from 'uuid';

import { faultIn, type FaultNames } from '../plan/fault-in';

let movements: readonly MovementSummary[] = [];

const planner = {
  /** The library that is planned with; sent once, and again when it changes. */
  load(all: readonly MovementSummary[]): void {
    movements = all;
  },
  /** @param faults those of the movements that were done last, to be named in reasons */
  suggest(request: Omit<SuggestRequest, 'movements' | 'newId' | 'faultOf'>, faults: FaultNames): Suggestion {
    const faultOf = faultIn(faults);
    return suggestSession({ ...request, movements, newId: uuidv7, faultOf });
  },
  /** @param known `client movement` for what a client has done before */
  order(plan: Pick<Plan, 'blocks' | 'minutes' | 'clientIds'>, known: readonly string[]): Reordered {
    const byId = new Map(movements.map((movement) => [movement.id, movement]));
    const done = new Set(known);
    return orderPlan(plan, { find: (id) => byId.get(id), knows: (clientId, id) => done.has(`${clientId} ${id}`) });
  },
};

export type Planner = typeof planner;

expose(planner);
