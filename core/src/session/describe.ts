/** What an event says, in a few words: for undo, for the running log and for the review. */
import { painPlace } from '../client/pain.js';
import { partsWords } from '../dosage/parts.js';
import { weightWords } from '../movement/kit.js';
import { causeWords, inWords, spokenOf, viewWords } from '../movement/words.js';
import { type FindMovement, movementIn } from './digest.js';
import type { SessionEvent, SetSide } from './events.js';

const OUTCOME_WORDS = { fixed: 'fixed', better: 'better', same: 'no change', worse: 'worse' } as const;

const MARK_WORDS = {
  'fewer-sets': 'fewer sets',
  easier: 'an easier movement',
  stretch: 'on to the stretch',
  nothing: 'went on',
} as const;

const sideWords = (side: SetSide): string => (side === 'both' ? '' : ` ${side}`);

/** `12 reps left`, `fault: knees cave in`. Movements that are not at hand are named by id. */
export function describe(event: SessionEvent, log: readonly SessionEvent[], find: FindMovement): string {
  const movementOf = (entryId: string | null) => {
    const start = log.find((other) => other.id === entryId);
    return start?.type === 'movement-started' ? movementIn(start.data, find) : undefined;
  };
  const nameOf = (id: string) => find(id)?.name ?? inWords(id);
  /** What a line of the session holds: what was begun or put in for it last. */
  const lineName = (itemId: string): string => {
    const last = log.findLast(
      (other) =>
        (other.type === 'movement-started' && other.data.itemId === itemId) ||
        (other.type === 'item-added' && other.data.itemId === itemId),
    );
    if (last?.type === 'movement-started') return nameOf(last.data.movementId);
    return last?.type === 'item-added' ? nameOf(last.data.lane.movementId) : 'a line of the plan';
  };
  switch (event.type) {
    case 'movement-started':
      return `${nameOf(event.data.movementId)}${event.data.withId ? ` with ${nameOf(event.data.withId).toLowerCase()}` : ''}${event.data.why ? ` (${event.data.why})` : ''}`;
    case 'set-done': {
      const { amount, side, loadLabel, entryId, despite, uncounted, pieces, parts, test } = event.data;
      const timed = uncounted || movementOf(entryId)?.dose.mode === 'time';
      const how = uncounted
        ? ' by the clock'
        : pieces
          ? ` in pieces (${pieces.join(' + ')}, longest ${Math.max(...pieces)} s)`
          : '';
      const what = parts ? partsWords(parts) : `${amount} ${timed ? 's' : 'reps'}${how}`;
      return `${test ? `test (${test.name})` : 'set'}: ${what}${sideWords(side)}${loadLabel ? ` with ${loadLabel}` : ''}${despite ? `, all the same (${despite})` : ''}`;
    }
    case 'effort-felt':
      return `felt ${event.data.effort}`;
    case 'fault-seen': {
      const fault = movementOf(event.data.entryId)?.faults.find((f) => f.id === event.data.faultId);
      return `fault: ${(fault?.name ?? inWords(event.data.faultId)).toLowerCase()}`;
    }
    case 'cause-named':
      return `${event.data.holds ? 'cause' : 'not the cause'}: ${causeWords(event.data.cause)}`;
    case 'correction-given': {
      const { entryId, faultId, correctionId } = event.data;
      const movement = movementOf(entryId);
      const correction = movement?.faults.find((f) => f.id === faultId)?.corrections.find((c) => c.id === correctionId);
      const words = correction && (spokenOf(correction, movement?.cues ?? []) ?? correction.do);
      return `correction: ${words ?? inWords(correctionId)}`;
    }
    case 'outcome-noted':
      return `outcome: ${OUTCOME_WORDS[event.data.outcome]}`;
    case 'pain-reported':
      return `${event.data.quality} pain: ${painPlace(event.data)}`;
    case 'held-back':
      return `${event.data.quality} pain`;
    case 'note-written':
      return `note: ${event.data.text}`;
    case 'set-up-noted': {
      const { movementId, measure, value } = event.data;
      return `set-up for ${nameOf(movementId)}: ${inWords(measure)} ${value || 'taken out'}`;
    }
    case 'left-for-next':
      return `kept for next time: ${event.data.movementIds.map(nameOf).join(', ')}`;
    case 'undone':
      return 'undo';
    case 'rep-counted':
      return `rep counted${sideWords(event.data.side)}`;
    case 'stood':
      return `stood ${viewWords(event.data.view).toLowerCase()}`;
    case 'set-corrected': {
      const { amount, loadLabel } = event.data;
      return `set corrected: ${amount}${loadLabel ? ` with ${loadLabel}` : ''}`;
    }
    case 'mark-noted':
      return `mark for today: ${MARK_WORDS[event.data.took]}`;
    case 'drop-done': {
      const { amount, loadLabel } = event.data;
      return amount > 0 ? `went on: ${amount}${loadLabel ? ` with ${loadLabel}` : ''}` : 'no lighter weight';
    }
    case 'timer-started':
      return event.data.count > 1 ? `clock: ${event.data.count} × ${event.data.work} s` : `timer: ${event.data.work} s`;
    case 'timer-paused':
      return 'timer paused';
    case 'timer-resumed':
      return 'timer goes on';
    case 'timer-extended':
      return 'timer goes on beyond its time';
    case 'timer-stopped':
      return 'timer stopped';
    case 'item-added':
      return `put in: ${nameOf(event.data.lane.movementId)}`;
    case 'item-dropped':
      return `left out: ${lineName(event.data.itemId)}`;
    case 'sets-changed':
      return `sets now ${event.data.sets}: ${lineName(event.data.itemId)}`;
    case 'dose-changed':
      return `next: ${event.data.parts ? partsWords(event.data.parts) : event.data.amount}${event.data.load ? ` with ${event.data.load.label}` : ''}`;
    case 'step-skipped':
      return `set ${event.data.set} left out: ${lineName(event.data.itemId)}`;
    case 'gone-to':
      return `went to ${lineName(event.data.itemId)}`;
    case 'place-changed':
      return 'went to another place';
    case 'weight-brought':
      return `brought: ${weightWords(event.data.kg, event.data.unit)} ${inWords(event.data.item)}`;
    case 'session-paused':
      return 'break';
    case 'session-resumed':
      return 'break over';
    case 'session-finished':
      return 'session finished';
  }
}
