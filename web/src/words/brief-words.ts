/** What to know of somebody before they come, in a few words each. */
import { demandWords, label, type Severity } from '@waxwing/core/movement';
import type { Note } from '@waxwing/core/planning';
import type { NameOf } from './reasons';

/** How a note is marked: as a fault, as a limit, as a step, or not at all. */
export type NoteMark = Severity | 'limit' | 'up' | null;

const ALLOWED = ['none', 'a little', 'up to a clear amount'] as const;

export const NOTE_MARKS: Readonly<Record<Note['code'], NoteMark>> = {
  clearance: 'stop',
  hurt: 'stop',
  limits: 'limit',
  fault: 'fix',
  ready: 'up',
  left: null,
  away: null,
  'first-time': null,
};

export function noteWords(note: Note, nameOf: NameOf): string {
  switch (note.code) {
    case 'clearance':
      return 'Waits for clearance by a clinician: nothing gets harder';
    case 'hurt':
      return `Hurt last time: ${namesOf(note.movementIds, nameOf)}`;
    case 'limits':
      return label(note.limits.map(({ demand, allowed }) => `${demandWords(demand)}: ${ALLOWED[allowed]}`).join(' · '));
    case 'fault':
      return `${nameOf(note.movementId)}: ${note.fault?.toLowerCase() ?? 'a fault'} was still there`;
    case 'ready':
      return `Ready for ${nameOf(note.to).toLowerCase()}`;
    case 'left':
      return `Left over from last time: ${namesOf(note.movementIds, nameOf)}`;
    case 'away':
      return `Not here for ${note.days >= 21 ? `${Math.round(note.days / 7)} weeks` : `${note.days} days`}`;
    case 'first-time':
      return 'First session';
  }
}

const namesOf = (ids: readonly string[], nameOf: NameOf): string => ids.map(nameOf).join(', ').toLowerCase();
