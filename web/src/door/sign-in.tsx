/** Signing in: with a name and a passphrase, or with a code where there is no passphrase yet or any more. */
import { PASSPHRASE_LEAST } from '@waxwing/core/door';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '../api/http';
import { Wrong } from '../shell/states';
import { CodeShown } from './code-shown';
import { DoorPage, TextField } from './door-page';
import { useGoIn } from './use-door';

export function SignIn({ shutOut, here }: { shutOut: boolean; here: boolean }) {
  const [name, setName] = useState('');
  const [passphrase, setPassphrase] = useState('');
  const [code, setCode] = useState('');
  const [byCode, setByCode] = useState(false);
  const goIn = useGoIn();
  const enter = useMutation({
    mutationFn: async () => {
      if (byCode) return (await call('POST /door/recover', { body: { name, code, passphrase } })).code;
      await call('POST /door/sign-in', { body: { name, passphrase } });
      await goIn();
      return null;
    },
  });
  if (enter.data)
    return (
      <DoorPage title="Your new code">
        <p className="text-lg">The code you used opens nothing any more. This is the next one:</p>
        <CodeShown code={enter.data} done="Open the studio" onDone={() => void goIn()} />
      </DoorPage>
    );
  return (
    <DoorPage title={byCode ? 'Choose a passphrase' : 'Sign in'}>
      {shutOut && (
        <p role="alert" className="border-error border-l-4 pl-3">
          This device was shut out. What it kept of the studio is gone from it.
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
          label="Name"
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
            label="Code"
            autoComplete="one-time-code"
            required
            maxLength={60}
            hint="The one that you printed, or that the owner gave you."
            value={code}
            onChange={(event) => setCode(event.target.value)}
          />
        )}
        <TextField
          id="door-passphrase"
          label={byCode ? 'New passphrase' : 'Passphrase'}
          type="password"
          autoComplete={byCode ? 'new-password' : 'current-password'}
          required
          {...(byCode ? { minLength: PASSPHRASE_LEAST } : {})}
          value={passphrase}
          onChange={(event) => setPassphrase(event.target.value)}
        />
        <button type="submit" className="btn btn-primary target w-full text-lg" disabled={enter.isPending}>
          {byCode ? 'Choose it and sign in' : 'Sign in'}
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
        {byCode ? 'I know my passphrase' : 'I have a code'}
      </button>
      {here && !byCode && (
        <p className="quiet text-sm">
          The owner has lost both? On this computer, run <code>npm run owner</code> for a new code.
        </p>
      )}
    </DoorPage>
  );
}
