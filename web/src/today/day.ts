/** What a day holds: the plans of that day, who usually comes and has none, and the sessions that run. */
import type { ClientSummary } from '@waxwing/core/client';
import { nextUsual, type PlanSummary, type Slot, usualSlots } from '@waxwing/core/planning';
import type { SessionSummary } from '@waxwing/core/session';

import { dayNumber, localTime, momentOf } from '../words/dates';
import { firstName } from '../words/names';

export type VisitState = 'running' | 'done' | 'coming' | 'missed' | 'usual';

export interface Visit {
  key: string;
  state: VisitState;
  /** Null where none was said. */
  at: Date | null;
  clientIds: string[];
  plan: PlanSummary | null;
  sessionId: string | null;
}

/** A plan is waited for so long after its time. */
const WAITED_MS = 90 * 60_000;

const byTime = (a: Visit, b: Visit): number => (a.at?.getTime() ?? 0) - (b.at?.getTime() ?? 0);

const planned = (plan: PlanSummary, sessions: readonly SessionSummary[], now: Date): Visit => {
  // What was begun is told by when it began.
  const began = sessions.find(({ id }) => id === plan.session?.id)?.startedAt ?? plan.startsAt;
  const at = began === null ? null : new Date(began);
  const late = at !== null && now.getTime() - at.getTime() > WAITED_MS;
  return {
    key: plan.id,
    at,
    state: plan.session ? (plan.session.finished ? 'done' : 'running') : late ? 'missed' : 'coming',
    clientIds: plan.clients.map(({ id }) => id),
    plan,
    sessionId: plan.session?.id ?? null,
  };
};

/**
 * Everybody of a day by their time.
 * @param day number of the day on this device's calendar
 * @param plans of a span of time with that day in it
 * @param sessions of that span
 */
export function visitsOf(
  day: number,
  plans: readonly PlanSummary[],
  clients: readonly ClientSummary[],
  sessions: readonly SessionSummary[],
  now: Date,
): Visit[] {
  const today = dayNumber(now);
  const ofDay = plans.filter(({ startsAt }) => startsAt !== null && dayNumber(new Date(startsAt)) === day);
  const visits = ofDay.map((plan) => planned(plan, sessions, now));
  const told = new Set(visits.flatMap(({ sessionId }) => sessionId ?? []));
  const others = sessions.filter(({ id, startedAt }) => !told.has(id) && dayNumber(new Date(startedAt)) === day);
  const unplanned = others.map(({ id, startedAt, finishedAt, clients: who }): Visit => ({
    key: id,
    state: finishedAt === null ? 'running' : 'done',
    at: new Date(startedAt),
    clientIds: who.map((client) => client.id),
    // A plan without a day that was held is of the day on which it was.
    plan: plans.find(({ session }) => session?.id === id) ?? null,
    sessionId: id,
  }));
  const here = new Set([...visits, ...unplanned].flatMap(({ clientIds }) => clientIds));
  const usual = clients.flatMap((client): Visit[] => {
    if (day < today || here.has(client.id)) return [];
    const slot = usualOn(client, day, now);
    if (!slot) return [];
    return [{ key: client.id, state: 'usual', at: slot, clientIds: [client.id], plan: null, sessionId: null }];
  });
  return [...visits, ...unplanned, ...together(usual)].toSorted(byTime);
}

const slotsOf = (came: readonly string[], now: Date): Slot[] =>
  usualSlots(
    came.map((iso) => localTime(new Date(iso))),
    dayNumber(now),
  );

/** When somebody usually comes on a day; null for another day. */
function usualOn({ came }: ClientSummary, day: number, now: Date): Date | null {
  const next = nextUsual(slotsOf(came, now), { day, minute: -1 });
  return next?.day === day ? momentOf(next) : null;
}

/** People who usually come at the same minute share an hour. */
function together(visits: readonly Visit[]): Visit[] {
  const shared = new Map<number, Visit>();
  for (const visit of visits) {
    const at = visit.at?.getTime() ?? 0;
    const known = shared.get(at);
    shared.set(at, known ? { ...known, clientIds: [...known.clientIds, ...visit.clientIds] } : visit);
  }
  return [...shared.values()];
}

/** When somebody comes next as they usually do, on a day that is not their next planned one; null for who has no usual time. */
export function nextSlot({ came, next }: Pick<ClientSummary, 'came' | 'next'>, now: Date): Date | null {
  const slot = nextUsual(slotsOf(came, now), localTime(now), next ? [dayNumber(new Date(next.startsAt))] : []);
  return slot && momentOf(slot);
}

export interface Comer {
  day: number;
  at: string;
  names: string[];
}

/** Who came and who comes, the earliest first: a plan that was held counts once. */
export const comersOf = (plans: readonly PlanSummary[], sessions: readonly SessionSummary[]): Comer[] => {
  const held = new Set(plans.flatMap(({ session }) => session?.id ?? []));
  return [
    ...plans.flatMap(({ startsAt, clients }) => (startsAt === null ? [] : [{ at: startsAt, clients }])),
    ...sessions.flatMap(({ id, startedAt, clients }) => (held.has(id) ? [] : [{ at: startedAt, clients }])),
  ]
    .toSorted((a, b) => a.at.localeCompare(b.at))
    .map(({ at, clients }) => ({ day: dayNumber(new Date(at)), at, names: clients.map(firstName) }));
};
