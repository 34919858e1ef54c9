/** The lanes of a session: everything that they are computed from, fetched ahead and kept, so that nothing on the floor waits for the server. */
import { useQueries, useQuery, useQueryClient, type UseQueryResult } from '@tanstack/react-query';
import { AT_STUDIO, type ClientOnDay, kitWith, placeOf, placesFor } from '@waxwing/core/client';
import type { ClientRecord } from '@waxwing/core/coaching';
import { type LaneView, viewOf } from '@waxwing/core/floor';
import { buildCatalog, type MovementPage } from '@waxwing/core/ladder';
import { movementsOf, roundsIn } from '@waxwing/core/planning';
import { timerAt } from '@waxwing/core/session';
import { useEffect, useMemo, useState } from 'react';

import {
  clientOnDayQuery,
  faultKindsQuery,
  figuresQuery,
  houseRulesQuery,
  movementQuery,
  movementsQuery,
  recordQuery,
  studioQuery,
} from '../api/queries';
import { today } from '../words/dates';
import { useTimed } from './clock';
import { packUp, throwAway } from './pack';
import { JUST_READ_MS, type LiveSession } from './use-session';

const FOREVER = { staleTime: Infinity, gcTime: Infinity };
/** The cache is put down a little after the last thing came in. */
const SETTLED_MS = 1_500;
/** How often is asked whether a limit was recorded meanwhile. */
const LIMITS_MS = 60_000;

const together = <T>(results: UseQueryResult<T>[]) => ({
  data: results.map(({ data }) => data),
  error: results.find(({ error, data }) => error && data === undefined)?.error ?? null,
});

const whole = (results: UseQueryResult<MovementPage>[]) => results.flatMap(({ data }) => data ?? []);

/** The movements of a session, and their neighbours on the ladder: a swap works when the server is gone. */
function usePages({ view, state }: LiveSession): MovementPage[] {
  const wanted = useMemo(() => {
    const planned = (view.programme?.plan.blocks ?? []).flatMap(({ items }) => items.flatMap(({ lanes }) => lanes));
    const lanes = Object.values(state.lanes);
    const added = lanes.flatMap(({ course }) => course.added.map(({ lane }) => lane));
    const done = lanes.flatMap(({ entries }) => entries.map(({ movementId }) => movementId));
    return [...new Set([...[...planned, ...added].flatMap(movementsOf), ...done])];
  }, [view, state]);
  const pages = useQueries({ queries: wanted.map((id) => ({ ...movementQuery(id), ...FOREVER })), combine: whole });
  const near = useMemo(() => {
    const steps = pages.flatMap(({ easier, harder, sideways }) => [...easier, ...harder, ...sideways]);
    return [...new Set(steps.map(({ to }) => to))].filter((id) => !wanted.includes(id));
  }, [pages, wanted]);
  const neighbours = useQueries({ queries: near.map((id) => ({ ...movementQuery(id), ...FOREVER })), combine: whole });
  return useMemo(() => [...pages, ...neighbours], [pages, neighbours]);
}

/** Keeps what the session rests on, until it is over. True once that and the application are on this device. */
function usePacking({ view: { id }, state: { finishedAt } }: LiveSession, pages: readonly MovementPage[]): boolean {
  const queries = useQueryClient();
  const [packed, setPacked] = useState(false);
  useEffect(() => {
    if (finishedAt !== null) {
      void throwAway(id);
      return undefined;
    }
    const pack = async () => {
      const kept = await packUp(id, queries);
      // On a page that may not have one this never comes, and the floor does not say that it works alone.
      await navigator.serviceWorker?.ready;
      setPacked(kept && 'serviceWorker' in navigator);
    };
    const timer = setTimeout(() => void pack(), SETTLED_MS);
    return () => clearTimeout(timer);
  }, [id, finishedAt, queries, pages]);
  return packed;
}

export function useLanes(live: LiveSession): {
  views: LaneView[] | undefined;
  error: Error | null;
  /** It works on without a server, even when the page is opened anew. */
  packed: boolean;
} {
  const { view, state } = live;
  const clients = useQueries({
    // A limit that is recorded meanwhile, wherever, holds soon.
    queries: view.clients.map(({ id }) => ({
      ...clientOnDayQuery(id, today()),
      gcTime: Infinity,
      staleTime: JUST_READ_MS,
      refetchInterval: LIMITS_MS,
    })),
    combine: together<ClientOnDay>,
  });
  const records = useQueries({
    queries: view.clients.map(({ id }) => ({ ...recordQuery(id), ...FOREVER })),
    combine: together<ClientRecord>,
  });
  const { data: studio, ...studioState } = useQuery({ ...studioQuery, ...FOREVER });
  const { data: rules, ...rulesState } = useQuery(houseRulesQuery);
  const { data: movements, ...movementsState } = useQuery({ ...movementsQuery, ...FOREVER });
  // So that a demonstration, or a fault that is looked up, does not need the server either.
  useQuery(figuresQuery);
  useQuery(faultKindsQuery);
  const catalog = useMemo(() => buildCatalog(movements ?? []), [movements]);
  const pages = usePages(live);
  const packed = usePacking(live, pages);
  const clock = state.clocks.at(-1);
  const turn = useTimed((now) => (clock?.stoppedAt === null ? timerAt(clock, now).piece : -1));

  // Within a time for as many rounds as go, everybody goes on by themselves.
  const block = view.programme?.plan.blocks.find(({ id }) => id === clock?.blockId);
  const free = block !== undefined && roundsIn(block) !== null;

  const views = useMemo(() => {
    if (!studio || !rules || !movements) return undefined;
    const byId = new Map(pages.map((page) => [page.movement.id, page]));
    const people = clients.data.flatMap((client) => client ?? []);
    const { kit, ...where } = placeOf(state.place ?? view.programme?.plan.place ?? AT_STUDIO, studio, people);
    const places = placesFor(studio, people);
    const place = { ...where, kit: kitWith(kit, state.brought) };
    const lanes = view.clients.flatMap(({ id }, i) => {
      const [client, record, lane] = [clients.data[i], records.data[i], state.lanes[id]];
      if (!client || !record || !lane) return [];
      return viewOf({
        lane,
        client,
        record,
        studio,
        place,
        places,
        rules,
        movements,
        catalog,
        programme: view.programme,
        clock: clock?.blockId && turn >= 0 && !free ? { blockId: clock.blockId, turn, timer: clock } : null,
        pageOf: (movementId) => byId.get(movementId),
      });
    });
    return lanes.length === view.clients.length ? lanes : undefined;
  }, [view, state, clients.data, records.data, studio, rules, movements, catalog, pages, clock, turn, free]);
  const error = clients.error ?? records.error ?? studioState.error ?? rulesState.error ?? movementsState.error;
  return { views, error, packed };
}
