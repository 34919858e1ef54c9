/** A warning before the disk of the studio is full, on every screen of its owner, while there is still time. */
import { useQuery } from '@tanstack/react-query';

import { keepingQuery } from '../api/queries';
import { useMay } from '../door/use-door';
import { bytesWords } from '../words/dates';
import { say } from '../words/say';

const LOOK_MS = 60_000;

export function LowSpace() {
  const { own } = useMay();
  const { data } = useQuery({ ...keepingQuery, refetchInterval: LOOK_MS, enabled: own });
  if (!data?.low) return null;
  return (
    <p role="alert" className="no-print border-error text-error border-b-2 px-4 py-2 font-bold">
      {say.shell.onlyFreeOnTheDisk(bytesWords(data.freeBytes))}
    </p>
  );
}
