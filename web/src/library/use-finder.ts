/** What a search finds, from an index in a worker that is rebuilt when the library changes. */
import { useQuery } from '@tanstack/react-query';
import { type Remote, wrap } from 'comlink';
import { useLayoutEffect, useState } from 'react';

import { libraryKeys } from '../api/keys';
import type { FaultAnswer, Finder, Found } from '../workers/finder.worker';

export type { FaultAnswer };

let finder: Remote<Finder> | undefined;

/** One worker for the whole visit. */
const worker = (): Remote<Finder> =>
  (finder ??= wrap<Finder>(new Worker(new URL('../workers/finder.worker.ts', import.meta.url), { type: 'module' })));

/** What was found, and for which words. */
export type Answer = Found & { words: string };

/** The answer to `words`; undefined while there is none yet, or when there are no words; null when the library could not be read. An older answer never overtakes a newer one. */
export function useFinder(words: string): Answer | undefined | null {
  // Under the library's key, so that a change of the library builds the index anew.
  const { data: built, isError } = useQuery({
    queryKey: libraryKeys.index,
    queryFn: async () => ({ movements: await worker().load() }),
    staleTime: Infinity,
    structuralSharing: false,
  });
  const [answer, setAnswer] = useState<Answer>();
  // Asked before the letter is painted: an ordinary effect would wait for that frame first.
  useLayoutEffect(() => {
    if (!built || words === '') return;
    let current = true;
    void worker()
      .find(words)
      .then((found) => current && setAnswer({ ...found, words }));
    return () => {
      current = false;
    };
  }, [built, words]);
  // While the next answer is on its way the last one stays, so that the list does not flicker.
  return words === '' ? undefined : isError ? null : answer;
}
