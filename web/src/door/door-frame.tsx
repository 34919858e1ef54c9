/** Stands before every screen: who is not in sees only what lets them in. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { type ReactNode, useEffect } from 'react';

import { doorQuery } from '../api/door';
import { onTurnedAway } from '../api/http';
import { Loading } from '../shell/states';
import { say } from '../words/say';
import { Begin } from './begin';
import { PinScreen } from './pin-screen';
import { comeBack, forgetStudio } from './sealed';
import { SignIn } from './sign-in';
import { useLockOnWake } from './use-lock-on-wake';

export function DoorFrame({ children }: { children: ReactNode }) {
  const { data: door, errorUpdateCount: failures } = useQuery(doorQuery);
  const queries = useQueryClient();
  useEffect(() => onTurnedAway(() => void queries.invalidateQueries({ queryKey: doorQuery.queryKey })), [queries]);
  useLockOnWake(door?.tablet === true);
  const shutOut = door?.shutOut === true;
  useEffect(() => void (shutOut && forgetStudio()), [shutOut]);
  const inside = door?.visitor?.id;
  useEffect(() => {
    if (inside !== undefined) void doorNow(queries.getQueryData(doorQuery.queryKey));
  }, [inside, queries]);
  // While the server is away the floor goes on with what is on this device: asking again takes nothing from the screen.
  if (!door) return failures > 0 ? children : <Loading what={say.common.theStudio} />;
  if (door.state === 'unset' && door.here) return <Begin />;
  if (door.locked) return <PinScreen />;
  if (!door.visitor) return <SignIn shutOut={shutOut} here={door.here} />;
  return children;
}

const doorNow = (door: Parameters<typeof comeBack>[0] | undefined) => door && comeBack(door);
