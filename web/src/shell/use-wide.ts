/** Whether the screen is wide enough for what stands beside what is in work. */
import { useSyncExternalStore } from 'react';

const WIDE = window.matchMedia('(min-width: 64rem)');

const listen = (told: () => void): (() => void) => {
  WIDE.addEventListener('change', told);
  return () => WIDE.removeEventListener('change', told);
};

export const useWide = (): boolean => useSyncExternalStore(listen, () => WIDE.matches);
