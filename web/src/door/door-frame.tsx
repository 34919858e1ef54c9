/** Stands before every screen: who is not in sees only what lets them in. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { type ReactNode, useEffect, useState } from 'react';

import { doorQuery } from '../api/door';
import { onTurnedAway } from '../api/http';
import { Loading } from '../shell/states';
import { say } from '../words/say';
import { Begin } from './begin';
import { CodeShown } from './code-shown';
import { DoorPage } from './door-page';
import { PinScreen } from './pin-screen';
import { comeBack, leaveForOwner } from './sealed';
import { SignIn } from './sign-in';
import { useGoIn } from './use-door';
import { useLockOnWake } from './use-lock-on-wake';

export function DoorFrame({ children }: { children: ReactNode }) {
  const { data: door, errorUpdateCount: failures } = useQuery(doorQuery);
  const queries = useQueryClient();
  useEffect(() => onTurnedAway(() => void queries.invalidateQueries({ queryKey: doorQuery.queryKey })), [queries]);
  useLockOnWake(door?.tablet === true);
  const shutOut = door?.shutOut === true;
  useEffect(() => (shutOut ? leaveForOwner() : undefined), [shutOut]);
  const inside = door?.visitor?.id;
  useEffect(() => {
    if (inside !== undefined) void doorNow(queries.getQueryData(doorQuery.queryKey));
  }, [inside, queries]);
  // Kept above whoever asks who is in: a code that is gone from the screen before it was read is lost.
  const [code, setCode] = useState<{ code: string; first: boolean } | null>(null);
  const goIn = useGoIn();
  if (code)
    return (
      <DoorPage title={code.first ? say.door.ifYouForgetYourPassphrase : say.door.yourNewCode}>
        <p className="text-lg">{code.first ? say.door.withThisCodeYouChoose : say.door.theCodeYouUsedOpens}</p>
        <CodeShown
          code={code.code}
          done={say.door.openTheStudio}
          onDone={() => void goIn().finally(() => setCode(null))}
        />
      </DoorPage>
    );
  // While the server is away the floor goes on with what is on this device: asking again takes nothing from the screen.
  if (!door) return failures > 0 ? children : <Loading what={say.common.theStudio} />;
  if (door.state === 'unset' && door.here) return <Begin onCode={(next) => setCode({ code: next, first: true })} />;
  if (door.locked) return <PinScreen />;
  if (!door.visitor)
    return <SignIn shutOut={shutOut} here={door.here} onCode={(next) => setCode({ code: next, first: false })} />;
  return children;
}

const doorNow = (door: Parameters<typeof comeBack>[0] | undefined) => door && comeBack(door);
