/** Reading a series in a worker. What it is compared with is what this page has, so that a set is read without a server too. */
import type { Movement } from '@waxwing/core/movement';
import type { Reading, Series } from '@waxwing/core/sight';
import { type Remote, wrap } from 'comlink';

import { cache } from '../api/cache';
import { faultKindsQuery, figuresQuery } from '../api/queries';
import type { Reader, Told } from './reader.worker';

let opening: Promise<Remote<Reader>> | undefined;

async function open(): Promise<Remote<Reader>> {
  const [figures, kinds] = await Promise.all([
    cache.ensureQueryData(figuresQuery),
    cache.ensureQueryData(faultKindsQuery),
  ]);
  const reader = wrap<Reader>(new Worker(new URL('./reader.worker.ts', import.meta.url), { type: 'module' }));
  await reader.know(figures, kinds);
  return reader;
}

/** Null where no body is seen, or the movement has no figure to compare with. @param tempo as prescribed */
export async function readIn(series: Series, movement: Movement, tempo: string, told: Told): Promise<Reading | null> {
  opening ??= open().catch((error: unknown) => {
    opening = undefined;
    throw error;
  });
  const reader = await opening;
  return reader.read(series, movement, tempo, told);
}
