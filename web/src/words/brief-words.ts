/** What to know of somebody before they come, in a few words each. */
import { demandWords, label, type Severity } from '@waxwing/core/movement';
import type { Note } from '@waxwing/core/planning';

import { dayWords } from './dates';
import type { NameOf } from './reasons';
import { say } from './say';

/** How a note is marked: as a fault, as a limit, as a step, or not at all. */
export type NoteMark = Severity | 'limit' | 'up' | null;

const ALLOWED = ['none', 'a little', say.common.upToAClearAmount] as const;

export const NOTE_MARKS: Readonly<Record<Note['code'], NoteMark>> = {
  clearance: 'stop',
  hurt: 'stop',
  limits: 'limit',
  ask: 'limit',
  fault: 'fix',
  ready: 'up',
  left: null,
  away: null,
  'first-time': null,
};

export function noteWords(note: Note, nameOf: NameOf): string {
  switch (note.code) {
    case 'clearance':
      return say.today.waitsForClearanceByA;
    case 'hurt':
      return say.today.hurtAsk(
        note.pain.place === null ? null : say.common.painAt(note.pain.quality, note.pain.place),
        dayWords(note.pain.at),
        namesOf(note.pain.movementIds, nameOf),
      );
    case 'limits':
      return label(note.limits.map(({ demand, allowed }) => `${demandWords(demand)}: ${ALLOWED[allowed]}`).join(' · '));
    case 'ask':
      return say.today.askWhether(note.whom, note.condition);
    case 'fault':
      return say.today.wasStillThere(nameOf(note.movementId), note.fault?.toLowerCase() ?? 'a fault');
    case 'ready':
      return say.today.readyFor(nameOf(note.to).toLowerCase());
    case 'left':
      return say.today.leftOverFromLastTime(namesOf(note.movementIds, nameOf));
    case 'away':
      return say.today.notHereFor(
        note.days >= 21 ? say.today.weeks(Math.round(note.days / 7)) : say.today.days(note.days),
      );
    case 'first-time':
      return say.today.firstSession;
  }
}

const namesOf = (ids: readonly string[], nameOf: NameOf): string => ids.map(nameOf).join(', ').toLowerCase();
