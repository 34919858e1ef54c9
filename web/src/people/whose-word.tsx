/** On whose word something ends: it is asked for before it does, and kept. */
import { type ReactNode, useState } from 'react';

import { Wrong } from '../shell/states';
import { say } from '../words/say';

interface Props {
  /** What the field asks. */
  asks: string;
  /** What the button does. */
  ends: string;
  pending: boolean;
  error: Error | null;
  onSay: (by: string) => void;
  onCancel: () => void;
  children?: ReactNode;
}

export function WhoseWord({ asks, ends, pending, error, onSay, onCancel, children }: Props) {
  const [by, setBy] = useState('');
  return (
    <form
      autoComplete="off"
      className="my-2 flex w-full flex-wrap items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        onSay(by.trim());
      }}
    >
      {children}
      <input
        className="input w-56"
        aria-label={asks}
        placeholder={say.people.onWhoseWord}
        maxLength={200}

        autoFocus
        value={by}
        onChange={({ target }) => setBy(target.value)}
      />
      <button type="submit" className="btn btn-primary" disabled={by.trim() === '' || pending}>
        {ends}
      </button>
      <button type="button" className="btn btn-ghost" onClick={onCancel}>
        {say.common.cancel}
      </button>
      <Wrong error={error} />
    </form>
  );
}
