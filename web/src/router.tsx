/** The addresses of the application. Each screen is its own chunk, so that the first page stays small. */
import type { ComponentType } from 'react';
import { createBrowserRouter } from 'react-router';

import { ProblemError } from './api/http';
import {
  dayLoader,
  floorLoader,
  libraryLoader,
  movementLoader,
  peopleLoader,
  personLoader,
  planLoader,
  plansLoader,
  reviewsLoader,
  sessionLoader,
} from './loaders';
import { Shell, WHOLE_SCREEN } from './shell/shell';
import { BrokenScreen } from './shell/states';
import { say } from './words/say';

/** A screen fetched when it is first opened. What cannot be fetched is a server that does not answer, not a broken screen. */
const screen = (load: () => Promise<ComponentType>) => async () => {
  try {
    return { Component: await load() };
  } catch {
    throw new ProblemError(0, say.shell.theServerDoesNotAnswer);
  }
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
        loader: dayLoader,
        lazy: screen(async () => (await import('./today/today-screen')).TodayScreen),
      },
      {
        ErrorBoundary: BrokenScreen,
        children: [
          {
            path: 'library',
            loader: libraryLoader,
            lazy: screen(async () => (await import('./library/library-screen')).LibraryScreen),
          },
          {
            path: 'library/:movementId',
            loader: movementLoader,
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
          {
            path: 'library/map',
            loader: libraryLoader,
            lazy: screen(async () => (await import('./library/map-screen')).MapScreen),
          },
          { path: 'library/health', lazy: screen(async () => (await import('./library/health-screen')).HealthScreen) },
          {
            path: 'library/transfer',
            lazy: screen(async () => (await import('./library/transfer-screen')).TransferScreen),
          },
          {
            path: 'library/:movementId/edit',
            loader: movementLoader,
            lazy: screen(async () => (await import('./library/edit-screen')).EditMovementScreen),
          },
          {
            path: 'library/:movementId/history',
            lazy: screen(async () => (await import('./library/history-screen')).HistoryScreen),
          },
          {
            path: 'library/:movementId/swap',
            loader: movementLoader,
            lazy: screen(async () => (await import('./library/swap-screen')).SwapScreen),
          },
          {
            path: 'library/:movementId/card',
            loader: movementLoader,
            lazy: screen(async () => (await import('./library/card-screen')).CardScreen),
          },
          {
            path: 'people',
            loader: peopleLoader,
            lazy: screen(async () => (await import('./people/people-screen')).PeopleScreen),
          },
          { path: 'people/new', lazy: screen(async () => (await import('./people/person-form')).NewPersonScreen) },
          {
            path: 'people/:clientId',
            loader: personLoader,
            lazy: screen(async () => (await import('./people/person-screen')).PersonScreen),
          },
          {
            path: 'people/:clientId/edit',
            lazy: screen(async () => (await import('./people/person-form')).EditPersonScreen),
          },
          { path: 'sight', lazy: screen(async () => (await import('./sight/sight-screen')).SightScreen) },
          {
            path: 'plan',
            loader: plansLoader,
            lazy: screen(async () => (await import('./plan/plans-screen')).PlansScreen),
          },
          {
            path: 'plan/new',
            loader: floorLoader,
            lazy: screen(async () => (await import('./plan/new-plan')).NewPlanScreen),
          },
          {
            path: 'plan/:planId',
            loader: planLoader,
            lazy: screen(async () => (await import('./plan/plan-screen')).PlanScreen),
          },
          {
            path: 'plan/:planId/sheet/:clientId',
            lazy: screen(async () => (await import('./plan/sheet-screen')).SheetScreen),
          },
          {
            path: 'people/:clientId/today',
            loader: personLoader,
            lazy: screen(async () => (await import('./people/check-screen')).CheckScreen),
          },
          {
            path: 'floor',
            loader: floorLoader,
            lazy: screen(async () => (await import('./floor/floor-start')).FloorStart),
          },
          {
            path: 'floor/:sessionId',
            loader: sessionLoader,
            lazy: screen(async () => (await import('./floor/floor-screen')).FloorScreen),
          },
          {
            path: 'floor/:sessionId/wall',
            handle: WHOLE_SCREEN,
            loader: sessionLoader,
            lazy: screen(async () => (await import('./floor/wall-screen')).WallScreen),
          },
          {
            path: 'review',
            loader: reviewsLoader,
            lazy: screen(async () => (await import('./review/review-list')).ReviewList),
          },
          {
            path: 'review/:sessionId',
            loader: sessionLoader,
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
