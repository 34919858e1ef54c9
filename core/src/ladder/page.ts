/** A whole movement as its own page has it: with its version, and its neighbours on the ladder. */
import type { Movement } from '../movement/schema.js';
import type { Step } from './graph.js';

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
