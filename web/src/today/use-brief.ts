/** What is to be known of a client now, with the names for it; undefined until everything it rests on is here. */
import { useQueries, useQuery } from '@tanstack/react-query';
import { kitAt, latest, USUAL_AIM } from '@waxwing/core/client';
import { buildCatalog, type Catalog } from '@waxwing/core/ladder';
import type { MovementSummary } from '@waxwing/core/movement';
import { briefOf, type Note } from '@waxwing/core/planning';

import {
  clientOnDayQuery,
  conditionsQuery,
  movementQuery,
  movementsQuery,
  recordQuery,
  studioQuery,
} from '../api/queries';
import { faultIn } from '../plan/fault-in';
import { today } from '../words/dates';

let catalogOf: { movements: readonly MovementSummary[]; catalog: Catalog } | undefined;

/** One catalogue for all rows. */
function sharedCatalog(movements: readonly MovementSummary[]): Catalog {
  if (catalogOf?.movements !== movements) catalogOf = { movements, catalog: buildCatalog(movements) };
  return catalogOf.catalog;
}

export function useBrief(clientId: string): { notes: Note[]; nameOf: (id: string) => string } | undefined {
  const movements = useQuery(movementsQuery).data;
  const studio = useQuery(studioQuery).data;
  const conditions = useQuery(conditionsQuery).data;
  const client = useQuery(clientOnDayQuery(clientId, today())).data;
  const record = useQuery(recordQuery(clientId)).data;
  const faulty = Object.entries(record?.sets ?? {}).flatMap(([id, past]) =>
    latest(past)?.sets.some(({ faults = [] }) => faults.length > 0) ? id : [],
  );
  const pages = useQueries({ queries: faulty.map((id) => movementQuery(id)) });
  if (!movements || !studio || !client || !record || pages.some(({ isPending }) => isPending)) return undefined;
  const { ladder } = sharedCatalog(movements);
  const byId = new Map(movements.map((movement) => [movement.id, movement]));
  const names = Object.fromEntries(
    pages.flatMap(({ data }) => (data ? [[data.movement.id, data.movement.faults] as const] : [])),
  );
  const aim = record.aim ?? USUAL_AIM;
  const notes = briefOf({
    client,
    record,
    purpose: aim.purpose,
    kit: kitAt(aim.place, studio, client),
    ladder,
    find: (id) => byId.get(id),
    faultOf: faultIn(names),
    ...(conditions ? { conditions } : {}),
    now: new Date().toISOString(),
  });
  return { notes, nameOf: (id) => byId.get(id)?.name ?? id };
}
