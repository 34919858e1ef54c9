/** The search index, off the page's own thread: neither reading the library nor searching it holds up typing. */
import { buildFinding, type Finding, type FoundFault } from '@waxwing/core/movement';
import { expose } from 'comlink';

import { call } from '../api/http';

export interface Found {
  /** Ids of the best matches. */
  movements: string[];
  /** How many match in all. */
  total: number;
  faults: FaultAnswer[];
}

/** A fault with the first of the movements that have it, and how many have it in all. */
export interface FaultAnswer extends FoundFault {
  total: number;
}

/** Nobody reads further down than this; sending and drawing more would take longer than a keystroke may. */
const MOST = 120;

/** Movements of a fault that are named or looked through for a picture; a usual one is in thousands. */
const MOST_OF_FAULT = 40;

/** Names searched for once the index stands. */
const WARMING = 8;

let finding: Finding | undefined;

const finder = {
  /** Reads the library from the server and builds the index anew. @returns how many movements it holds */
  async load(): Promise<number> {
    const [{ items }, kinds] = await Promise.all([call('GET /library/texts'), call('GET /library/fault-kinds')]);
    finding = buildFinding(items, kinds.items);
    // The first letters of a visit must not be the ones that wait for the engine to compile what they run.
    for (const { name } of items.slice(0, WARMING))
      for (let end = 1; end <= name.length; end += 1) finder.find(name.slice(0, end));
    return items.length;
  },
  find(words: string): Found {
    const { ids, total } = finding?.movements(words, MOST) ?? { ids: [], total: 0 };
    const faults = finding?.faults(words) ?? [];
    return {
      movements: ids,
      total,
      faults: faults.map((fault) => ({
        ...fault,
        movements: fault.movements.slice(0, MOST_OF_FAULT),
        total: fault.movements.length,
      })),
    };
  },
};

export type Finder = typeof finder;

expose(finder);
