/** Plain `<a href>` elements that stay inside the application: one listener for a long list, instead of one router link for each row. */
import type { MouseEvent } from 'react';
import { useNavigate } from 'react-router';

/** For `onClick` of the element around the links. Clicks meant for a new tab or window are left alone. */
export function usePlainLinks(): (event: MouseEvent) => void {
  const navigate = useNavigate();
  return (event) => {
    if (
      event.defaultPrevented ||
      event.button !== 0 ||
      event.metaKey ||
      event.ctrlKey ||
      event.shiftKey ||
      event.altKey
    )
      return;
    const href = (event.target as Element).closest('a')?.getAttribute('href');
    if (!href?.startsWith('/')) return;
    event.preventDefault();
    void navigate(href);
  };
}
