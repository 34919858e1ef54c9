/** Turns that take longer than their clock gives them: a set of 70 seconds does not go into every minute. */
import { isEvery } from './block-clock.js';
import { laneBySet } from './by-set.js';
import { mapLane, type Plan, type PlanLane, setsOfLane } from './plan.js';
import { laneSeconds } from './timeline.js';
import type { Fix, WarnContext, Warning } from './warnings.js';

/** Seconds that a turn needs beside its work: to get ready for the next one. */
const BREATH = 5;

export function turnWarnings(plan: Pick<Plan, 'blocks'>, { find }: Pick<WarnContext, 'find'>): Warning[] {
  const worked = (lane: PlanLane): number => laneSeconds(lane, { kind: 'strength', workSeconds: null }, { find });
  return plan.blocks.filter(isEvery).flatMap((block) => {
    const every = block.clock?.seconds ?? 0;
    return block.items.flatMap((item) =>
      item.lanes.flatMap((lane): Warning[] => {
        const longest = laneBySet(lane, setsOfLane(block, lane)).toSorted((a, b) => worked(b) - worked(a))[0];
        const seconds = longest ? worked(longest) : 0;
        if (seconds <= every) return [];
        const { clientId, movementId } = lane;
        const amount = fitting(lane, every - BREATH, worked);
        const fixes: Fix[] =
          amount === null
            ? []
            : [
                {
                  does: { code: 'amount', amount, clientId },
                  blocks: mapLane(plan.blocks, item.id, clientId, ({ bySet: _, ...line }) => ({ ...line, amount })),
                },
              ];
        const wrong = { code: 'no-time' as const, movementId, seconds, every };
        return [{ id: `turn ${item.id} ${clientId}`, severity: 'fix', itemId: item.id, wrong, fixes }];
      }),
    );
  });
}

/** As much of a plain line as goes into so many seconds; null where not even one does, and for a composed set. */
function fitting({ bySet: _, ...line }: PlanLane, seconds: number, worked: (lane: PlanLane) => number): number | null {
  if (line.parts) return null;
  for (let amount = line.amount - 1; amount >= 1; amount -= 1)
    if (worked({ ...line, amount }) <= seconds) return amount;
  return null;
}
