import type { Movement } from './schema.js';

/** The movement whose figure shows this one. */
export const figureIdOf = ({ id, drawnAs }: Pick<Movement, 'id' | 'drawnAs'>): string => drawnAs ?? id;
