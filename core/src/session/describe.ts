/** What an event says, in a few words: for undo, for the running log and for the review. */
import { inWords } from '../movement/words.js';
import type { SessionEvent } from './events.js';
import type { FindMovement } from './record.js';

const OUTCOME_WORDS = { fixed: 'fixed', better: 'better', same: 'no change', worse: 'worse' } as const;

/** `12 reps left`, `fault: knees cave in`. Movements that are not at hand are named by id. */
export function describe(event: SessionEvent, log: readonly SessionEvent[], find: FindMovement): string {
  const movementOf = (entryId: string | null) => {
    const start = log.find((other) => other.id === entryId);
    return start?.type === 'movement-started' ? find(start.data.movementId) : undefined;
  };
  switch (event.type) {
    case 'movement-started':
      return `${find(event.data.movementId)?.name ?? inWords(event.data.movementId)}${event.data.why ? ` (${event.data.why})` : ''}`;
    case 'set-done': {
      const { amount, side, loadLabel, entryId } = event.data;
      const unit = movementOf(entryId)?.dose.mode === 'time' ? 's' : 'reps';
      return `set: ${amount} ${unit}${side === 'both' ? '' : ` ${side}`}${loadLabel ? ` with ${loadLabel}` : ''}`;
    }
    case 'effort-felt':
      return `felt ${event.data.effort}`;
    case 'fault-seen': {
      const fault = movementOf(event.data.entryId)?.faults.find((f) => f.id === event.data.faultId);
      return `fault: ${(fault?.name ?? inWords(event.data.faultId)).toLowerCase()}`;
    }
    case 'correction-given': {
      const { entryId, faultId, correctionId } = event.data;
      const movement = movementOf(entryId);
      const correction = movement?.faults.find((f) => f.id === faultId)?.corrections.find((c) => c.id === correctionId);
      const cue = movement?.cues.find((c) => c.id === correction?.cueId);
      return `correction: ${cue?.text ?? correction?.text ?? inWords(correctionId)}`;
    }
    case 'outcome-noted':
      return `outcome: ${OUTCOME_WORDS[event.data.outcome]}`;
    case 'pain-reported':
      return `${event.data.quality} pain: ${inWords(event.data.region)}`;
    case 'note-written':
      return `note: ${event.data.text}`;
    case 'undone':
      return 'undo';
    case 'session-finished':
      return 'session finished';
  }
}
