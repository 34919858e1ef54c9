/**
 * What somebody leaves unsent when they sign out: sealed with a key that only the server has, and opened when the same person is back.
 * Everything else goes from the device.
 */
import type { Door } from '@waxwing/core/door';
import type { SessionEvent } from '@waxwing/core/session';
import { type DBSchema, openDB } from 'idb';

import { call } from '../api/http';
import { endKey } from '../floor/device-key';
import { throwAllAway } from '../floor/pack';
import { emptyQueue, keep, unsentTaps } from '../floor/tap-queue';
import { forgetAllHere } from '../shell/kept';
import { THEME_KEY } from '../shell/theme';

interface SealedSchema extends DBSchema {
  sealed: { key: string; value: { accountId: string; start: Uint8Array<ArrayBuffer>; bytes: ArrayBuffer } };
}

const database = () =>
  openDB<SealedSchema>('waxwing-sealed', 1, {
    upgrade: (db) => void db.createObjectStore('sealed', { keyPath: 'accountId' }),
  });

/** @param sealKey 32 bytes, base64url */
const keyOf = (sealKey: string): Promise<CryptoKey> =>
  crypto.subtle.importKey(
    'raw',
    Uint8Array.from(atob(sealKey.replaceAll('-', '+').replaceAll('_', '/')), (c) => c.charCodeAt(0)),
    'AES-GCM',
    false,
    ['encrypt', 'decrypt'],
  );

/** Forgets on this device whatever is of the studio. */
export async function forgetStudio(): Promise<void> {
  await emptyQueue();
  await throwAllAway();
  await endKey();
  forgetAllHere([THEME_KEY]);
}

/** Taps left at once: as much as the door takes of a device that was shut out. */
const LEFT_AT_ONCE = 100;
const LEAVE_AGAIN_MS = 15_000;

/**
 * On a device that was shut out: what was not sent goes to the studio, for its owner to decide on, and only then is it forgotten here. All
 * else goes at once.
 * @returns what ends trying
 */
export function leaveForOwner(): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let ended = false;
  const attempt = async (): Promise<void> => {
    try {
      const unsent = await unsentTaps();
      for (let i = 0; i < unsent.length; i += LEFT_AT_ONCE)
        await call('POST /door/left', { body: { events: unsent.slice(i, i + LEFT_AT_ONCE) } });
      await forgetStudio();
    } catch {
      // It may be a full disk there: nobody has said that they may be lost.
      if (!ended) timer = setTimeout(() => void attempt(), LEAVE_AGAIN_MS);
    }
  };
  void throwAllAway().then(attempt);
  return () => {
    ended = true;
    clearTimeout(timer);
  };
}

/** The same when somebody signs out, but for what is not sent yet: that is sealed for them. @throws where it cannot be: nothing is forgotten then */
export async function leave({ visitor, sealKey }: Pick<Door, 'visitor' | 'sealKey'>): Promise<void> {
  const unsent = await unsentTaps();
  if (visitor && sealKey && unsent.length > 0) {
    const start = crypto.getRandomValues(new Uint8Array(12));
    const text = new TextEncoder().encode(JSON.stringify([...(await opened({ visitor, sealKey })), ...unsent]));
    const bytes = await crypto.subtle.encrypt({ name: 'AES-GCM', iv: start }, await keyOf(sealKey), text);
    await (await database()).put('sealed', { accountId: visitor.id, start, bytes });
  }
  await forgetStudio();
}

/** Puts back what somebody left here, and sends it. */
export async function comeBack(door: Pick<Door, 'visitor' | 'sealKey'>): Promise<void> {
  const events = await opened(door);
  if (events.length === 0 || !door.visitor) return;
  await keep(events);
  await (await database()).delete('sealed', door.visitor.id);
}

async function opened({ visitor, sealKey }: Pick<Door, 'visitor' | 'sealKey'>): Promise<SessionEvent[]> {
  if (!visitor || !sealKey) return [];
  try {
    const found = await (await database()).get('sealed', visitor.id);
    if (!found) return [];
    const plain = await crypto.subtle.decrypt({ name: 'AES-GCM', iv: found.start }, await keyOf(sealKey), found.bytes);
    return JSON.parse(new TextDecoder().decode(plain)) as SessionEvent[];
  } catch {
    // Of another key, or no storage: it is not ours to open.
    return [];
  }
}
