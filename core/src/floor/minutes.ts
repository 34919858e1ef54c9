/** How long a session has run, what is left to do, and by how much that is too much. */
import type { SessionState } from '../session/fold.js';
import { secondsLeft } from '../session/run.js';
import { spanned } from '../session/timer.js';
import type { SessionView } from '../session/view.js';
import { type LaneView, movementOf } from './lane-view.js';

/** A session as far as its minutes go. */
export interface Timed {
  view: Pick<SessionView, 'startedAt' | 'programme'>;
  state: Pick<SessionState, 'finishedAt' | 'breaks'>;
}

/** Milliseconds that a session has run by `now`, breaks left out. */
export function ranFor({ view, state }: Timed, now: number): number {
  const end = state.finishedAt ? Date.parse(state.finishedAt) : now;
  return Math.max(0, end - Date.parse(view.startedAt) - spanned(state.breaks, end));
}

/** What the run of everybody in a session has to know to say how long it takes. */
export const timeOf = (views: readonly LaneView[]) => ({
  find: (id: string) => views.map((view) => movementOf(view, id)).find((movement) => movement !== undefined),
  knows: (clientId: string, movementId: string) => {
    const view = views.find(({ client }) => client.id === clientId);
    return (
      (view?.record.sets[movementId]?.length ?? 0) > 0 ||
      (view?.lane.entries.some((entry) => entry.movementId === movementId) ?? false)
    );
  },
});

/** Seconds that are still to do, as the plan reckons them. */
export const leftOf = (views: readonly LaneView[]): number =>
  secondsLeft(
    views.map(({ steps }) => steps),
    timeOf(views),
  );

/** Whole minutes over the plan with so many seconds still to do; 0 when it fits or there is no plan. Asked on every beat. */
export function minutesOver(live: Timed, toDo: number, now: number): number {
  const { programme } = live.view;
  if (!programme) return 0;
  const seconds = ranFor(live, now) / 1000 + toDo - programme.plan.minutes * 60;
  return Math.max(0, Math.round(seconds / 60));
}
