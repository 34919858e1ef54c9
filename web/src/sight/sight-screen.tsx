/** Watching a clip: whose it is and of which movement, the clip beside what was read from it, and a second one beside the first. */
import { useQuery } from '@tanstack/react-query';
import type { Movement } from '@waxwing/core/movement';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';

import { clientOnDayQuery, clientsQuery, movementQuery, movementsQuery } from '../api/queries';
import { PickMovement } from '../library/pick-movement';
import { Failed, Loading } from '../shell/states';
import { useSetParam } from '../shell/use-set-param';
import { today } from '../words/dates';
import { Marked } from '../words/marked';
import { say } from '../words/say';
import { DEMO_CLIPS } from './demo-clips';
import { KeptEye } from './kept-eye';
import { Watcher } from './watcher';

export function SightScreen() {
  const [params] = useSearchParams();
  const set = useSetParam();
  const clients = useQuery(clientsQuery).data ?? [];
  const movements = useQuery(movementsQuery).data ?? [];
  const [movementId, clientId] = [params.get('movement') ?? '', params.get('client') ?? ''];
  const trying = !clientId && params.has('clip');
  const name = movements.find(({ id }) => id === movementId)?.name;
  return (
    <div className="page">
      <header className="mb-5">
        <p className="quiet text-sm">
          {clientId ? (
            <Link className="link" to={`/people/${clientId}`}>
              {clients.find(({ id }) => id === clientId)?.name ?? say.common.client}
            </Link>
          ) : (
            <Link className="link" to={movementId ? `/library/${movementId}` : '/library'}>
              {name ?? say.common.library}
            </Link>
          )}
        </p>
        <h1>{say.common.watchAClip}</h1>
        <p className={trying ? 'sr-only' : 'quiet'}>{say.sight.repsDepthTempoAndSome}</p>
      </header>
      <div className={trying ? 'hidden' : 'mb-6 flex flex-wrap items-end gap-4'}>
        <label>
          <span className="mb-1 block text-sm font-bold">{say.sight.who}</span>
          <select className="select w-64" value={clientId} onChange={(event) => set('client', event.target.value)}>
            <option value="">{say.sight.aDrawnFigureToTry}</option>
            {clients.map((client) => (
              <option key={client.id} value={client.id}>
                {client.name}
              </option>
            ))}
          </select>
        </label>
        {clientId && (
          <div>
            <span className="mb-1 block text-sm font-bold">{say.sight.movement(name ? `: ${name}` : '')}</span>
            <PickMovement
              title={name ? say.sight.anotherMovement : say.sight.typeAMovement}
              without={movementId ? [movementId] : []}
              onPick={(id) => set('movement', id)}
            />
          </div>
        )}
      </div>
      {clientId ? (
        <OfClient key={clientId} clientId={clientId} movementId={movementId} />
      ) : (
        <Tried movementId={movementId} />
      )}
      {!trying && <KeptEye />}
    </div>
  );
}

/** The clips that ship: anybody may try them. */
function Tried({ movementId }: { movementId: string }) {
  const set = useSetParam();
  const [params] = useSearchParams();
  const movements = useQuery(movementsQuery).data ?? [];
  const nameOf = (id: string): string => movements.find((one) => one.id === id)?.name ?? id;
  const chosen = DEMO_CLIPS.find(({ file }) => file === params.get('clip'));
  const own = DEMO_CLIPS.filter((clip) => clip.movementId === movementId);
  const others = DEMO_CLIPS.filter((clip) => clip.movementId !== movementId);
  if (chosen)
    return (
      <OfMovement movementId={chosen.movementId}>
        {(movement) => (
          <Watcher
            key={chosen.file}
            movement={movement}
            source={`/clips/${chosen.file}.webm`}
            onClose={() => set('clip', '')}
          />
        )}
      </OfMovement>
    );
  return (
    <section>
      <h2 className="mb-3">{say.sight.clipsToTry}</h2>
      <ul className="grid gap-3 sm:grid-cols-2 lg:grid-cols-4">
        {[...own, ...others].map(({ file, movementId: id, from, shows }) => (
          <li key={file}>
            <button
              type="button"
              className="border-base-content/40 hover:bg-base-200 target w-full cursor-pointer border p-3 text-left"
              onClick={() => set('clip', file)}
            >
              <span className="block text-lg font-bold">{nameOf(id)}</span>
              <span className="quiet block">
                {from}, {shows}
              </span>
            </button>
          </li>
        ))}
      </ul>
      <p className="quiet mt-5">{say.sight.chooseAClientAboveTo}</p>
    </section>
  );
}

function OfClient({ clientId, movementId }: { clientId: string; movementId: string }) {
  const query = useQuery(clientOnDayQuery(clientId, today()));
  const [beside, setBeside] = useState(false);
  if (query.error) return <Failed error={query.error} />;
  if (!query.data) return <Loading what={say.common.theClient} />;
  const client = query.data;
  if (!client.mayFilm)
    return (
      <p className="max-w-2xl text-lg">
        <Marked
          words={say.sight.hasNotAgreedToBe(client.name)}
          as={(where) => (
            <Link className="link" to={`/people/${clientId}/edit`}>
              {where}
            </Link>
          )}
        />
      </p>
    );
  if (!movementId) return <p className="text-lg">{say.sight.sayWhichMovementItIs}</p>;
  return (
    <OfMovement key={movementId} movementId={movementId}>
      {(movement) => (
        <>
          <div className={beside ? 'grid gap-x-6 gap-y-10 lg:grid-cols-2' : ''}>
            <Watcher movement={movement} client={client} narrow={beside} />
            {beside && <Watcher movement={movement} client={client} narrow />}
          </div>
          <button type="button" className="btn mt-6" onClick={() => setBeside(!beside)}>
            {beside ? say.sight.takeTheSecondClipAway : say.sight.putASecondClipBeside}
          </button>
        </>
      )}
    </OfMovement>
  );
}

function OfMovement({
  movementId,
  children,
}: {
  movementId: string;
  children: (movement: Movement) => React.ReactNode;
}) {
  const query = useQuery(movementQuery(movementId));
  if (query.error) return <Failed error={query.error} />;
  return query.data ? children(query.data.movement) : <Loading what={say.common.theMovement} />;
}
