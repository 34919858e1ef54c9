/** Signing in: with a name and a passphrase, or with a code where there is no passphrase yet or any more. */
import { useMutation } from '@tanstack/react-query';
import { PASSPHRASE_LEAST } from '@waxwing/core/door';
import { useState } from 'react';

import { call } from '../api/http';
import { Wrong } from '../shell/states';
import { asCode, Marked } from '../words/marked';
import { say } from '../words/say';
import { DoorPage, TextField } from './door-page';
import { useGoIn } from './use-door';

/** @param onCode is given the next code of who came in by one: it is shown this once */
export function SignIn({ shutOut, here, onCode }: { shutOut: boolean; here: boolean; onCode: (code: string) => void }) {
  const [name, setName] = useState('');
  const [passphrase, setPassphrase] = useState('');
  const [code, setCode] = useState('');
  const [byCode, setByCode] = useState(false);
  const goIn = useGoIn();
  const enter = useMutation({
    mutationFn: async () => {
      if (byCode) return onCode((await call('POST /door/recover', { body: { name, code, passphrase } })).code);
      await call('POST /door/sign-in', { body: { name, passphrase } });
      await goIn();
    },
  });
  return (
    <DoorPage title={byCode ? say.door.chooseAPassphrase : say.door.signIn}>
      {shutOut && (
        <p role="alert" className="border-error border-l-4 pl-3">
          {say.door.thisDeviceWasShutOut} {say.door.tapsGoToTheStudio}
        </p>
      )}
      <form
        className="space-y-5"
        onSubmit={(event) => {
          event.preventDefault();
          enter.mutate();
        }}
      >
        <TextField
          id="door-name"
          label={say.common.name}
          autoComplete="username"
          required
          autoFocus
          maxLength={80}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        {byCode && (
          <TextField
            id="door-code"
            label={say.door.code}
            autoComplete="one-time-code"
            required
            maxLength={60}
            hint={say.door.theOneThatYouPrinted}
            value={code}
            onChange={(event) => setCode(event.target.value)}
          />
        )}
        <TextField
          id="door-passphrase"
          label={byCode ? say.door.newPassphrase : say.door.passphrase}
          type="password"
          autoComplete={byCode ? 'new-password' : 'current-password'}
          required
          {...(byCode ? { minLength: PASSPHRASE_LEAST } : {})}
          value={passphrase}
          onChange={(event) => setPassphrase(event.target.value)}
        />
        <button type="submit" className="btn btn-primary target w-full text-lg" disabled={enter.isPending}>
          {byCode ? say.door.chooseItAndSignIn : say.door.signIn}
        </button>
        <Wrong error={enter.error} />
      </form>
      <button
        type="button"
        className="link"
        onClick={() => {
          enter.reset();
          setPassphrase('');
          setByCode(!byCode);
        }}
      >
        {byCode ? say.door.iKnowMyPassphrase : say.door.iHaveACode}
      </button>
      {here && !byCode && (
        <p className="quiet text-sm">
          <Marked words={say.door.theOwnerHasLostBoth} as={asCode} />
        </p>
      )}
    </DoorPage>
  );
}
