/** The first start: who runs the studio, and whether this machine asks for a passphrase. */
import { PASSPHRASE_LEAST } from '@waxwing/core/door';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '../api/http';
import { Wrong } from '../shell/states';
import { CodeShown } from './code-shown';
import { DoorPage, TextField } from './door-page';
import { useGoIn } from './use-door';

export function Begin() {
  const [name, setName] = useState('');
  const [passphrase, setPassphrase] = useState('');
  const [open, setOpen] = useState(false);
  const goIn = useGoIn();
  const begin = useMutation({
    mutationFn: async () => {
      const body = { name, open, ...(open ? {} : { passphrase }) };
      const { code } = await call('POST /door/begin', { body });
      if (code === null) await goIn();
      return code;
    },
  });
  if (begin.data)
    return (
      <DoorPage title="If you forget your passphrase">
        <p className="text-lg">With this code you choose another one:</p>
        <CodeShown code={begin.data} done="Open the studio" onDone={() => void goIn()} />
      </DoorPage>
    );
  return (
    <DoorPage title="Who runs this studio?">
      <form
        className="space-y-5"
        onSubmit={(event) => {
          event.preventDefault();
          begin.mutate();
        }}
      >
        <TextField
          id="begin-name"
          label="Your name"
          autoComplete="username"
          required
          autoFocus
          maxLength={80}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <fieldset className="space-y-2">
          <legend className="mb-1 font-bold">On this computer</legend>
          <label className="flex min-h-11 items-center gap-3">
            <input type="radio" name="begin-open" className="radio" checked={!open} onChange={() => setOpen(false)} />
            Ask for a passphrase
          </label>
          <label className="flex min-h-11 items-center gap-3">
            <input type="radio" name="begin-open" className="radio" checked={open} onChange={() => setOpen(true)} />
            Open without signing in: only I use it
          </label>
        </fieldset>
        {!open && (
          <TextField
            id="begin-passphrase"
            label="Passphrase"
            type="password"
            autoComplete="new-password"
            required
            minLength={PASSPHRASE_LEAST}
            hint="Three or four words that do not belong together. Health notes lie behind it."
            value={passphrase}
            onChange={(event) => setPassphrase(event.target.value)}
          />
        )}
        <button type="submit" className="btn btn-primary target w-full text-lg" disabled={begin.isPending}>
          Open the studio
        </button>
        <Wrong error={begin.error} />
      </form>
    </DoorPage>
  );
}
