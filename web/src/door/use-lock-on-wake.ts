/** A tablet that was put down asks for its PIN when it is taken up again. */
import { useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';

import { doorQuery } from '../api/door';
import { call } from '../api/http';

/** Looking something up on another page is not putting it down. */
const PUT_DOWN_MS = 60_000;

export function useLockOnWake(tablet: boolean): void {
  const queries = useQueryClient();
  useEffect(() => {
    if (!tablet) return;
    let hiddenAt = 0;
    const changed = () => {
      if (document.hidden) hiddenAt = Date.now();
      else if (hiddenAt > 0 && Date.now() - hiddenAt > PUT_DOWN_MS)
        void call('POST /door/lock').then(() => queries.invalidateQueries({ queryKey: doorQuery.queryKey }));
    };
    document.addEventListener('visibilitychange', changed);
    return () => document.removeEventListener('visibilitychange', changed);
  }, [tablet, queries]);
}
