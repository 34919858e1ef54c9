/** In a thread of its own: copies of the store in which somebody was deleted, since a copy of years takes seconds to check and change. */
import { parentPort, workerData } from 'node:worker_threads';

import { eraseInCopy } from '../backups/copies.js';
import type { KeyPlace } from '../config.js';
import { stampOf } from '../database/studio-folder.js';
import { keysIn } from '../sealed/keys.js';
import { Sealer } from '../sealed/sealer.js';

/** Where the studio and its keys are: a key is not sent from thread to thread but read again. */
export interface CopiesData {
  database: string;
  keys: KeyPlace;
}

export interface CopyToChange {
  file: string;
  /** Who was deleted. */
  ids: readonly string[];
}

export interface CopyDone {
  done: ReturnType<typeof eraseInCopy>;
}

const { database, keys } = workerData as CopiesData;

function sealer(): Sealer {
  // What was sent as a Buffer arrives as bare bytes.
  const place = { ...keys, given: keys.given && Buffer.from(keys.given) };
  const found = keysIn(place, stampOf(database)?.studio ?? '');
  if (!found) throw new Error('the key of the studio is not there');
  return new Sealer(found);
}

const own = sealer();

parentPort?.on('message', ({ task, file, ids }: CopyToChange & { task: number }) => {
  parentPort?.postMessage({ task, done: eraseInCopy(file, ids, own) } satisfies CopyDone & { task: number });
});
