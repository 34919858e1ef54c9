/** Recording what a tap meant, from anywhere on the floor. */
import type { Draft } from '@waxwing/core/floor';
import { createContext, useCallback, useContext } from 'react';

/** Records drafts of one client; resolves once they are safe on this device. */
export type Tap = (clientId: string, drafts: readonly Draft[]) => Promise<void>;

export const TapContext = createContext<Tap>(() => Promise.reject(new Error('no session is open here')));

/** The tap of one client's lane. */
export function useTap(clientId: string): (drafts: readonly Draft[]) => void {
  const tap = useContext(TapContext);
  return useCallback((drafts) => void tap(clientId, drafts), [tap, clientId]);
}
