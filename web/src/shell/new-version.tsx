/** The application kept on this device; a newer one waits until the trainer takes it, and never comes under a running session. */
import { useEffect, useState } from 'react';
import { useLocation } from 'react-router';

import { say } from '../words/say';

/** Says that a newer version is here, anywhere but on the floor. */
export function NewVersion() {
  const [waiting, setWaiting] = useState<ServiceWorker | null>(null);
  const { pathname } = useLocation();
  useEffect(() => {
    if (!import.meta.env.PROD || !('serviceWorker' in navigator)) return;
    void navigator.serviceWorker
      .register('/sw.js')
      .then((registration) => {
        // A first visit has nothing to wait for.
        const look = () => setWaiting(navigator.serviceWorker.controller ? registration.waiting : null);
        // One may be on its way in already when this page begins to listen.
        const follow = () => registration.installing?.addEventListener('statechange', look);
        look();
        follow();
        registration.addEventListener('updatefound', follow);
      })
      .catch(() => {
        // Without it the application needs its server, as any page does.
      });
  }, []);
  if (!waiting || pathname.startsWith('/floor/')) return null;
  const take = () => {
    navigator.serviceWorker.addEventListener('controllerchange', () => window.location.reload(), { once: true });
    waiting.postMessage({ type: 'SKIP_WAITING' });
  };
  return (
    <p role="status" className="no-print border-base-content flex flex-wrap items-center gap-4 border-b-2 px-4 py-2">
      {say.shell.aNewerWaxwingIsHere}
      <button type="button" className="btn btn-sm btn-primary" onClick={take}>
        {say.shell.useItNow}
      </button>
    </p>
  );
}
