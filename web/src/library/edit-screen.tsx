/** The form for a movement that exists, and for one that does not: from nothing, or from another movement. */
import { useQuery } from '@tanstack/react-query';
import type { MovementPage } from '@waxwing/core/ladder';
import { figureIdOf } from '@waxwing/core/movement';
import { useParams, useSearchParams } from 'react-router';

import { movementQuery } from '../api/queries';
import { Await } from '../shell/states';
import { say } from '../words/say';
import { BLANK, type Fields, fieldsOf } from './movement-fields';
import { MovementForm } from './movement-form';

export function EditMovementScreen() {
  const { movementId = '' } = useParams();
  const at = useSearchParams()[0].get('at') ?? '';
  // What is being changed must not change under the fingers: the version decides at saving.
  const query = useQuery({ ...movementQuery(movementId), staleTime: Infinity, refetchOnMount: 'always' });
  return (
    <Await
      query={query.isFetchedAfterMount ? query : { ...query, data: undefined, error: query.error }}
      what={say.common.theMovement}
    >
      {(page) => (
        <MovementForm
          key={movementId}
          title={say.library.edit(page.movement.name)}
          start={fieldsOf(page.movement)}
          saved={page}
          draftKey={movementId}
          at={at}
        />
      )}
    </Await>
  );
}

export function NewMovementScreen() {
  const [params, setParams] = useSearchParams();
  const from = params.get('from') ?? '';
  const query = useQuery({ ...movementQuery(from), enabled: from !== '' });
  if (from === '')
    return <MovementForm title={say.library.newMovement} start={BLANK} saved={undefined} draftKey="new" at="" />;
  const as = params.get('as') ?? '';
  return (
    <Await query={query} what={say.common.theMovement}>
      {(page) =>
        as === '' ? (
          <AskAs name={page.movement.name} onChoose={(choice) => setParams({ from, as: choice }, { replace: true })} />
        ) : (
          <MovementForm
            title={say.library.fromMovement(page.movement.name)}
            start={copyOf(page, as)}
            saved={undefined}
            draftKey={say.library.newFrom(as, from)}
            at=""
          />
        )
      }
    </Await>
  );
}

/** What the copy shall be to the original, so that its link is there from the start. */
function AskAs({ name, onChoose }: { name: string; onChoose: (as: string) => void }) {
  return (
    <div className="page page-reading">
      <h1 className="mb-4">{say.library.aMovementMadeFrom(name.toLowerCase())}</h1>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="btn btn-lg" onClick={() => onChoose('easier')}>
          {say.library.anEasierVersion}
        </button>
        <button type="button" className="btn btn-lg" onClick={() => onChoose('harder')}>
          {say.library.aHarderVersion}
        </button>
        <button type="button" className="btn btn-lg" onClick={() => onChoose('copy')}>
          {say.library.aCopyNotLinked}
        </button>
      </div>
    </div>
  );
}

function copyOf({ movement }: MovementPage, as: string): Fields {
  const copy = fieldsOf(movement);
  const linked = as === 'easier' || as === 'harder';
  return {
    ...copy,
    name: linked ? `${movement.name}, ${as}` : `${movement.name}, copy`,
    aliases: '',
    drawnAs: figureIdOf(movement),
    links: linked
      ? [
          {
            to: movement.id,
            // Seen from the new movement, the original is the other way.
            direction: as === 'easier' ? 'harder' : 'easier',
            lever: 'assistance',
            readyAmount: 0,
            readySets: 2,
            readyEffort: 'medium',
            readySessions: 2,
            backWhen: undefined,
          },
        ]
      : [],
  };
}
