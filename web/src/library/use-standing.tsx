/** How a client stands today, for the screens of the library. */
import { useQuery } from '@tanstack/react-query';
import { type Standing, standingOf } from '@waxwing/core/progress';
import { useMemo } from 'react';

import { clientOnDayQuery, recordQuery } from '../api/queries';
import { Failed, Loading } from '../shell/states';
import { today } from '../words/dates';
import { say } from '../words/say';

export interface Asked {
  /** Undefined for nobody, and until it is known. */
  standing: Standing | undefined;
  /** Somebody is chosen, and what is closed for them is not known (yet): nothing may be said of what is open. */
  unknown: boolean;
  /** Why it is not known. */
  error: Error | null;
  ask: () => void;
}

export function useStanding(clientId: string): Asked {
  const enabled = clientId !== '';
  const client = useQuery({ ...clientOnDayQuery(clientId, today()), enabled });
  const record = useQuery({ ...recordQuery(clientId), enabled });
  const standing = useMemo(
    () => (client.data && record.data ? standingOf(client.data, record.data) : undefined),
    [client.data, record.data],
  );
  return {
    standing,
    unknown: enabled && standing === undefined,
    error: client.error ?? record.error,
    ask: () => {
      void client.refetch();
      void record.refetch();
    },
  };
}

/** What is shown in place of movements while it is not known what is closed. */
export function NotAsked({ error, ask }: Pick<Asked, 'error' | 'ask'>) {
  return error ? <Failed error={error} retry={ask} /> : <Loading what={say.library.whatIsClosed} />;
}
