/** A tablet that was put down: its PIN, by large keys. */
import { useMutation } from '@tanstack/react-query';
import { PIN_DIGITS } from '@waxwing/core/door';
import { Delete } from 'lucide-react';
import { useState } from 'react';

import { call } from '../api/http';
import { Wrong } from '../shell/states';
import { say } from '../words/say';
import { DoorPage } from './door-page';
import { useGoIn } from './use-door';

const DIGITS = ['1', '2', '3', '4', '5', '6', '7', '8', '9'];

export function PinScreen() {
  const [pin, setPin] = useState('');
  const goIn = useGoIn();
  const unlock = useMutation({
    mutationFn: async () => {
      await call('POST /door/unlock', { body: { pin } });
      await goIn();
    },
    onError: () => setPin(''),
  });
  const type = (digit: string) => setPin(`${pin}${digit}`.slice(0, PIN_DIGITS.most));
  return (
    <DoorPage title={say.door.pinOfThisTablet}>
      <form
        className="space-y-4"
        onSubmit={(event) => {
          event.preventDefault();
          unlock.mutate();
        }}
      >
        <input
          aria-label={say.door.pin}
          type="password"
          inputMode="none"
          autoComplete="off"
          autoFocus
          className="input min-h-16 w-full text-center text-4xl tracking-widest"
          value={pin}
          onChange={(event) => setPin(event.target.value.replace(/\D/g, '').slice(0, PIN_DIGITS.most))}
        />
        <div className="grid grid-cols-3 gap-2">
          {DIGITS.map((digit) => (
            <button key={digit} type="button" className="btn min-h-16 text-3xl" onClick={() => type(digit)}>
              {digit}
            </button>
          ))}
          <button
            type="button"
            className="btn min-h-16"
            aria-label={say.door.takeTheLastDigitAway}
            onClick={() => setPin(pin.slice(0, -1))}
          >
            <Delete aria-hidden />
          </button>
          <button type="button" className="btn min-h-16 text-3xl" onClick={() => type('0')}>
            0
          </button>
          <button
            type="submit"
            className="btn btn-primary min-h-16 text-xl"
            disabled={pin.length < PIN_DIGITS.least || unlock.isPending}
          >
            {say.door.open}
          </button>
        </div>
        <Wrong error={unlock.error} />
      </form>
    </DoorPage>
  );
}
