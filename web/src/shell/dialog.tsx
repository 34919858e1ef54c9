/** A modal sheet over a screen: closes by Escape, by its button, and by a tap beside it. */
import { X } from 'lucide-react';
import { type ReactNode, useEffect, useRef } from 'react';

import { say } from '../words/say';

export function Dialog({ title, onClose, children }: { title: string; onClose: () => void; children: ReactNode }) {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => dialog.current?.showModal(), []);
  return (
    // eslint-disable-next-line jsx-a11y-x/click-events-have-key-events, jsx-a11y-x/no-noninteractive-element-interactions -- Escape closes it as well
    <dialog
      ref={dialog}
      aria-label={title}
      className="bg-base-100 text-base-content m-auto max-h-[92vh] whitespace-normal w-full max-w-3xl border-0 p-0 text-xl backdrop:bg-black/60"
      onClose={onClose}
      onClick={(event) => event.target === event.currentTarget && onClose()}
    >
      <div className="p-5">
        <div className="mb-4 flex items-center justify-between gap-4">
          <h2 className="text-2xl">{title}</h2>
          <button type="button" className="btn target" aria-label={say.shell.close} onClick={onClose}>
            <X aria-hidden />
          </button>
        </div>
        {children}
      </div>
    </dialog>
  );
}
