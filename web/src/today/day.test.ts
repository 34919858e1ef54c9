import { expect, test } from '@jest/globals';
import type { ClientSummary } from '@waxwing/core/client';
import type { PlanSummary } from '@waxwing/core/planning';

import { isFormer, longAway } from '../people/away';
import { dayNumber } from '../words/dates';
import { comersOf, nextSlot, visitsOf } from './day';

// A Tuesday.
const NOW = new Date(2030, 0, 15, 12);
const TODAY = dayNumber(NOW);
const at = (days: number, hour: number) => new Date(2030, 0, 15 + days, hour).toISOString();
const client = (id: string, over: Partial<ClientSummary> = {}): ClientSummary => ({
  id,
  name: `${id} B`,
  about: '',
  goal: '',
  limits: 0,
  screened: true,
  checkedOn: null,
  last: null,
  came: [],
  next: null,
  ...over,
});
const plan = (id: string, startsAt: string | null, who: string, over: Partial<PlanSummary> = {}): PlanSummary => ({
  id,
  name: id,
  startsAt,
  template: false,
  minutes: 60,
  filled: 55,
  updatedAt: at(-1, 9),
  clients: [{ id: who, name: `${who} B` }],
  session: null,
  ...over,
});
const session = (id: string, startedAt: string, who: string, finishedAt: string | null = null) => ({
  id,
  startedAt,
  finishedAt,
  clients: [{ id: who, name: `${who} B` }],
});
/** Every Tuesday at six and every Friday at nine. */
const weekly = [-28, -21, -14, -7].flatMap((days) => [at(days, 18), at(days + 3, 9)]);

test('a day by its hours: what is missed, on the floor, done and to come, and who usually comes and has no plan', () => {
  const plans = [
    plan('evening', at(0, 17), 'Ada'),
    plan('held', at(0, 10), 'Bo', { session: { id: 's1', finished: true } }),
    plan('missed', at(0, 8), 'Cy'),
    plan('tomorrow', at(1, 8), 'Cy'),
    plan('any day', null, 'Cy'),
  ];
  const clients = ['Ada', 'Bo', 'Cy', 'Di', 'Ed'].map((id) =>
    client(id, id === 'Di' || id === 'Ed' ? { came: weekly } : {}),
  );
  const sessions = [session('s1', at(0, 10), 'Bo', at(0, 11)), session('s2', at(0, 11), 'Cy')];
  const told = (day: number) =>
    visitsOf(day, plans, clients, sessions, NOW).map(({ state, clientIds, at: when }) => [
      when?.getHours(),
      state,
      clientIds.join(),
    ]);
  expect(told(TODAY)).toEqual([
    [8, 'missed', 'Cy'],
    [10, 'done', 'Bo'],
    [11, 'running', 'Cy'],
    [17, 'coming', 'Ada'],
    [18, 'usual', 'Di,Ed'],
  ]);
  expect(told(TODAY + 3)).toEqual([[9, 'usual', 'Di,Ed']]);
  // Nobody is waited for in the past.
  expect(told(TODAY - 4)).toEqual([]);
  expect(
    comersOf(plans, sessions)
      .filter(({ day }) => day === TODAY)
      .map(({ names }) => names.join()),
  ).toEqual(['Cy', 'Bo', 'Cy', 'Ada']);
});

test('the next time of somebody is the next usual one without a plan; who has been away for long and is not planned is named', () => {
  const one = client('Ada', { came: weekly });
  expect(nextSlot(one, NOW)?.toISOString()).toBe(at(0, 18));
  expect(nextSlot({ ...one, next: { planId: 'a', startsAt: at(0, 18) } }, NOW)?.toISOString()).toBe(at(3, 9));
  expect(nextSlot(client('Bo'), NOW)).toBeNull();
  const away = [
    client('Long', { last: at(-40, 9) }),
    client('Longest', { last: at(-60, 9) }),
    client('Planned', { last: at(-40, 9), next: { planId: 'p', startsAt: at(2, 9) } }),
    client('Lately', { last: at(-4, 9) }),
    client('Never'),
    client('Former', { last: at(-400, 9) }),
  ];
  expect(longAway(away, NOW).map(({ id }) => id)).toEqual(['Longest', 'Long']);
  expect(away.filter((one) => isFormer(one, NOW)).map(({ id }) => id)).toEqual(['Former']);
});
