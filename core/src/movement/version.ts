/** One saved version of a movement, and what it changed from the one before. */
import type { Change } from './difference.js';
import type { Movement } from './schema.js';

export interface MovementVersion {
  version: number;
  author: string;
  savedAt: string;
  movement: Movement;
  changes: Change[];
}
