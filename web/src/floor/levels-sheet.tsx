/** One movement at three levels for everybody, and one that anybody can do: for a class that shares a movement. */
import { heldNow, type LaneView, swapTo } from '@waxwing/core/floor';
import { becauseWords } from '@waxwing/core/formats';
import { fallbackFor, type LevelClient, threeLevels } from '@waxwing/core/ladder';
import { avoidedBy } from '@waxwing/core/progress';
import { useState } from 'react';
import { useContext } from 'react';
import { v7 as uuidv7 } from 'uuid';

import { Dialog } from '../shell/dialog';
import { LadderMark } from '../words/ladder-mark';
import { firstName } from '../words/names';
import { heldWords } from '../words/reasons';
import { say } from '../words/say';
import { TapContext } from './use-tap';

export function LevelsSheet({
  views,
  view,
  onClose,
}: {
  views: readonly LaneView[];
  view: LaneView;
  onClose: () => void;
}) {
  const { catalog, kit } = view;
  const tap = useContext(TapContext);
  // The movement that the sheet was opened for stays the middle of it, whatever is taken.
  const [movement] = useState(view.movement);
  if (!movement) return null;
  const clients = views.map((one): LevelClient => ({
    clientId: one.client.id,
    limits: one.standing.limits,
    avoid: avoidedBy(one.standing),
  }));
  const levels = threeLevels(catalog, movement.id, clients, kit);
  const fallback = fallbackFor(catalog, movement.id, clients, kit);
  const take = (who: LaneView, movementId: string, why: string, aside = false) => {
    if (who.movement?.id !== movementId) void tap(who.client.id, swapTo(who, movementId, why, uuidv7, aside));
  };
  const everybody = (movementId: string) => {
    for (const one of views) take(one, movementId, say.floor.oneForAll, true);
    onClose();
  };
  return (
    <Dialog title={say.floor.threeLevels(movement.name)} onClose={onClose}>
      <ul className="ruled">
        {levels.map(({ clientId, easier, same, hurt, because, harder }) => {
          const who = views.find(({ client }) => client.id === clientId);
          if (!who) return null;
          const held = heldNow(who);
          return (
            <li key={clientId} className="grid gap-2 py-3 sm:grid-cols-[8rem_1fr_1fr_1fr]">
              <span className="self-center font-bold">{firstName(who.client)}</span>
              <Level
                direction="easier"
                name={easier?.name ?? 'nothing easier fits'}
                held={!easier}
                now={who.movement?.id === easier?.id}
                onTake={() => easier && take(who, easier.id, 'easier')}
              />
              <Level
                direction="sideways"
                name={same ? movement.name : `closed: ${hurt ? 'hurt' : becauseWords(because)}`}
                held={!same}
                now={who.movement?.id === movement.id}
                onTake={() => same && take(who, movement.id, say.floor.asPlanned)}
              />
              <Level
                direction="harder"
                name={held ? heldWords(held) : (harder?.name ?? 'nothing harder fits')}
                held={!harder || held !== null}
                now={who.movement?.id === harder?.id}
                onTake={() => harder && !held && take(who, harder.id, 'harder')}
              />
            </li>
          );
        })}
      </ul>
      {fallback && (
        <button type="button" className="btn target mt-4 h-auto w-full py-2" onClick={() => everybody(fallback.id)}>
          {say.floor.everybodyToOpenToAll(fallback.name.toLowerCase())}
        </button>
      )}
    </Dialog>
  );
}

const LEVEL = { easier: 1, sideways: 2, harder: 3 } as const;

function Level({
  direction,
  name,
  held,
  now,
  onTake,
}: {
  direction: 'easier' | 'sideways' | 'harder';
  name: string;
  held: boolean;
  now: boolean;
  onTake: () => void;
}) {
  return (
    <button
      type="button"
      className={`btn target h-auto justify-start gap-2 px-3 py-2 text-left font-normal ${held ? 'held' : ''} ${now ? 'now-mark font-bold' : ''}`}
      aria-disabled={held}
      aria-pressed={now}
      onClick={onTake}
    >
      <LadderMark direction={direction} size={22} />
      <span>
        <span className="font-bold">{LEVEL[direction]}</span> {name}
      </span>
    </button>
  );
}
