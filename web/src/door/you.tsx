/** Whoever is in: signing out, the passphrase, and whether this machine asks for one. */
import { useMutation, useQuery } from '@tanstack/react-query';
import { type Door, PASSPHRASE_LEAST } from '@waxwing/core/door';
import { useState } from 'react';

import { doorQuery } from '../api/door';
import { call } from '../api/http';
import { Dialog } from '../shell/dialog';
import { Await, Wrong } from '../shell/states';
import { ROLE_WORDS } from '../words/audit-words';
import { say } from '../words/say';
import { CodeShown } from './code-shown';
import { TextField } from './door-page';
import { useGoIn, useSignOut } from './use-door';

export const You = () => (
  <Await query={useQuery(doorQuery)} what={say.door.whoIsSignedIn}>
    {(door) => <Who door={door} />}
  </Await>
);

function Who({ door }: { door: Door }) {
  const [changing, change] = useState(false);
  const goIn = useGoIn();
  const signOut = useSignOut();
  const setOpen = useMutation({
    mutationFn: async (open: boolean) => {
      await call('PATCH /door', { body: { open } });
      await goIn();
    },
  });
  const { visitor, state, here, demo, token, tablet } = door;
  if (!visitor) return null;
  return (
    <section aria-labelledby="you">
      <h2 id="you" className="mb-1">
        {say.door.you}
      </h2>
      <p className="mb-3 text-lg">
        {visitor.name || say.door.whoeverUsesThisComputer} <span className="quiet">· {ROLE_WORDS[visitor.role]}</span>
        {tablet && <span className="quiet">{say.door.onThisTablet}</span>}
      </p>
      {state === 'open' && here && (
        <p className="quiet mb-3">{demo ? say.door.theDemoSignsInBy : say.door.nobodySignsInOnThis}</p>
      )}
      <div className="flex flex-wrap gap-2">
        {token !== null && (
          <button type="button" className="btn" disabled={signOut.isPending} onClick={() => signOut.mutate(door)}>
            {say.door.signOut}
          </button>
        )}
        {!tablet && (
          <button type="button" className="btn" onClick={() => change(true)}>
            {state === 'open' ? say.door.setAPassphrase : say.door.changePassphrase}
          </button>
        )}
        {here && visitor.role === 'owner' && (
          <button
            type="button"
            className="btn"
            disabled={setOpen.isPending}
            onClick={() => setOpen.mutate(state === 'closed')}
          >
            {state === 'closed' ? say.door.openThisComputerWithoutSigning : say.door.askForThePassphraseOn}
          </button>
        )}
      </div>
      <Wrong error={signOut.error ?? setOpen.error} />
      {changing && <ChangePassphrase first={state === 'open'} onClose={() => change(false)} />}
    </section>
  );
}

function ChangePassphrase({ first, onClose }: { first: boolean; onClose: () => void }) {
  const [now, setNow] = useState('');
  const [passphrase, setPassphrase] = useState('');
  const goIn = useGoIn();
  const save = useMutation({
    mutationFn: () => call('POST /door/passphrase', { body: { passphrase, ...(now ? { now } : {}) } }),
  });
  const done = async () => {
    onClose();
    await goIn();
  };
  if (save.data)
    return (
      <Dialog title={say.door.ifYouForgetIt} onClose={() => void done()}>
        <p className="mb-4">{say.door.withThisCodeYouChooseAnother}</p>
        <CodeShown code={save.data.code} done={say.common.done} onDone={() => void done()} />
      </Dialog>
    );
  return (
    <Dialog title={first ? say.door.setAPassphrase : say.door.changePassphrase} onClose={onClose}>
      <form
        className="space-y-4"
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate();
        }}
      >
        <TextField
          id="passphrase-now"
          label={first ? say.door.passphraseSoFarIfThere : say.door.passphraseSoFar}
          type="password"
          autoComplete="current-password"
          required={!first}
          value={now}
          onChange={(event) => setNow(event.target.value)}
        />
        <TextField
          id="passphrase-next"
          label={say.door.newPassphrase}
          type="password"
          autoComplete="new-password"
          required
          minLength={PASSPHRASE_LEAST}
          hint={say.door.threeOrFourWordsThatDo}
          value={passphrase}
          onChange={(event) => setPassphrase(event.target.value)}
        />
        <button type="submit" className="btn btn-primary target" disabled={save.isPending}>
          {say.common.save}
        </button>
        <Wrong error={save.error} />
      </form>
    </Dialog>
  );
}
