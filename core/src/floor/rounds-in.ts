/** As many rounds as go into a time: a round is logged by one tap, and there is always another one while the clock runs. */
import { isPending, type RunStep } from '../session/run.js';
import { endLine, logTurns } from './commands.js';
import { type Draft, draft, type NewId } from './draft.js';
import type { LaneView } from './lane-view.js';
import { isStepOpen } from './next.js';

const stepsIn = ({ steps }: LaneView, blockId: string): RunStep[] => steps.filter(({ block }) => block?.id === blockId);

/** Whole rounds that a client has done in a block: of what is open to them. */
export function roundsDone(view: LaneView, blockId: string): number {
  const own = stepsIn(view, blockId).filter((step) => step.state === 'done' || isStepOpen(view, step));
  const lines = [...new Set(own.map(({ itemId }) => itemId))];
  const done = lines.map((id) => own.filter((step) => step.itemId === id && step.state === 'done').length);
  return done.length === 0 ? 0 : Math.min(...done);
}

/** Logs what is left of the round in hand; where that was the last one, there is one more. */
export function logRound(view: LaneView, blockId: string, newId: NewId): Draft[] {
  const pending = stepsIn(view, blockId).filter(isPending);
  const round = Math.min(...pending.map(({ set }) => set));
  const now = pending.filter(({ set }) => set === round);
  const last = now.every((step) => step.set === step.of);
  return [
    ...logTurns(view, now, { work: 0 }, newId),
    ...(last ? now.map(({ itemId, of }) => draft(newId(), 'sets-changed', { itemId, sets: of + 1 })) : []),
  ];
}

/** Ends a block: what was not begun of it is not to do any more. */
export function endRounds(view: LaneView, blockId: string, newId: NewId): Draft[] {
  const pending = stepsIn(view, blockId).filter(isPending);
  return [...new Set(pending.map(({ itemId }) => itemId))].map((itemId) => endLine(view, itemId, newId));
}
