/** How large an element is drawn, in pixels of the page; null until it is known, or while it is nothing. */
import { type RefObject, useLayoutEffect, useRef, useState } from 'react';

export interface Size {
  width: number;
  height: number;
}

export function useSize(): [RefObject<HTMLDivElement | null>, Size | null] {
  const ref = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState<Size | null>(null);
  useLayoutEffect(() => {
    const element = ref.current;
    if (!element) return undefined;
    const measure = (): void => {
      const { clientWidth: width, clientHeight: height } = element;
      setSize((old) =>
        old?.width === width && old.height === height ? old : width * height === 0 ? null : { width, height },
      );
    };
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    measure();
    return () => observer.disconnect();
  }, []);
  return [ref, size];
}
