/** Plans for tests, by whom and with what. */
import { type BlockKind, emptyPlan, type Plan } from '@waxwing/core/planning';
import { v7 as uuidv7 } from 'uuid';

export const lane = (clientId: string, movementId: string, change: object = {}) => ({
  clientId,
  movementId,
  withId: null,
  sets: 3,
  amount: 10,
  tempo: '3-1-1-0',
  rest: 60,
  load: null,
  why: [{ code: 'kept-from-last-time' as const }],
  ...change,
});

/** A dated plan with one block, in which everybody does the same. */
export const planFor = (
  clientIds: string[],
  movements: string[] = ['goblet-squat', 'push-up'],
  change: object = {},
  kind: BlockKind = 'strength',
): Plan => ({
  ...emptyPlan(clientIds, 60),
  name: 'Thursday',
  startsAt: '2030-03-07T16:00:00.000Z',
  blocks: [
    {
      id: uuidv7(),
      kind,
      rounds: 1,
      workSeconds: null,
      items: movements.map((movementId) => ({
        id: uuidv7(),
        locked: false,
        tied: false,
        lanes: clientIds.map((id) => lane(id, movementId)),
      })),
    },
  ],
  ...change,
});
