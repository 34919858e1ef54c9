/** The level of one person on a line of a group: 1 easier, 2 the movement itself, 3 harder; a tap goes to another one. */
import {
  baseOf,
  CLASS_LEVELS,
  classLevels,
  laneAtLevel,
  type Plan,
  type PlanItem,
  type PlanLane,
} from '@waxwing/core/planning';

import { say } from '../words/say';
import { laneRequest } from './edit';
import type { World } from './use-world';

interface Props {
  /** Whom and what it is about, in words. */
  of: string;
  lane: PlanLane;
  item: PlanItem;
  plan: Plan;
  world: World;
  onTake: (lane: PlanLane, baseId: string) => void;
}

export function LevelButtons({ of, lane, item, plan, world, onTake }: Props) {
  const baseId = baseOf(item);
  const request = laneRequest(world, plan, lane.clientId, baseId);
  if (!request) return null;
  const { movements } = classLevels(request);
  return (
    <span role="group" aria-label={say.plan.levelOf(of)} className="flex gap-1">
      {CLASS_LEVELS.map((level) => {
        const id = movements[level];
        const name = world.context.find(id ?? '')?.name;
        const now = id === lane.movementId;
        const take = () => {
          const fresh = laneAtLevel(request, level);
          if (fresh && !now) onTake({ ...fresh, sets: lane.sets, rest: lane.rest }, baseId);
        };
        return (
          <button
            key={level}
            type="button"
            aria-pressed={now}
            aria-label={say.plan.levelNothingOpen(level, name)}
            title={name}
            disabled={id === null}
            className={`btn btn-sm px-2.5 ${now ? 'btn-primary' : ''}`}
            onClick={take}
          >
            {level}
          </button>
        );
      })}
    </span>
  );
}
