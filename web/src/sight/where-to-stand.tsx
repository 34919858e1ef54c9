/** From where to film: what each side lets be seen of this movement. */
import { useQuery } from '@tanstack/react-query';
import { label, type Movement, type View, viewWords } from '@waxwing/core/movement';
import { viewsOf } from '@waxwing/core/sight';

import { faultKindsQuery } from '../api/queries';
import { say } from '../words/say';

const SHOWN: readonly View[] = ['side', 'front', 'back'];

export function WhereToStand({ movement }: { movement: Movement }) {
  const kinds = useQuery(faultKindsQuery).data ?? [];
  const seenFrom = (view: View): string[] =>
    movement.faults
      .filter(({ kind }) => {
        const measure = kinds.find(({ id }) => id === kind)?.measure;
        return measure && measure.positions.includes(movement.position) && viewsOf(measure.of).includes(view);
      })
      .map(({ name }) => name);
  return (
    <section className="max-w-2xl">
      <h2 className="mb-1">{say.sight.whereToFilmFrom}</h2>
      <ul>
        {SHOWN.map((view) => {
          const faults = seenFrom(view);
          const also = view === 'side' ? [say.sight.repsAndDepth] : ['reps'];
          return (
            <li key={view}>
              <strong>{label(viewWords(view))}</strong>:{' '}
              <span className={faults.length === 0 ? 'quiet' : ''}>{[...also, ...faults].join(', ')}</span>
            </li>
          );
        })}
      </ul>
      <p className="quiet mt-1">{say.sight.theWholeBodyInThe}</p>
    </section>
  );
}
