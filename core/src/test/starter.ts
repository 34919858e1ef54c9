/** The starter library as the page has it, for laws over all of it. */
import { join } from 'node:path';

import { loadLibrary } from '@waxwing/library';

import { buildCatalog } from '../ladder/index.js';
import type { MovementSummary } from '../movement/index.js';

/** Reads it from its files: once a test file. */
export function starterLibrary() {
  const library = loadLibrary(join(import.meta.dirname, '../../../library/movements'));
  const catalog = buildCatalog(library);
  const summaries = library.map((movement): MovementSummary => ({
    ...movement,
    level: catalog.ladder.levels.get(movement.id) ?? 0,
  }));
  return { library, catalog, summaries, byId: new Map(summaries.map((one) => [one.id, one])) };
}
