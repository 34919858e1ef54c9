/** Which events say something of somebody's health, or hold a note: wherever they are written down, their data is sealed. */
import type { SessionEvent } from './events.js';

/** Pain, private notes, and why something was done despite a limit. */
export const isTold = ({ type, data }: SessionEvent): boolean =>
  type === 'pain-reported' || type === 'note-written' || (typeof data === 'object' && 'despite' in data);
