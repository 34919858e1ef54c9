/** The frame of every screen: one thin rail, and what the address shows beside it. */
import './theme';

import { Suspense, useEffect } from 'react';
import { NavLink, Outlet, ScrollRestoration, useMatch, useMatches, useNavigation } from 'react-router';

import { DoorFrame } from '../door/door-frame';
import { forgetErased } from '../floor/forget';
import { flushTaps } from '../floor/tap-queue';
import { say } from '../words/say';
import { Emergency } from './emergency';
import { LowSpace } from './low-space';
import { NewVersion } from './new-version';
import { PLACES } from './places';
import { Loading } from './states';
import { useWide } from './use-wide';

/** The `handle` of a route that has the screen for itself, without the rail. */
export const WHOLE_SCREEN = 'whole-screen';

export const Shell = () => (
  <DoorFrame>
    <House />
  </DoorFrame>
);

function House() {
  const whole = useMatches().some(({ handle }) => handle === WHOLE_SCREEN);
  // On a tablet or a phone the floor has the screen for itself; its head leads to the other places.
  const onFloor = useMatch('/floor/:sessionId') !== null;
  const folded = !useWide() && onFloor;
  const navigation = useNavigation();
  // Taps that an earlier visit could not send go out wherever the trainer comes back to.
  // What was deleted meanwhile goes first.
  useEffect(() => void forgetErased().then(flushTaps), []);
  return (
    <div className="flex h-full flex-col-reverse sm:flex-row">
      <a href="#main" className="btn btn-primary sr-only focus:not-sr-only focus:absolute focus:z-50">
        {say.shell.skipToContent}
      </a>
      {!whole && !folded && <Rail />}
      {/* What is said above a screen takes its room from it: a screen that fills the rest still ends at the edge. */}
      <div className="flex min-h-0 min-w-0 flex-1 flex-col">
        <NewVersion />
        <LowSpace />
        <main
          id="main"
          tabIndex={-1}
          className="flex min-h-0 flex-1 flex-col overflow-y-auto outline-none"
          aria-busy={navigation.state === 'loading'}
        >
          <Suspense fallback={<Loading what={say.shell.theScreen} />}>
            <Outlet />
          </Suspense>
        </main>
      </div>
      <ScrollRestoration />
    </div>
  );
}

/** Where one can go, from every screen, and what to do in an emergency. */
function Rail() {
  return (
    <nav
      aria-label={say.common.main}
      className="flex shrink-0 bg-neutral text-neutral-content sm:w-21 sm:flex-col sm:pt-4"
    >
      {PLACES.map(({ to, name, Icon }) => (
        <NavLink
          key={to}
          to={to}
          end={to === '/'}
          className={({ isActive }) =>
            `flex min-h-14 flex-1 flex-col items-center justify-center gap-1 px-1 text-sm sm:min-h-18 sm:flex-none ${
              isActive ? 'bg-base-100 text-base-content font-bold' : 'hover:bg-white/10'
            }`
          }
        >
          <Icon aria-hidden size={22} />
          {name}
        </NavLink>
      ))}
      <Emergency />
    </nav>
  );
}
