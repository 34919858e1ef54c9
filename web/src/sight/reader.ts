import { type Remote, wrap } from 'comlink';
import type { Reader } from './reader.worker';

let reader: Remote<Reader> | undefined;

/** The page's one reader, in a worker of its own. */
export const theReader = (): Remote<Reader> =>
  (reader ??= wrap<Reader>(new Worker(new URL('./reader.worker.ts', import.meta.url), { type: 'module' })));
