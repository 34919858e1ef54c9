/** What a tablet opens by the code that the desk shows: a name for it and a PIN, and it is in. */
import { useMutation } from '@tanstack/react-query';
import { PIN_DIGITS } from '@waxwing/core/door';
import { useState } from 'react';
import { useLocation, useNavigate } from 'react-router';

import { call } from '../api/http';
import { Wrong } from '../shell/states';
import { say } from '../words/say';
import { DoorPage, TextField } from './door-page';
import { useGoIn } from './use-door';

export function PairScreen() {
  const { hash } = useLocation();
  const [name, setName] = useState(say.door.tablet);
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
      <DoorPage title={say.door.noKey}>
        <p className="text-lg">{say.door.openTheAddressThatThe}</p>
      </DoorPage>
    );
  return (
    <DoorPage title={say.door.pairThisTablet}>
      <form
        className="space-y-5"
        onSubmit={(event) => {
          event.preventDefault();
          pair.mutate();
        }}
      >
        <TextField
          id="pair-name"
          label={say.door.whatIsItCalled}
          required
          maxLength={40}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <TextField
          id="pair-pin"
          label={say.door.pin}
          type="password"
          inputMode="numeric"
          autoComplete="off"
          required
          pattern={`\\d{${PIN_DIGITS.least},${PIN_DIGITS.most}}`}
          title={say.door.digits(PIN_DIGITS.least, PIN_DIGITS.most)}
          hint={say.door.toDigitsItIsAsked(PIN_DIGITS.least, PIN_DIGITS.most)}
          value={pin}
          onChange={(event) => setPin(event.target.value)}
        />
        <p className="quiet">{say.door.onATabletThereAre}</p>
        <button type="submit" className="btn btn-primary target w-full text-lg" disabled={pair.isPending}>
          {say.door.pair}
        </button>
        <Wrong error={pair.error} />
      </form>
    </DoorPage>
  );
}
