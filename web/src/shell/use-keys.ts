/** Keys of a screen, by what they produce and not by where they sit, so that they are the same on every keyboard layout. */
import { useHotkeys } from 'react-hotkeys-hook';

/**
 * Calls `act` when one of the keys is pressed, outside of fields and sheets. A key held down counts once.
 * @param keys what `KeyboardEvent.key` says, such as `s`, `?` or `ArrowUp`
 */
export function useKeys(keys: readonly string[], act: (key: string) => void): void {
  useHotkeys(
    keys.flatMap((key) => (/^[?/]$/.test(key) ? [key, `shift+${key}`] : [key])),
    (event) => {
      if (event.repeat || document.querySelector('dialog[open]')) return;
      event.preventDefault();
      act(event.key);
    },
    { useKey: true },
  );
}
