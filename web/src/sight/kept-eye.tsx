/** What is needed to see, kept on this device on request: clips and sets are then read without the desk. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';

import { Wrong } from '../shell/states';
import { bytesWords } from '../words/dates';
import { say } from '../words/say';
import { EYE_BYTES, EYE_FILES } from './eye';

/** The service worker looks here first. */
const CACHE = 'waxwing-sight';

async function isKept(): Promise<boolean> {
  const here = await caches.open(CACHE);
  const found = await Promise.all(EYE_FILES.map((path) => here.match(path)));
  return found.every(Boolean);
}

async function keep(): Promise<void> {
  // Those of an earlier version are of no use any more.
  await caches.delete(CACHE);
  const here = await caches.open(CACHE);
  await here.addAll([...EYE_FILES]);
}

export function KeptEye() {
  const queries = useQueryClient();
  const [possible] = useState(() => 'caches' in window);
  const kept = useQuery({ queryKey: ['eye-kept'], queryFn: isKept, enabled: possible });
  const change = useMutation({
    mutationFn: async () => (kept.data ? void (await caches.delete(CACHE)) : keep()),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['eye-kept'] }),
  });
  if (!possible || kept.data === undefined) return null;
  return (
    <div className="mt-8">
      <p className="quiet mb-2">
        {kept.data ? say.sight.whatIsNeededToRead : say.sight.whatIsNeededToReadClips(bytesWords(EYE_BYTES))}
      </p>
      <button type="button" className="btn" disabled={change.isPending} onClick={() => change.mutate()}>
        {change.isPending
          ? say.sight.oneMoment
          : kept.data
            ? say.sight.takeItOffThisDevice
            : say.sight.keepItOnThisDevice}
      </button>
      <Wrong error={change.error} />
    </div>
  );
}
