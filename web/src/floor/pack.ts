/**
 * What a session needs to go on without a server, kept on the device while it runs: people, programme, movements and their figures.
 * Health notes are not in it, and it is thrown away when the session is over.
 */
import type { Client } from '@waxwing/core/formats';
import { dehydrate, hydrate, type DehydratedState, type QueryClient } from '@tanstack/react-query';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

interface PackSchema extends DBSchema {
  packs: { key: string; value: { sessionId: string; savedAt: number; state: DehydratedState } };
}

let opened: Promise<IDBPDatabase<PackSchema>> | undefined;
const database = () =>
  (opened ??= openDB<PackSchema>('waxwing-pack', 1, {
    upgrade: (db) => void db.createObjectStore('packs', { keyPath: 'sessionId' }),
  }));

/** What the floor reads, by the first word of its key. */
const NEEDED = ['session', 'client', 'record', 'studio', 'house-rules', 'library', 'figures'];
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
    const kept = query.queryKey[0] === 'client' ? { ...(data as Client), healthNote: '' } : data;
    query.state = { ...query.state, data: kept, status: 'success', error: null };
  }
  try {
    const db = await database();
    for (const { sessionId: id, savedAt } of await db.getAll('packs'))
      if (Date.now() - savedAt > FORGOTTEN_MS) await db.delete('packs', id);
    await db.put('packs', { sessionId, savedAt: Date.now(), state });
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
    hydrate(queries, found.state);
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
