/** Choices of a screen live in its address, so that a link or a reload brings them back. */
import { useSearchParams } from 'react-router';

/** Sets one part of the address's query, or takes it out when there is nothing to say. */
export function useSetParam(): (key: string, value: string) => void {
  const [, setParams] = useSearchParams();
  return (key, value) =>
    setParams(
      (old) => {
        if (value) old.set(key, value);
        else old.delete(key);
        return old;
      },
      { replace: true },
    );
}
