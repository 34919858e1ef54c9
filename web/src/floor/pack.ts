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

/** Puts down what is in the cache now. A device that will not store it goes on without. */
export async function packUp(sessionId: string, queries: QueryClient): Promise<void> {
  const state = dehydrate(queries, {
    shouldDehydrateQuery: ({ queryKey, state: { status } }) =>
      status === 'success' && NEEDED.includes(String(queryKey[0])) && queryKey[1] !== REBUILT,
  });
  for (const query of state.queries)
    if (query.queryKey[0] === 'client')
      query.state = { ...query.state, data: { ...(query.state.data as Client), healthNote: '' } };
  try {
    const db = await database();
    for (const { sessionId: id, savedAt } of await db.getAll('packs'))
      if (Date.now() - savedAt > FORGOTTEN_MS) await db.delete('packs', id);
    await db.put('packs', { sessionId, savedAt: Date.now(), state });
  } catch {
    // Without storage a reload needs the server.
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
