/** Who works in the studio: for its owner. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type Account, type Role, ROLES } from '@waxwing/core/door';
import { useState } from 'react';
import { Link } from 'react-router';

import { accountsQuery } from '../api/door';
import { call } from '../api/http';
import { Dialog } from '../shell/dialog';
import { Await, Wrong } from '../shell/states';
import { ROLE_MEANS, ROLE_WORDS } from '../words/audit-words';
import { say } from '../words/say';
import { CodeShown } from './code-shown';
import { TextField } from './door-page';

export function PeopleHere() {
  const [adding, add] = useState(false);
  const [code, setCode] = useState<{ name: string; code: string } | null>(null);
  return (
    <section aria-labelledby="people-here">
      <h2 id="people-here" className="mb-1">
        {say.door.whoWorksHere}
      </h2>
      <Await query={useQuery(accountsQuery)} what={say.door.theStaff}>
        {(accounts) => (
          <ul className="ruled border-base-content border-t-2">
            {accounts.map((account) => (
              <Row key={account.id} account={account} onCode={setCode} />
            ))}
          </ul>
        )}
      </Await>
      <div className="mt-3 flex flex-wrap gap-2">
        <button type="button" className="btn" onClick={() => add(true)}>
          {say.door.addSomebody}
        </button>
        <Link className="btn" to="/studio/audit">
          {say.door.whoDidWhat}
        </Link>
      </div>
      {adding && (
        <Add
          onClose={() => add(false)}
          onAdded={(made) => {
            add(false);
            setCode(made);
          }}
        />
      )}
      {code && (
        <Dialog title={say.door.aCodeFor(code.name)} onClose={() => setCode(null)}>
          <p className="mb-4">{say.door.opensWaxwingPressesIHave(code.name)}</p>
          <CodeShown code={code.code} done={say.common.done} onDone={() => setCode(null)} />
        </Dialog>
      )}
    </section>
  );
}

function Row({ account, onCode }: { account: Account; onCode: (made: { name: string; code: string }) => void }) {
  const queries = useQueryClient();
  const again = () => queries.invalidateQueries({ queryKey: accountsQuery.queryKey });
  const change = useMutation({
    mutationFn: (body: { role?: Role; shutOut?: boolean }) => call('PATCH /accounts/{id}', { id: account.id, body }),
    onSuccess: again,
  });
  const newCode = useMutation({
    mutationFn: () => call('POST /accounts/{id}/code', { id: account.id }),
    onSuccess: ({ code }) => onCode({ name: account.name, code }),
  });
  const out = account.shutOutAt !== null;
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
      <span className="min-w-0 flex-1 font-semibold max-sm:basis-full">
        {account.name}
        {out && <span className="quiet font-normal">{say.door.isShutOut}</span>}
        {!out && !account.signsIn && <span className="quiet font-normal">{say.door.hasNoPassphraseYet}</span>}
      </span>
      <select
        aria-label={say.door.whatMayDo(account.name)}
        className="select w-40"
        value={account.role}
        disabled={out || change.isPending}
        onChange={(event) => change.mutate({ role: event.target.value as Role })}
      >
        {ROLES.map((role) => (
          <option key={role} value={role}>
            {ROLE_WORDS[role]}
          </option>
        ))}
      </select>
      <button type="button" className="btn btn-sm" disabled={out} onClick={() => newCode.mutate()}>
        {say.door.newCode}
      </button>
      <button type="button" className="btn btn-sm" onClick={() => change.mutate({ shutOut: !out })}>
        {out ? say.door.letInAgain : say.door.shutOutNow}
      </button>
      <span className="quiet basis-full text-sm">{ROLE_MEANS[account.role]}</span>
      <div className="basis-full empty:hidden">
        <Wrong error={change.error ?? newCode.error} />
      </div>
    </li>
  );
}

function Add({ onClose, onAdded }: { onClose: () => void; onAdded: (made: { name: string; code: string }) => void }) {
  const [name, setName] = useState('');
  const [role, setRole] = useState<Role>('trainer');
  const queries = useQueryClient();
  const add = useMutation({
    mutationFn: () => call('POST /accounts', { body: { name, role } }),
    onSuccess: async ({ code }) => {
      await queries.invalidateQueries({ queryKey: accountsQuery.queryKey });
      onAdded({ name, code });
    },
  });
  return (
    <Dialog title={say.door.addSomebody} onClose={onClose}>
      <form
        className="space-y-4"
        onSubmit={(event) => {
          event.preventDefault();
          add.mutate();
        }}
      >
        <TextField
          id="account-name"
          label={say.common.name}
          required
          maxLength={80}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <fieldset>
          <legend className="mb-1 font-bold">{say.door.maySee}</legend>
          {ROLES.map((one) => (
            <label key={one} className="flex min-h-11 items-center gap-3">
              <input
                type="radio"
                name="account-role"
                className="radio"
                checked={role === one}
                onChange={() => setRole(one)}
              />
              <span>
                {ROLE_WORDS[one]} <span className="quiet text-base">· {ROLE_MEANS[one]}</span>
              </span>
            </label>
          ))}
        </fieldset>
        <button type="submit" className="btn btn-primary target" disabled={add.isPending}>
          {say.door.makeACodeForThem}
        </button>
        <Wrong error={add.error} />
      </form>
    </Dialog>
  );
}
