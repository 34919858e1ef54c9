/** Writes the demo studio into an empty database, in one piece. */
import { BLANK_CLIENT } from '@waxwing/core/client';
import type { MovementSummary } from '@waxwing/core/movement';
import type { FindMovement } from '@waxwing/core/session';

import { ClientEntity } from '../clients/client.entity.js';
import type { WriteGate } from '../database/write-gate.js';
import { PlanEntity } from '../plans/plan.entity.js';
import { planColumns } from '../plans/plan-columns.js';
import { eventText } from '../sealed/sealed-event.js';
import { SessionEntity } from '../sessions/session.entities.js';
import { StudioEntity } from '../studio/studio.entity.js';
import { Dice, makeHistory, WEEKS } from './history.js';
import { comingPlans } from './plans.js';
import { NET_LOFT, PEOPLE, type Person, PLACES, STUDIO_KIT } from './studio.js';

const DAY = 86_400_000;

/** The library that the demo is made from. */
export interface DemoLibrary {
  find: FindMovement;
  summaries: () => MovementSummary[];
}

/** The same `now` gives the same studio, ids included; another day gives the same one moved to that day. */
export function loadDemo(gate: WriteGate, library: DemoLibrary, now: Date): void {
  const { find } = library;
  const dice = new Dice();
  const joined = new Date(now.getTime() - (WEEKS * 7 + 3) * DAY);
  const clients = PEOPLE.map((person) => clientOf(person, dice.uuid(joined.getTime()), joined, now));
  const ids = new Map(clients.map((client) => [client.name, client.id]));
  const history = makeHistory(PEOPLE, ids, find, now, dice);
  const plans = comingPlans({
    people: PEOPLE,
    clients: new Map(clients.map((client) => [client.name, client])),
    history,
    movements: library.summaries(),
    find,
    now,
    dice,
  });
  gate.write((writer) => {
    writer.update(StudioEntity, { id: 1 }, { ...NET_LOFT, kit: STUDIO_KIT, places: PLACES });
    writer.insert(ClientEntity, clients);
    writer.insert(
      SessionEntity,
      history.map(({ id, startedAt, finishedAt }) => ({ id, startedAt, finishedAt, place: 0, digested: 0 })),
    );
    for (const { id, clientIds } of history)
      for (const clientId of clientIds)
        writer.run('INSERT INTO session_clients (sessionId, clientId) VALUES (?, ?)', id, clientId);
    writer.run(
      `INSERT INTO events (id, sessionId, clientId, document, receivedAt)
       SELECT value ->> 'id', value ->> 'sessionId', value ->> 'clientId', value, value ->> 'at' FROM json_each(?)`,
      `[${history.flatMap((session) => session.events.map((event) => eventText(event, writer.sealer))).join()}]`,
    );
    writer.run(
      'UPDATE sessions SET place = coalesce((SELECT max(place) FROM events WHERE sessionId = sessions.id), 0)',
    );
    for (const { id, plan } of plans) writer.insert(PlanEntity, { id, version: 1, ...planColumns(plan) });
  });
}

const ALL_NO: NonNullable<Person['answered']> = { yes: [], clearedBy: '' };

function clientOf(person: Person, id: string, joined: Date, now: Date) {
  const {
    name,
    about,
    goal,
    healthNote,
    dayMostly,
    limits,
    kit,
    houseRules = {},
    touchConsentDaysAgo,
    filmConsentDaysAgo,
    measured,
    answered = ALL_NO,
  } = person;
  const daysAgo = (days: number): string => new Date(now.getTime() - days * DAY).toISOString().slice(0, 10);
  const agreedOn = (days: number | undefined): string | null => (days === undefined ? null : daysAgo(days));
  const benchmarks = measured
    ? measured.values.map(({ weeksAgo, value }) => {
        const { name, unit } = measured;
        return { name, unit, on: daysAgo(weeksAgo * 7), value };
      })
    : [];
  const at = joined.toISOString();
  const times = { createdAt: at, updatedAt: at };
  return {
    ...BLANK_CLIENT,
    id,
    version: 1,
    name,
    about,
    goal,
    healthNote,
    dayMostly,
    limits,
    kit,
    houseRules,
    readiness: answered && {
      ...answered,
      on: at.slice(0, 10),
      clearedOn: answered.yes.length > 0 ? at.slice(0, 10) : null,
    },
    touchConsentOn: agreedOn(touchConsentDaysAgo),
    filmConsentOn: agreedOn(filmConsentDaysAgo),
    benchmarks,
    ...times,
  };
}
