/** A movement in short: what a list shows of it, and all that ladders, plans and swaps need to know. */
import type { Movement } from './schema.js';

export type MovementSummary = Omit<Movement, 'cues' | 'faults' | 'breath' | 'cautions' | 'phases' | 'how' | 'feel'> & {
  level: number;
};

/** The movement whose figure shows this one. */
export const figureIdOf = ({ id, drawnAs }: Pick<Movement, 'id' | 'drawnAs'>): string => drawnAs ?? id;

export interface MovementList {
  items: MovementSummary[];
  nextCursor: string | null;
  total: number;
}
