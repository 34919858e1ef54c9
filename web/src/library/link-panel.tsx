/** The links of one movement: where they lead, taking one away, and adding one. A circle is refused and its path shown. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { MovementPage, Neighbour } from '@waxwing/core/ladder';
import { type Direction, type Lever, LEVERS, leverWords, type Link as LadderLink } from '@waxwing/core/movement';
import { useState } from 'react';
import { Link } from 'react-router';

import { call } from '../api/http';
import { libraryKeys } from '../api/keys';
import { movementQuery, movementsQuery } from '../api/queries';
import { Await } from '../shell/states';
import { LadderMark } from '../words/ladder-mark';
import { say } from '../words/say';
import { PickMovement } from './pick-movement';

export interface NewLink {
  from: string;
  to: string;
  direction: Direction;
}

interface Props {
  movementId: string;
  /** A link that was drawn on the map and waits for its lever. */
  drawn: NewLink | null;
  onDrawn: (link: NewLink | null) => void;
  onGo: (id: string) => void;
}

export function LinkPanel(props: Props) {
  return (
    <aside
      aria-label={say.library.links}
      className="border-base-300 max-h-80 w-full shrink-0 overflow-y-auto border-t p-4 lg:max-h-none lg:w-88 lg:border-t-0 lg:border-l"
    >
      <Await query={useQuery(movementQuery(props.movementId))} what={say.library.theLinks}>
        {(page) => <Links {...props} page={page} />}
      </Await>
    </aside>
  );
}

function Links({ page, drawn, onDrawn, onGo }: Props & { page: MovementPage }) {
  const queries = useQueryClient();
  const movements = useQuery(movementsQuery).data ?? [];
  const [problem, setProblem] = useState<string | null>(null);
  const [lever, choose] = useState<Lever>('load');
  const [direction, turn] = useState<Direction>('harder');
  const { id, name } = page.movement;
  const pending = drawn?.from === id ? drawn : null;

  const save = async (owner: MovementPage, links: readonly LadderLink[]) => {
    setProblem(null);
    try {
      await call('PATCH /movements/{id}', {
        id: owner.movement.id,
        body: { version: owner.version, links: [...links] },
      });
      await queries.invalidateQueries({ queryKey: libraryKeys.all });
      onDrawn(null);
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
  };
  const add = (link: NewLink) =>
    void save(page, [...page.movement.links, { to: link.to, direction: link.direction, lever }]);
  // A link is entered at one of its ends: it is taken away there.
  const remove = async (other: Neighbour) => {
    if (page.movement.links.some((link) => link.to === other.to))
      return save(
        page,
        page.movement.links.filter((link) => link.to !== other.to),
      );
    const far = await queries.fetchQuery(movementQuery(other.to));
    return save(
      far,
      far.movement.links.filter((link) => link.to !== id),
    );
  };

  return (
    <>
      <h2 className="border-base-content mb-1 border-b-2 pb-1">
        <Link className="link" to={`/library/${id}`}>
          {name}
        </Link>
      </h2>
      <ul className="ruled">
        {(['harder', 'sideways', 'easier'] as const).flatMap((way) =>
          page[way].map((other) => (
            <li key={other.to} className="flex items-center gap-2 py-1.5">
              <LadderMark direction={way} size={16} />
              <button type="button" className="link min-w-0 flex-1 text-left" onClick={() => onGo(other.to)}>
                {other.name}
                <span className="quiet block text-sm">{leverWords(other.lever, way)}</span>
              </button>
              <button
                type="button"
                className="btn btn-xs btn-ghost"
                aria-label={say.library.removeTheLinkTo(other.name)}
                onClick={() => void remove(other)}
              >
                {say.common.remove}
              </button>
            </li>
          )),
        )}
      </ul>
      {problem && (
        <p role="alert" className="text-error mt-3 font-semibold">
          {problem}
        </p>
      )}
      <fieldset className="mt-5 space-y-2">
        <legend className="mb-1 font-bold">
          {pending
            ? say.library.aLinkTo(movements.find((one) => one.id === pending.to)?.name ?? pending.to)
            : say.library.addALink}
        </legend>
        <div className="flex gap-2">
          {!pending && (
            <select
              className="select"
              aria-label={say.library.directionOfTheLink}
              value={direction}
              onChange={(event) => turn(event.target.value as Direction)}
            >
              <option value="harder">{say.library.harderIs}</option>
              <option value="easier">{say.library.easierIs}</option>
              <option value="sideways">{say.library.equalIs}</option>
            </select>
          )}
          <select
            className="select"
            aria-label={say.library.leverOfTheLink}
            value={lever}
            onChange={(event) => choose(event.target.value as Lever)}
          >
            {LEVERS.map((one) => (
              <option key={one} value={one}>
                {leverWords(one, pending?.direction ?? direction)}
              </option>
            ))}
          </select>
        </div>
        {pending ? (
          <div className="flex gap-2">
            <button type="button" className="btn btn-primary" onClick={() => add(pending)}>
              {say.library.addThisLink}
            </button>
            <button type="button" className="btn btn-ghost" onClick={() => onDrawn(null)}>
              {say.common.cancel}
            </button>
          </div>
        ) : (
          <PickMovement
            title={say.library.movementToLink}
            without={[id]}
            onPick={(to) => add({ from: id, to, direction })}
          />
        )}
      </fieldset>
      <p className="quiet mt-4 text-sm">{say.library.onTheMapArrowKeys}</p>
    </>
  );
}
