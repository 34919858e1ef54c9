/** How far somebody has come, at a glance: attendance, rungs climbed, weights, and faults that went. */
import { useQuery } from '@tanstack/react-query';
import type { Client, ClientSummary } from '@waxwing/core/client';
import { buildCatalog } from '@waxwing/core/ladder';
import { label, weightWords } from '@waxwing/core/movement';
import { type FaultTrend, headwayOf } from '@waxwing/core/progress';
import { type ReactNode, useMemo } from 'react';

import { clientsQuery, movementsQuery, recordQuery } from '../api/queries';
import { agoWords } from '../words/dates';
import { say } from '../words/say';
import { WeeksLine } from './weeks-line';

/** Lines under each of them. */
const MOST = 3;

/** @param unit the client's own */
export function HeadwayStrip({ clientId, unit }: { clientId: string; unit: Client['unit'] }) {
  const movements = useQuery(movementsQuery).data;
  const record = useQuery(recordQuery(clientId)).data;
  const client = useQuery(clientsQuery).data?.find(({ id }) => id === clientId);
  const headway = useMemo(() => {
    if (!movements || !record) return undefined;
    const byId = new Map(movements.map((movement) => [movement.id, movement]));
    return headwayOf(record, (id) => byId.get(id), buildCatalog(movements).ladder);
  }, [movements, record]);
  const nameOf = (id: string) => movements?.find((one) => one.id === id)?.name ?? id;
  const weight = (kg: number) => weightWords(kg, unit === 'lb' ? 'lb' : null);
  const climbed = headway?.climbs.filter(({ levels }) => levels > 0) ?? [];
  return (
    <section
      aria-label={say.people.howFarTheyHaveCome}
      className="mb-8 grid min-h-36 gap-x-8 gap-y-5 sm:grid-cols-2 xl:grid-cols-4"
    >
      <Column title={say.common.sessions} figure={client ? String(client.came.length) : '–'} unit={say.people.in8Weeks}>
        {client && <Attendance client={client} />}
      </Column>
      <Column
        title={say.people.rungsClimbed}
        figure={headway ? String(climbed.reduce((sum, { levels }) => sum + levels, 0)) : '–'}
        unit={climbed.length === 0 ? say.people.soFar : say.people.inFamilies(climbed.length)}
      >
        <ul>
          {climbed.slice(0, MOST).map(({ family, to, levels }) => (
            <li key={family}>
              {label(family)} +{levels}: <span className="quiet">{nameOf(to).toLowerCase()}</span>
            </li>
          ))}
        </ul>
      </Column>
      <Column
        title={say.common.heavier}
        figure={headway ? String(headway.gains.length) : '–'}
        unit={headway?.gains.length === 1 ? say.people.movement : say.common.movements}
      >
        <ul>
          {headway?.gains.slice(0, MOST).map(({ movementId, from, to }) => (
            <li key={movementId}>
              {nameOf(movementId)}:{' '}
              <span className="whitespace-nowrap">
                {weight(from)} → <b>{weight(to)}</b>
              </span>
            </li>
          ))}
        </ul>
      </Column>
      <Column
        title={say.common.faults}
        figure={headway?.faults ? oneDigit(headway.faults.lately) : '–'}
        unit={headway?.faults ? say.people.in10SetsLately : say.people.tooFewSessionsYet}
      >
        {headway?.faults && <Trend trend={headway.faults} />}
      </Column>
    </section>
  );
}

const oneDigit = (n: number): string => n.toFixed(1).replace('.0', '');

function Column({
  title,
  figure,
  unit,
  children,
}: {
  title: string;
  figure: string;
  unit: string;
  children: ReactNode;
}) {
  return (
    <div className="border-base-content min-w-0 border-t-2 pt-1">
      <h2 className="text-base">{title}</h2>
      <p>
        <span className="text-4xl font-bold">{figure}</span> <span className="quiet">{unit}</span>
      </p>
      <div className="mt-1 leading-snug">{children}</div>
    </div>
  );
}

const Attendance = ({ client: { came, last } }: { client: ClientSummary }) => (
  <div className="flex items-end gap-3">
    <WeeksLine came={came} now={new Date()} />
    <span className="quiet">{last ? say.people.last(agoWords(last)) : say.people.notHereYet}</span>
  </div>
);

const [WIDTH, HEIGHT] = [150, 30] as const;

/** Faults in ten sets, session by session, as a line. */
function Trend({ trend: { first, lately, series } }: { trend: FaultTrend }) {
  const most = Math.max(1, ...series);
  const x = (i: number) => (i / Math.max(1, series.length - 1)) * (WIDTH - 4) + 2;
  const y = (n: number) => HEIGHT - 3 - (n / most) * (HEIGHT - 6);
  return (
    <div className="flex items-end gap-3">
      <svg
        width={WIDTH}
        height={HEIGHT}
        role="img"
        aria-label={say.people.faultsInTenSetsBy(series.map((n) => oneDigit(n)).join(', '))}
      >
        <polyline
          points={series.map((n, i) => `${x(i)},${y(n)}`).join(' ')}
          fill="none"
          stroke="currentColor"
          strokeWidth="2"
        />
      </svg>
      <span className="quiet whitespace-nowrap">
        {lately < first ? say.people.from(oneDigit(first)) : say.people.first(oneDigit(first))}
      </span>
    </div>
  );
}
