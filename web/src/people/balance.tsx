/** Four weeks of sets against what would balance them, as bars with a mark. */
import { useQuery } from '@tanstack/react-query';
import type { Client } from '@waxwing/core/client';
import { inWords, label, MUSCLES, PLANE_WORDS } from '@waxwing/core/movement';
import { balanceOf, type Part } from '@waxwing/core/planning';
import { useMemo, useState } from 'react';

import { movementsQuery, recordQuery } from '../api/queries';
import { DAY_WORDS } from '../words/day-words';
import { say } from '../words/say';

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
  if (!balance) return <p className="quiet">{say.people.reckoning}</p>;
  if (balance.sets === 0) return <p className="quiet">{say.people.noSetsInTheLast}</p>;
  const most = Math.max(1, ...balance.patterns.flatMap(({ sets, wanted }) => [sets, wanted]));
  const none = MUSCLES.filter((muscle) => !balance.muscles.some(([one]) => one === muscle));
  return (
    <>
      <p className="quiet mb-2">
        {say.people.setsInFourWeeksThe(
          balance.sets,
          client.dayMostly ? say.people.forSomebodyWhoMostly(DAY_WORDS[client.dayMostly]) : '',
        )}
      </p>
      <table className="w-full">
        <caption className="sr-only">{say.people.setsByPattern}</caption>
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
            {short && <strong>{say.people.short}</strong>}
          </span>
        ))}
      </p>
      {none.length > 0 && <p className="quiet mt-1">{say.people.nothingFor(none.map(inWords).join(', '))}</p>}
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
        {sets} <span className="quiet">{say.people.ofAbout(Math.round(wanted))}</span>
        {short && <strong>{say.people.short}</strong>}
      </td>
    </tr>
  );
}
