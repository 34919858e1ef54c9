/** Whether an element has come near what is seen of the page: drawing far ahead of somebody who scrolls only keeps them waiting. */
import { type RefObject, useEffect, useRef, useState } from 'react';

/** How far ahead counts as near: about a screen. */
const AHEAD = '800px 0px';

/** @returns the element to watch, and true from the first time on that it was near */
export function useNear<T extends Element>(): [RefObject<T | null>, boolean] {
  const ref = useRef<T>(null);
  const [near, come] = useState(false);
  useEffect(() => {
    const element = ref.current;
    if (!element || near) return undefined;
    const observer = new IntersectionObserver(
      (seen) => {
        if (seen.some(({ isIntersecting }) => isIntersecting)) come(true);
      },
      { rootMargin: AHEAD },
    );
    observer.observe(element);
    return () => observer.disconnect();
  }, [near]);
  return [ref, near];
}
