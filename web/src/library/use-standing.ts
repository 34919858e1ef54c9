/** How a client stands today, for the screens of the library; undefined for nobody, and until it is known. */
import { useQuery } from '@tanstack/react-query';
import { type Standing, standingOf } from '@waxwing/core/progress';
import { useMemo } from 'react';

import { clientOnDayQuery, recordQuery } from '../api/queries';
import { today } from '../words/dates';

export function useStanding(clientId: string): Standing | undefined {
  const enabled = clientId !== '';
  const client = useQuery({ ...clientOnDayQuery(clientId, today()), enabled }).data;
  const record = useQuery({ ...recordQuery(clientId), enabled }).data;
  return useMemo(() => (client && record ? standingOf(client, record.hurt) : undefined), [client, record]);
}
