/** The emergency card: what this studio does and whom to call, one tap away on every screen. */
import { useQuery } from '@tanstack/react-query';
import { EMERGENCY_ADVICE } from '@waxwing/core/client';
import { Phone } from 'lucide-react';
import { useState } from 'react';
import { Link, useLocation } from 'react-router';

import { studioQuery } from '../api/queries';
import { Marked } from '../words/marked';
import { say } from '../words/say';
import { Dialog } from './dialog';
import { useKeys } from './use-keys';

/** @param small one of the buttons in the head of the floor */
export function Emergency({ small = false }: { small?: boolean }) {
  const [open, setOpen] = useState(false);
  const { pathname } = useLocation();
  const { data: studio } = useQuery(studioQuery);
  useKeys(['h'], () => pathname.startsWith('/floor/') && setOpen(true));
  const close = () => setOpen(false);
  return (
    <>
      <button
        type="button"
        className={
          small
            ? 'btn target w-14 px-0 max-sm:w-12'
            : 'flex min-h-14 flex-1 cursor-pointer flex-col items-center justify-center gap-1 px-1 text-sm hover:bg-white/10 sm:mt-auto sm:min-h-18 sm:flex-none'
        }
        {...(small ? { title: say.shell.emergency } : {})}
        onClick={() => setOpen(true)}
      >
        <Phone aria-hidden size={22} />
        <span className={small ? 'sr-only' : 'max-sm:sr-only'}>{say.shell.emergency}</span>
      </button>
      {open && (
        <Dialog title={say.shell.emergency} onClose={close}>
          <p className="alarm mb-4 p-4 text-2xl font-bold">{EMERGENCY_ADVICE}</p>
          {studio?.emergencyPhone && (
            <p className="mb-4">
              <a
                className="btn btn-primary min-h-20 w-full text-4xl"
                href={`tel:${studio.emergencyPhone.replace(/[^\d+]/g, '')}`}
              >
                <Phone aria-hidden /> {studio.emergencyPhone}
              </a>
            </p>
          )}
          {studio?.emergencyText ? (
            <p className="text-2xl whitespace-pre-line">{studio.emergencyText}</p>
          ) : (
            <p>
              <Marked
                words={say.shell.whatIsDoneHereIs}
                as={(where) => (
                  <Link className="link" to="/studio" onClick={close}>
                    {where}
                  </Link>
                )}
              />
            </p>
          )}
        </Dialog>
      )}
    </>
  );
}
