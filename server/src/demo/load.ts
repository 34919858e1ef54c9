/** Writes the demo studio into an empty database, in one transaction. */
import { BLANK_CLIENT } from '@waxwing/core/formats';
import type { FindMovement } from '@waxwing/core/session';
import type { DataSource } from 'typeorm';
import { ClientEntity } from '../clients/client.entity.js';
import { SessionEntity } from '../sessions/session.entities.js';
import { StudioEntity } from '../studio/studio.entity.js';
import { Dice, makeHistory, WEEKS } from './history.js';
import { NET_LOFT, PEOPLE, STUDIO_KIT, type Person } from './studio.js';

const DAY = 86_400_000;

/** The same `now` gives the same studio, ids included; another day gives the same one moved to that day. */
export async function loadDemo(database: DataSource, find: FindMovement, now: Date): Promise<void> {
  const dice = new Dice();
  const joined = new Date(now.getTime() - (WEEKS * 7 + 3) * DAY);
  const clients = PEOPLE.map((person) => clientOf(person, dice.uuid(joined.getTime()), joined, now));
  const ids = new Map(clients.map((client) => [client.name, client.id]));
  const history = makeHistory(PEOPLE, ids, find, now, dice);
  await database.transaction(async (manager) => {
    await manager.getRepository(StudioEntity).update({ id: 1 }, { ...NET_LOFT, kit: STUDIO_KIT });
    await manager.getRepository(ClientEntity).insert(clients);
    await manager
      .getRepository(SessionEntity)
      .insert(history.map(({ id, startedAt, finishedAt }) => ({ id, startedAt, finishedAt })));
    const members = history.flatMap(({ id, clientIds }) => clientIds.map((clientId) => ({ sessionId: id, clientId })));
    await manager.createQueryBuilder().insert().into('session_clients').values(members).execute();
    await manager.query(
      `INSERT INTO events (id, sessionId, counter, document, receivedAt)
       SELECT value ->> 'id', value ->> 'sessionId', value ->> 'counter', value, value ->> 'at' FROM json_each(?)`,
      [JSON.stringify(history.flatMap((session) => session.events))],
    );
  });
}

function clientOf(person: Person, id: string, joined: Date, now: Date) {
  const { name, about, goal, healthNote, limits, kit, houseRules = {}, touchConsentDaysAgo } = person;
  const touchConsentOn =
    touchConsentDaysAgo === undefined
      ? null
      : new Date(now.getTime() - touchConsentDaysAgo * DAY).toISOString().slice(0, 10);
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
    limits,
    kit,
    houseRules,
    touchConsentOn,
    ...times,
  };
}
