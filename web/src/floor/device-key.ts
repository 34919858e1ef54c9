/**
 * A key of this device that no script can read out. What is private is sealed with it before it is written down here; when somebody signs out,
 * or the device is shut out, the key ends, and whatever was left sealed is no more than noise.
 */
import { type DBSchema, openDB } from 'idb';

interface KeySchema extends DBSchema {
  keys: { key: string; value: CryptoKey };
}

export interface SealedHere {
  start: Uint8Array<ArrayBuffer>;
  bytes: ArrayBuffer;
}

const ALGORITHM = 'AES-GCM';
const NAME = 'device';
const database = () => openDB<KeySchema>('waxwing-key', 1, { upgrade: (db) => void db.createObjectStore('keys') });

/** The key that is here now, or a new one. It is not remembered: another page may have ended it, and what that key sealed nobody opens again. */
async function deviceKey(): Promise<CryptoKey> {
  const db = await database();
  try {
    const here = await db.get('keys', NAME);
    if (here) return here;
    const made = await crypto.subtle.generateKey({ name: ALGORITHM, length: 256 }, false, ['encrypt', 'decrypt']);
    const transaction = db.transaction('keys', 'readwrite', { durability: 'strict' });
    // Another page may have made one in the meantime: there is only one.
    const first = await transaction.store.get(NAME);
    if (!first) await transaction.store.put(made, NAME);
    await transaction.done;
    return first ?? made;
  } finally {
    db.close();
  }
}

/** Seals what JSON can hold. @throws where this device keeps no key */
export async function sealHere(value: unknown): Promise<SealedHere> {
  const start = crypto.getRandomValues(new Uint8Array(12));
  const plain = new TextEncoder().encode(JSON.stringify(value));
  return { start, bytes: await crypto.subtle.encrypt({ name: ALGORITHM, iv: start }, await deviceKey(), plain) };
}

/** @throws for what was sealed with a key that has ended */
export async function openHere({ start, bytes }: SealedHere): Promise<unknown> {
  const plain = await crypto.subtle.decrypt({ name: ALGORITHM, iv: start }, await deviceKey(), bytes);
  return JSON.parse(new TextDecoder().decode(plain)) as unknown;
}

/** Ends the key. */
export async function endKey(): Promise<void> {
  const db = await database().catch(() => null);
  await db?.clear('keys').catch(() => undefined);
  db?.close();
}
