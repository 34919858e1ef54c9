/** Stations: where kit is short, who is where when, so that no two want one piece and nobody waits more than needed. */
import { label } from '@waxwing/core/movement';
import {
  type Block,
  laneBySet,
  laneSeconds,
  mayRotate,
  minuteWords,
  type Plan,
  rotationOf,
  setsOfLane,
  waits,
} from '@waxwing/core/planning';
import { useMemo } from 'react';

import { say } from '../words/say';
import { itemName } from './tape';
import type { World } from './use-world';

export function Stations({ plan, world }: { plan: Plan; world: World }) {
  const blocks = plan.blocks.filter(mayRotate);
  if (blocks.length === 0) return null;
  return (
    <section aria-label={say.plan.stations}>
      <h2 className="border-base-content mb-2 border-b-2 pb-1">{say.plan.asStations}</h2>
      <p className="quiet mb-3">{say.plan.everybodyGoesRoundTheLines}</p>
      {blocks.map((block) => (
        <Rotation key={block.id} block={block} plan={plan} world={world} />
      ))}
    </section>
  );
}

function Rotation({ block, plan, world }: { block: Block; plan: Plan; world: World }) {
  const { kit } = world.place;
  const rotation = useMemo(
    () => rotationOf(block, plan.clientIds, kit, world.context),
    [block, plan.clientIds, kit, world.context],
  );
  if (!rotation) return null;
  const slot = Math.max(
    ...block.items.flatMap(({ lanes }) =>
      lanes.map((lane) =>
        laneBySet(lane, setsOfLane(block, lane)).reduce(
          (sum, one, i) => sum + laneSeconds(one, block, world.context, i + 1) + one.rest,
          0,
        ),
      ),
    ),
  );
  /** What somebody does at a place; a line that they are not on is a rest as well. */
  const laneAt = (at: number | null, who: number): string => {
    const item = at === null ? undefined : block.items[at];
    const lanes = item?.lanes.filter(({ clientId }) => clientId === plan.clientIds[who]) ?? [];
    return item && lanes.length > 0 ? itemName({ ...item, lanes }, world) : 'rests';
  };
  const idle = waits(rotation, plan.clientIds.length).reduce((sum, n) => sum + n, 0);
  return (
    <div className="mb-4 overflow-x-auto">
      <table className="table-sm table w-auto">
        <caption className="text-left font-bold">
          {say.plan.turnsOfOfThemWaiting(label(block.kind), rotation.length, minuteWords(slot), idle)}
        </caption>
        <thead>
          <tr>
            <th scope="col">{say.plan.fromMinuteTitle}</th>
            {world.clients.map(({ id, name }) => (
              <th key={id} scope="col">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rotation.map((places, i) => (
            <tr key={i}>
              <th scope="row">{Math.round((i * slot) / 60)}</th>
              {places.map((item, who) => (
                <td key={who} className={item === null ? 'quiet' : ''}>
                  {laneAt(item, who)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
