/** A correction that was given, and what came of it once that is known. */
import type { Outcome } from '@waxwing/core/coaching';
import { atStay, type Draft, draft, type LaneView } from '@waxwing/core/floor';
import type { Correction, Fault } from '@waxwing/core/movement';
import { v7 as uuidv7 } from 'uuid';

export const give = (
  view: LaneView,
  fault: Fault,
  correction: Correction,
  addresses: readonly Fault[],
  outcome: Outcome | null,
): Draft[] =>
  atStay(view, uuidv7, (entryId) => {
    const correctionEventId = uuidv7();
    const given = {
      entryId,
      faultId: fault.id,
      correctionId: correction.id,
      addresses: addresses.map((f) => f.id),
    };
    return [
      draft(correctionEventId, 'correction-given', given),
      ...(outcome === null ? [] : [draft(uuidv7(), 'outcome-noted', { correctionEventId, outcome })]),
    ];
  });
