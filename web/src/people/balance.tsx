/** Four weeks of sets against what would balance them, as bars with a mark. */
import type { Client } from '@waxwing/core/client';
import { inWords, label, MUSCLES, PLANE_WORDS } from '@waxwing/core/movement';
import { balanceOf, type Part } from '@waxwing/core/planning';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { movementsQuery, recordQuery } from '../api/queries';
import { DAY_WORDS } from '../words/day-words';

export function BalanceOfWeeks({ client }: { client: Client }) {
  const movements = useQuery(movementsQuery).data;
  const record = useQuery(recordQuery(client.id)).data;
  const [now] = useState(() => new Date().toISOString());
  const balance = useMemo(() => {
    if (!movements || !record) return undefined;
    const byId = new Map(movements.map((movement) => [movement.id, movement]));
    const people = [{ sets: record.sets, day: client.dayMostly }];
    return balanceOf({ people, aim: 'strength', find: (id) => byId.get(id), now });
  }, [movements, record, client.dayMostly, now]);
  if (!balance) return <p className="quiet">Reckoning …</p>;
  if (balance.sets === 0) return <p className="quiet">No sets in the last four weeks.</p>;
  const most = Math.max(1, ...balance.patterns.flatMap(({ sets, wanted }) => [sets, wanted]));
  const none = MUSCLES.filter((muscle) => !balance.muscles.some(([one]) => one === muscle));
  return (
    <>
      <p className="quiet mb-2">
        {balance.sets} sets in four weeks. The mark is what would balance them
        {client.dayMostly ? ` for somebody who mostly ${DAY_WORDS[client.dayMostly]}` : ''}.
      </p>
      <table className="w-full">
        <caption className="sr-only">Sets by pattern</caption>
        <tbody>
          {balance.patterns.map((part) => (
            <Bar key={part.of} name={label(part.of)} part={part} most={most} />
          ))}
        </tbody>
      </table>
      <p className="mt-2">
        {balance.planes.map(({ of, sets, short }) => (
          <span key={of} className="mr-4 inline-block">
            {PLANE_WORDS[of]} {sets}
            {short && <strong> · short</strong>}
          </span>
        ))}
      </p>
      {none.length > 0 && <p className="quiet mt-1">Nothing for: {none.map(inWords).join(', ')}.</p>}
    </>
  );
}

/** One row: sets as a bar, and the mark of what is wanted. */
function Bar({ name, part: { sets, wanted, short }, most }: { name: string; part: Part<string>; most: number }) {
  const share = (n: number) => `${(n / most) * 100}%`;
  return (
    <tr>
      <th scope="row" className="w-20 pr-3 text-left font-normal">
        {name}
      </th>
      <td className="py-1">
        <div aria-hidden className="bg-base-200 relative h-5">
          <div className="h-full bg-current/45" style={{ width: share(sets) }} />
          <div
            className="border-base-content absolute top-[-3px] bottom-[-3px] border-l-4"
            style={{ left: share(wanted) }}
          />
        </div>
      </td>
      <td className="w-44 pl-3 whitespace-nowrap tabular-nums">
        {sets} <span className="quiet">of about {Math.round(wanted)}</span>
        {short && <strong> short</strong>}
      </td>
    </tr>
  );
}
