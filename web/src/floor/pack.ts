/**
 * What a session needs to go on without a server, kept on the device while it runs: people, programme, movements and their figures.
 * Of a client there is what the floor works with, and nothing that is private: no note, no address, no answer, no reason of a limit. Even
 * that is sealed.
 * It is thrown away when the session is over.
 */
import { dehydrate, type DehydratedState, hydrate, type QueryClient } from '@tanstack/react-query';
import { type ClientOnDay, withoutPlace, withoutReasons } from '@waxwing/core/client';
import type { ClientRecord } from '@waxwing/core/coaching';
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';

import { openHere, type SealedHere, sealHere } from './device-key';

interface Pack {
  sessionId: string;
  savedAt: number;
  clientIds: string[];
  /** The library, its figures and the studio. */
  state: DehydratedState;
  /** The same of people and of their session. */
  sealed: SealedHere;
}

interface PackSchema extends DBSchema {
  packs: { key: string; value: Pack };
}

let opened: Promise<IDBPDatabase<PackSchema>> | undefined;
const database = () =>
  (opened ??= openDB<PackSchema>('waxwing-pack', 8, {
    upgrade: (db) => {
      // Earlier packs held more than a device may keep, or less than the floor reads today.
      if (db.objectStoreNames.contains('packs')) db.deleteObjectStore('packs');
      db.createObjectStore('packs', { keyPath: 'sessionId' });
    },
  }));

/** What hurt is left out here as well, and not told. */
const withoutPlaces = (record: ClientRecord): ClientRecord => ({ ...record, pains: record.pains.map(withoutPlace) });

/** What the floor reads, by the first word of its key. */
const NEEDED = ['session', 'client-on-day', 'record', 'studio', 'house-rules', 'fault-kinds', 'library', 'figures'];
/** What of it says something of somebody. */
const ABOUT_PEOPLE = ['session', 'client-on-day', 'record'];
/** The index of the search is built anew, and not stored. */
const REBUILT = 'index';
/** A session that nobody came back to. */
const FORGOTTEN_MS = 3 * 86_400_000;

/** Puts down what is in the cache now. False on a device that will not store it: a reload needs the server there. */
export async function packUp(sessionId: string, queries: QueryClient): Promise<boolean> {
  const state = dehydrate(queries, {
    // What was read once is good, even if reading it again failed meanwhile.
    shouldDehydrateQuery: ({ queryKey, state: { data } }) =>
      data !== undefined && NEEDED.includes(String(queryKey[0])) && queryKey[1] !== REBUILT,
  });
  for (const query of state.queries) {
    const { data } = query.state;
    const [kind] = query.queryKey;
    const kept =
      kind === 'client-on-day'
        ? withoutReasons(data as ClientOnDay)
        : kind === 'record'
          ? withoutPlaces(data as ClientRecord)
          : data;
    query.state = { ...query.state, data: kept, status: 'success', error: null };
  }
  try {
    const db = await database();
    for (const { sessionId: id, savedAt } of await db.getAll('packs'))
      if (Date.now() - savedAt > FORGOTTEN_MS) await db.delete('packs', id);
    const isAboutPeople = ({ queryKey: [kind] }: DehydratedState['queries'][number]) =>
      ABOUT_PEOPLE.includes(String(kind));
    await db.put('packs', {
      sessionId,
      savedAt: Date.now(),
      clientIds: state.queries.flatMap(({ queryKey: [kind, id] }) => (kind === 'client-on-day' ? String(id) : [])),
      state: { ...state, queries: state.queries.filter((query) => !isAboutPeople(query)) },
      sealed: await sealHere(state.queries.filter(isAboutPeople)),
    });
    return true;
  } catch {
    return false;
  }
}

/** Puts back what was put down, where the cache has nothing newer. False when there is nothing. */
export async function unpack(sessionId: string, queries: QueryClient): Promise<boolean> {
  try {
    const found = await (await database()).get('packs', sessionId);
    if (!found) return false;
    const people = (await openHere(found.sealed)) as DehydratedState['queries'];
    hydrate(queries, { ...found.state, queries: [...found.state.queries, ...people] });
    return true;
  } catch {
    return false;
  }
}

export async function throwAway(sessionId: string): Promise<void> {
  try {
    await (await database()).delete('packs', sessionId);
  } catch {
    // There is no storage, so there is no pack.
  }
}

export async function throwAllAway(): Promise<void> {
  await database()
    .then((db) => db.clear('packs'))
    .catch(() => undefined);
}

/** The sessions that are packed here, and who is in them. */
export async function packedIds(): Promise<string[]> {
  const packs = await database()
    .then((db) => db.getAll('packs'))
    .catch(() => []);
  return packs.flatMap(({ sessionId, clientIds }) => [sessionId, ...clientIds]);
}

/** Throws away packs of sessions, and of people, that were deleted for good. */
export async function dropPacks(erased: ReadonlySet<string>): Promise<void> {
  const packs = await database()
    .then((db) => db.getAll('packs'))
    .catch(() => []);
  for (const { sessionId, clientIds } of packs)
    if ([sessionId, ...clientIds].some((id) => erased.has(id))) await throwAway(sessionId);
}
