/** Small things that this device remembers. A browser may refuse that, and then nothing is remembered and nothing breaks. */

export function keptHere(key: string): string | null {
  try {
    return localStorage.getItem(key);
  } catch {
    return null;
  }
}

/** False where the device will not store it. */
export function keepHere(key: string, value: string): boolean {
  try {
    localStorage.setItem(key, value);
    return true;
  } catch {
    return false;
  }
}

/** Forgets all but some of it. */
export function forgetAllHere(but: readonly string[]): void {
  try {
    for (const key of Object.keys(localStorage)) if (!but.includes(key)) localStorage.removeItem(key);
  } catch {
    // Nothing was kept.
  }
}

export function forgetHere(key: string): void {
  try {
    localStorage.removeItem(key);
  } catch {
    // Nothing was kept.
  }
}
