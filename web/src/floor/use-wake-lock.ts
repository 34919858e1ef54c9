/** Keeps the screen awake while the floor is shown; says where a device cannot. */
import { useEffect, useState } from 'react';

/** `false` where the screen may go to sleep. */
export function useWakeLock(): boolean {
  const [awake, setAwake] = useState(true);
  useEffect(() => {
    let lock: WakeLockSentinel | undefined;
    let over = false;
    const ask = async () => {
      if (document.hidden) return;
      try {
        if (!('wakeLock' in navigator)) throw new Error('missing');
        lock = await navigator.wakeLock.request('screen');
        if (over) void lock.release();
        else setAwake(true);
      } catch {
        if (!over) setAwake(false);
      }
    };
    // A lock is lost whenever the page is hidden.
    const again = () => void ask();
    void ask();
    document.addEventListener('visibilitychange', again);
    return () => {
      over = true;
      document.removeEventListener('visibilitychange', again);
      void lock?.release();
    };
  }, []);
  return awake;
}
