/**
 * Which events say something of somebody's health, or hold a note: wherever they are written down, their data is sealed, and whoever may not know
 * it is told the rest. Here is said what of an event and of a programme is private; what is not named is for everybody who sees the session.
 */
import { heldBackFor } from '../client/pain.js';
import { withoutWords } from '../planning/told.js';
import type { SessionEvent } from './events.js';
import type { Programme } from './run.js';

/** Pain, private notes, and why something was done or changed, such as despite a limit. */
export const isTold = ({ type, data }: SessionEvent): boolean =>
  type === 'pain-reported' ||
  type === 'note-written' ||
  ('despite' in data && data.despite !== undefined) ||
  ('why' in data && data.why !== null);

/** What stands where words were kept for those who train somebody. */
const KEPT_WORDS = 'Kept for the trainer.';
/** Why a movement was changed, where that is not told. */
const OTHERWISE = 'another movement';

/** An event without what is private in it: where it hurts, what was noted, why something was done or changed. */
export function withoutPrivate(event: SessionEvent): SessionEvent {
  switch (event.type) {
    case 'pain-reported': {
      const { type: _, data, ...envelope } = event;
      const { entryId, ...pain } = data;
      return { ...envelope, type: 'held-back', data: { entryId, ...heldBackFor(pain) } };
    }
    case 'note-written':
      return { ...event, data: { text: KEPT_WORDS } };
    case 'set-done':
      return event.data.despite === undefined ? event : { ...event, data: { ...event.data, despite: KEPT_WORDS } };
    case 'movement-started':
      return { ...event, data: { ...event.data, why: withoutReason(event.data.why) } };
    case 'item-added':
      return { ...event, data: { ...event.data, lane: { ...event.data.lane, why: [] } } };
    default:
      return event;
  }
}

/** That there was a reason, and not which. */
export const withoutReason = (why: string | null): string | null => why && OTHERWISE;

/** A programme in the same way. */
export const programmeWithoutPrivate = (programme: Programme): Programme => ({
  ...programme,
  plan: withoutWords(programme.plan),
});
