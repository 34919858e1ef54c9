import { expect, test } from '@jest/globals';
import type { PlanSummary } from '@waxwing/core/planning';

import { today } from '../words/dates';
import { shelve, spanOf } from './plan-shelves';

const NOON = new Date(2030, 0, 15, 12);
const at = (days: number, hour: number) => new Date(2030, 0, 15 + days, hour).toISOString();
const plan = (id: string, over: Partial<PlanSummary> = {}): PlanSummary => ({
  id,
  name: id,
  startsAt: null,
  template: false,
  minutes: 60,
  filled: 57,
  updatedAt: at(-1, 9),
  clients: [{ id: 'ada', name: 'Ada' }],
  session: null,
  ...over,
});

test('today comes first and by its time, then the next days, then what has no time; what is done is apart', () => {
  const plans = [
    plan('in two days', { startsAt: at(2, 8) }),
    plan('tomorrow', { startsAt: at(1, 8) }),
    plan('evening', { startsAt: at(0, 18) }),
    plan('morning', { startsAt: at(0, 7), session: { id: 's', finished: true } }),
    plan('forenoon', { startsAt: at(0, 10) }),
    plan('running', { startsAt: at(0, 11), session: { id: 't', finished: false } }),
    plan('yesterday', { startsAt: at(-1, 10) }),
    plan('some day'),
    plan('newer', { updatedAt: at(0, 8) }),
    plan('done some day', { session: { id: 'u', finished: true } }),
    plan('of somebody busy', { startsAt: at(0, 9), clients: [{ id: 'bo', name: 'Bo' }] }),
  ];
  const ids = (all: readonly PlanSummary[]) => all.map(({ id }) => id);
  const shelves = shelve(plans, new Set(['bo']), today(NOON));
  expect(ids(shelves.todays)).toEqual(['forenoon', 'evening']);
  expect(ids(shelves.done)).toEqual(['morning']);
  expect(ids(shelves.next)).toEqual(['tomorrow', 'in two days']);
  expect(ids(shelves.undated)).toEqual(['newer', 'some day', 'done some day']);
  const [from, to] = spanOf(NOON);
  expect([from < at(-13, 0), to > at(7, 23)]).toEqual([true, true]);
});
