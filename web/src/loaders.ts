/** What an address asks for while its screen is being fetched. Nothing waits for it here: the screen says how far it is. */
import type { LoaderFunctionArgs } from 'react-router';

import { cache } from './api/cache';
import {
  clientOnDayQuery,
  clientsQuery,
  faultKindsQuery,
  houseRulesQuery,
  movementQuery,
  movementsQuery,
  planQuery,
  plansBetweenQuery,
  plansQuery,
  recordQuery,
  sessionQuery,
  sessionsBetweenQuery,
  sessionsQuery,
  stillsQuery,
  studioQuery,
} from './api/queries';
import { spanAround } from './today/span';
import { dayNumber, today } from './words/dates';

type Address = Pick<LoaderFunctionArgs, 'params'>;

export function dayLoader(): null {
  void cache.prefetchQuery(clientsQuery);
  void cache.prefetchQuery(studioQuery);
  void cache.prefetchInfiniteQuery(plansBetweenQuery(...spanAround(dayNumber(new Date()))));
  void cache.prefetchInfiniteQuery(sessionsBetweenQuery(...spanAround(dayNumber(new Date()))));
  return null;
}

export function libraryLoader(): null {
  void cache.prefetchQuery(movementsQuery);
  void cache.prefetchQuery(stillsQuery);
  return null;
}

export function movementLoader({ params: { movementId = '' } }: Address): null {
  void cache.prefetchQuery(movementQuery(movementId));
  void cache.prefetchQuery(faultKindsQuery);
  return libraryLoader();
}

export function peopleLoader(): null {
  void cache.prefetchQuery(clientsQuery);
  return null;
}

/** What everybody may know of a client; their file is asked for by the screen, of who may read it. */
export function personLoader({ params: { clientId = '' } }: Address): null {
  void cache.prefetchQuery(clientOnDayQuery(clientId, today()));
  void cache.prefetchQuery(recordQuery(clientId));
  return libraryLoader();
}

export function plansLoader(): null {
  void cache.prefetchInfiniteQuery(plansQuery('plans'));
  void cache.prefetchInfiniteQuery(plansQuery('templates'));
  return null;
}

export function planLoader({ params: { planId = '' } }: Address): null {
  void cache.prefetchQuery(planQuery(planId));
  return floorLoader();
}

/** What every session rests on is asked for as soon as one may be opened. */
export function floorLoader(): null {
  void cache.prefetchQuery(studioQuery);
  void cache.prefetchQuery(houseRulesQuery);
  return libraryLoader();
}

export function sessionLoader({ params: { sessionId = '' } }: Address): null {
  void cache.prefetchQuery({ ...sessionQuery(sessionId), staleTime: 0 });
  return floorLoader();
}

export function reviewsLoader(): null {
  void cache.prefetchInfiniteQuery(sessionsQuery({ status: 'finished' }));
  void cache.prefetchQuery(movementsQuery);
  return null;
}
