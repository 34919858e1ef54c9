/** With which conditions a movement is left alone, and for which it was marked as suitable, in words. */
import { useQuery } from '@tanstack/react-query';
import type { Movement } from '@waxwing/core/movement';

import { conditionsQuery } from '../api/queries';
import { say } from '../words/say';

export function Rulings({ movement: { notFor, suits } }: { movement: Pick<Movement, 'notFor' | 'suits'> }) {
  const { data: conditions = [] } = useQuery(conditionsQuery);
  const named = (ids: readonly string[]) => conditions.filter(({ id }) => ids.includes(id)).map(({ name }) => name);
  const ruledOut = named(notFor);
  const suitable = named(suits);
  return (
    <>
      {ruledOut.length > 0 && (
        <p className="mt-2">
          <span className="font-bold">{say.library.leftAloneWith}</span> {ruledOut.join(' · ')}
        </p>
      )}
      {suitable.length > 0 && (
        <p className="mt-2">
          <span className="font-bold">{say.library.suitableWith}</span> {suitable.join(' · ')}
        </p>
      )}
    </>
  );
}
