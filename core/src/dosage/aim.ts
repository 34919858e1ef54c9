/** The dose window that a set is aimed at. */
import type { DoseWindow, Movement } from '../movement/schema.js';

/** For a movement that came without a window. */
const USUAL: DoseWindow = { low: 8, high: 12, sets: [2, 3], rest: 60 };

/** The strength window when the movement has one, else its first. */
export const aimOf = ({ dose: { windows } }: Pick<Movement, 'dose'>): DoseWindow =>
  windows.strength ?? Object.values(windows)[0] ?? USUAL;
