/** Where a movement's demands fall below what its figure shows: limits go by what is said, so it is named wherever it is said. */
import { useQuery } from '@tanstack/react-query';
import { saysLess, shownIn } from '@waxwing/core/body';
import { amountWords, demandWords, label, type Movement } from '@waxwing/core/movement';
import { useMemo } from 'react';

import { figuresQuery } from '../api/queries';
import { say } from '../words/say';

export function ShowsMore({ figureId, demands }: { figureId: string; demands: Movement['demands'] }) {
  const library = useQuery(figuresQuery).data;
  const shown = useMemo(() => (library ? shownIn(library, figureId) : {}), [library, figureId]);
  const less = saysLess(demands, shown);
  return (
    less.length > 0 && (
      <div role="status" className="border-warning mt-2 border-l-4 pl-3">
        <p className="font-bold">{say.library.figureShowsMore}</p>
        <ul>
          {less.map(({ demand, said, seen }) => (
            <li key={demand}>
              {say.library.shownAndSaid(label(demandWords(demand)), amountWords(seen), amountWords(said))}
            </li>
          ))}
        </ul>
      </div>
    )
  );
}
