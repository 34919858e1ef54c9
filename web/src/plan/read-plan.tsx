/** A plan to read, for somebody who runs the session and does not plan it: block by block, who does what, and the way to the floor. */
import { laneWords } from '@waxwing/core/formats';
import { label } from '@waxwing/core/movement';
import type { StoredPlan } from '@waxwing/core/planning';

import { Still } from '../figures/still';
import { StartSession } from '../floor/start-session';
import { Page, Section } from '../shell/page';
import { dayWords, timeWords } from '../words/dates';
import { say } from '../words/say';
import { namesIn } from './names-in';
import type { World } from './use-world';

export function ReadPlan({ stored, world }: { stored: StoredPlan; world: World }) {
  const { movement: nameOf } = namesIn(world);
  const when = stored.startsAt === null ? '' : `${dayWords(stored.startsAt)}, ${timeWords(stored.startsAt)}`;
  return (
    <Page
      title={stored.name}
      back={{ to: '/plan', name: say.common.plan }}
      about={[
        when,
        say.common.inMinutes(stored.minutes),
        world.place.name,
        world.clients.map(({ name }) => name).join(say.common.and),
      ]
        .filter(Boolean)
        .join(' · ')}
      actions={
        <StartSession clientIds={stored.clientIds} planId={stored.id}>
          {say.common.toTheFloor}
        </StartSession>
      }
    >
      <div className="space-y-8">
        {stored.blocks.map((block) => (
          <Section key={block.id} title={label(block.kind)}>
            <ul className="ruled">
              {block.items.flatMap(({ id, lanes }) =>
                lanes.map((lane) => {
                  const movement = world.context.find(lane.movementId);
                  const who = world.clients.length > 1 && world.clients.find((one) => one.id === lane.clientId)?.name;
                  return (
                    <li key={`${id} ${lane.clientId}`} className="flex items-center gap-4 py-2">
                      {movement && <Still movement={movement} className="h-14 w-14 shrink-0" />}
                      <span className="min-w-0">
                        <span className="block text-lg font-semibold">{nameOf(lane.movementId)}</span>
                        <span className="block">
                          {[who, movement && laneWords(block, lane, movement, nameOf), lane.load?.label]
                            .filter(Boolean)
                            .join(' · ')}
                        </span>
                      </span>
                    </li>
                  );
                }),
              )}
            </ul>
          </Section>
        ))}
        <p className="quiet">{say.plan.thoseWhoTrainTheseClients}</p>
      </div>
    </Page>
  );
}
