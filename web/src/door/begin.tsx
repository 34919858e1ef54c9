/** The first start: who runs the studio, and whether this machine asks for a passphrase. */
import { useMutation } from '@tanstack/react-query';
import { PASSPHRASE_LEAST } from '@waxwing/core/door';
import { useState } from 'react';

import { call } from '../api/http';
import { Wrong } from '../shell/states';
import { say } from '../words/say';
import { DoorPage, TextField } from './door-page';
import { useGoIn } from './use-door';

/** @param onCode is given the code that opens the studio again: it is shown this once */
export function Begin({ onCode }: { onCode: (code: string) => void }) {
  const [name, setName] = useState('');
  const [passphrase, setPassphrase] = useState('');
  const [open, setOpen] = useState(false);
  const goIn = useGoIn();
  const begin = useMutation({
    mutationFn: async () => {
      const body = { name, open, ...(open ? {} : { passphrase }) };
      const { code } = await call('POST /door/begin', { body });
      if (code === null) await goIn();
      else onCode(code);
    },
  });
  return (
    <DoorPage title={say.door.whoRunsThisStudio}>
      <form
        className="space-y-5"
        onSubmit={(event) => {
          event.preventDefault();
          begin.mutate();
        }}
      >
        <TextField
          id="begin-name"
          label={say.door.yourName}
          autoComplete="username"
          required
          autoFocus
          maxLength={80}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <fieldset className="space-y-2">
          <legend className="mb-1 font-bold">{say.door.onThisComputer}</legend>
          <label className="flex min-h-11 items-center gap-3">
            <input type="radio" name="begin-open" className="radio" checked={!open} onChange={() => setOpen(false)} />
            {say.door.askForAPassphrase}
          </label>
          <label className="flex min-h-11 items-center gap-3">
            <input type="radio" name="begin-open" className="radio" checked={open} onChange={() => setOpen(true)} />
            {say.door.openWithoutSigningInOnly}
          </label>
        </fieldset>
        {!open && (
          <TextField
            id="begin-passphrase"
            label={say.door.passphrase}
            type="password"
            autoComplete="new-password"
            required
            minLength={PASSPHRASE_LEAST}
            hint={say.door.threeOrFourWordsThat}
            value={passphrase}
            onChange={(event) => setPassphrase(event.target.value)}
          />
        )}
        <button type="submit" className="btn btn-primary target w-full text-lg" disabled={begin.isPending}>
          {say.door.openTheStudio}
        </button>
        <Wrong error={begin.error} />
      </form>
    </DoorPage>
  );
}
