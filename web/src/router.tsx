/** The addresses of the application. Each screen is its own chunk, so that the first page stays small. */
import type { ComponentType } from 'react';
import { createBrowserRouter, type LoaderFunctionArgs } from 'react-router';
import { cache } from './api/cache';
import { ProblemError } from './api/http';
import {
  clientsQuery,
  houseRulesQuery,
  movementsQuery,
  plansBetweenQuery,
  sessionQuery,
  sessionsBetweenQuery,
  studioQuery,
} from './api/queries';
import { BrokenScreen } from './shell/states';
import { Shell, WHOLE_SCREEN } from './shell/shell';
import { spanAround } from './today/span';
import { dayNumber } from './words/dates';

/** A screen fetched when it is first opened. What cannot be fetched is a server that does not answer, not a broken screen. */
const screen = (load: () => Promise<ComponentType>) => async () => {
  try {
    return { Component: await load() };
  } catch {
    throw new ProblemError(0, 'The server does not answer.');
  }
};

/** What every session rests on is asked for as soon as one may be opened. Nothing waits for it here: the screen says how far it is. */
const floor = () => {
  void cache.prefetchQuery(movementsQuery);
  void cache.prefetchQuery(studioQuery);
  void cache.prefetchQuery(houseRulesQuery);
  return null;
};

/** The day is asked for while its screen is being fetched. */
const day = () => {
  void cache.prefetchQuery(clientsQuery);
  void cache.prefetchQuery(studioQuery);
  void cache.prefetchInfiniteQuery(plansBetweenQuery(...spanAround(dayNumber(new Date()))));
  void cache.prefetchInfiniteQuery(sessionsBetweenQuery(...spanAround(dayNumber(new Date()))));
  return null;
};

/** A session is asked for while its screen is being fetched. */
const session = ({ params: { sessionId = '' } }: LoaderFunctionArgs) => {
  void cache.prefetchQuery({ ...sessionQuery(sessionId), staleTime: 0 });
  return floor();
};

export const router = createBrowserRouter([
  // For who is not in yet.
  {
    path: '/pair',
    ErrorBoundary: BrokenScreen,
    lazy: screen(async () => (await import('./door/pair-screen')).PairScreen),
  },
  {
    path: '/trust',
    ErrorBoundary: BrokenScreen,
    lazy: screen(async () => (await import('./door/trust-screen')).TrustScreen),
  },
  {
    path: '/',
    Component: Shell,
    ErrorBoundary: BrokenScreen,
    children: [
      {
        index: true,
        ErrorBoundary: BrokenScreen,
        loader: day,
        lazy: screen(async () => (await import('./today/today-screen')).TodayScreen),
      },
      {
        ErrorBoundary: BrokenScreen,
        children: [
          { path: 'library', lazy: screen(async () => (await import('./library/library-screen')).LibraryScreen) },
          {
            path: 'library/:movementId',
            lazy: screen(async () => (await import('./library/movement-screen')).MovementScreen),
          },
          { path: 'library/new', lazy: screen(async () => (await import('./library/edit-screen')).NewMovementScreen) },
          {
            path: 'library/compare',
            lazy: screen(async () => (await import('./library/compare-screen')).CompareScreen),
          },
          {
            path: 'library/figures',
            lazy: screen(async () => (await import('./figures/figures-screen')).FiguresScreen),
          },
          { path: 'library/map', lazy: screen(async () => (await import('./library/map-screen')).MapScreen) },
          { path: 'library/health', lazy: screen(async () => (await import('./library/health-screen')).HealthScreen) },
          {
            path: 'library/transfer',
            lazy: screen(async () => (await import('./library/transfer-screen')).TransferScreen),
          },
          {
            path: 'library/:movementId/edit',
            lazy: screen(async () => (await import('./library/edit-screen')).EditMovementScreen),
          },
          {
            path: 'library/:movementId/history',
            lazy: screen(async () => (await import('./library/history-screen')).HistoryScreen),
          },
          {
            path: 'library/:movementId/swap',
            lazy: screen(async () => (await import('./library/swap-screen')).SwapScreen),
          },
          {
            path: 'library/:movementId/card',
            lazy: screen(async () => (await import('./library/card-screen')).CardScreen),
          },
          { path: 'people', lazy: screen(async () => (await import('./people/people-screen')).PeopleScreen) },
          { path: 'people/new', lazy: screen(async () => (await import('./people/person-form')).NewPersonScreen) },
          {
            path: 'people/:clientId',
            lazy: screen(async () => (await import('./people/person-screen')).PersonScreen),
          },
          {
            path: 'people/:clientId/edit',
            lazy: screen(async () => (await import('./people/person-form')).EditPersonScreen),
          },
          { path: 'sight', lazy: screen(async () => (await import('./sight/sight-screen')).SightScreen) },
          { path: 'plan', lazy: screen(async () => (await import('./plan/plans-screen')).PlansScreen) },
          { path: 'plan/new', lazy: screen(async () => (await import('./plan/new-plan')).NewPlanScreen) },
          { path: 'plan/:planId', lazy: screen(async () => (await import('./plan/plan-screen')).PlanScreen) },
          {
            path: 'plan/:planId/sheet/:clientId',
            lazy: screen(async () => (await import('./plan/sheet-screen')).SheetScreen),
          },
          {
            path: 'people/:clientId/today',
            lazy: screen(async () => (await import('./people/check-screen')).CheckScreen),
          },
          { path: 'floor', loader: floor, lazy: screen(async () => (await import('./floor/floor-start')).FloorStart) },
          {
            path: 'floor/:sessionId',
            loader: session,
            lazy: screen(async () => (await import('./floor/floor-screen')).FloorScreen),
          },
          {
            path: 'floor/:sessionId/wall',
            handle: WHOLE_SCREEN,
            loader: session,
            lazy: screen(async () => (await import('./floor/wall-screen')).WallScreen),
          },
          { path: 'review', lazy: screen(async () => (await import('./review/review-list')).ReviewList) },
          {
            path: 'review/:sessionId',
            loader: session,
            lazy: screen(async () => (await import('./review/review-screen')).ReviewScreen),
          },
          { path: 'studio', lazy: screen(async () => (await import('./studio/studio-screen')).StudioScreen) },
          { path: 'studio/audit', lazy: screen(async () => (await import('./door/audit-screen')).AuditScreen) },
          { path: '*', Component: BrokenScreen },
        ],
      },
    ],
  },
]);
