/** Light, dim or high contrast: as the machine prefers, until the trainer chooses. The choice stays on this device. */
import { useSyncExternalStore } from 'react';

import { say } from '../words/say';
import { keepHere, keptHere } from './kept';

export const THEMES = say.shell.themes;
export type Theme = keyof typeof THEMES;

export const THEME_KEY = 'waxwing-theme';
const listeners = new Set<() => void>();

function read(): Theme {
  const stored = keptHere(THEME_KEY);
  return stored !== null && stored in THEMES ? (stored as Theme) : 'auto';
}

function apply(theme: Theme): void {
  if (theme === 'auto') delete document.documentElement.dataset.theme;
  else document.documentElement.dataset.theme = theme;
}

apply(read());

export function chooseTheme(theme: Theme): void {
  keepHere(THEME_KEY, theme);
  apply(theme);
  for (const listener of listeners) listener();
}

export const useTheme = (): Theme =>
  useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, read);
