/** What a tablet opens by the code that the desk shows: a name for it and a PIN, and it is in. */
import { PIN_DIGITS } from '@waxwing/core/door';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { call } from '../api/http';
import { Wrong } from '../shell/states';
import { DoorPage, TextField } from './door-page';
import { useGoIn } from './use-door';

export function PairScreen() {
  const { hash } = useLocation();
  const [name, setName] = useState('Tablet');
  const [pin, setPin] = useState('');
  const goIn = useGoIn();
  const navigate = useNavigate();
  const pair = useMutation({
    mutationFn: async () => {
      await call('POST /door/pair', { body: { key: hash.slice(1), name, pin } });
      await goIn();
      await navigate('/floor', { replace: true });
    },
  });
  if (hash.length < 2)
    return (
      <DoorPage title="No key">
        <p className="text-lg">Open the address that the desk shows under Studio, “Pair a tablet”.</p>
      </DoorPage>
    );
  return (
    <DoorPage title="Pair this tablet">
      <form
        className="space-y-5"
        onSubmit={(event) => {
          event.preventDefault();
          pair.mutate();
        }}
      >
        <TextField
          id="pair-name"
          label="What is it called?"
          required
          maxLength={40}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <TextField
          id="pair-pin"
          label="PIN"
          type="password"
          inputMode="numeric"
          autoComplete="off"
          required
          pattern={`\\d{${PIN_DIGITS.least},${PIN_DIGITS.most}}`}
          title={`${PIN_DIGITS.least} to ${PIN_DIGITS.most} digits`}
          hint={`${PIN_DIGITS.least} to ${PIN_DIGITS.most} digits. It is asked for each time the tablet is taken up.`}
          value={pin}
          onChange={(event) => setPin(event.target.value)}
        />
        <p className="quiet">
          On a tablet there are sessions, the library and the plans. Health notes and reasons of limits stay at the
          desk.
        </p>
        <button type="submit" className="btn btn-primary target w-full text-lg" disabled={pair.isPending}>
          Pair
        </button>
        <Wrong error={pair.error} />
      </form>
    </DoorPage>
  );
}
