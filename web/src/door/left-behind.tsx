/** What devices had not sent yet when they were shut out: the owner takes it in or throws it away. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Left } from '@waxwing/core/door';
import { useState } from 'react';

import { leftQuery } from '../api/door';
import { call } from '../api/http';
import { Dialog } from '../shell/dialog';
import { Wrong } from '../shell/states';
import { dayWords, timeWords } from '../words/dates';
import { say } from '../words/say';

export function LeftBehind() {
  const left = useQuery(leftQuery).data ?? [];
  if (left.length === 0) return null;
  return (
    <section aria-labelledby="left-behind">
      <h2 id="left-behind" className="mb-1">
        {say.door.leftBehind}
      </h2>
      <p className="quiet mb-2">{say.door.leftBehindMeans}</p>
      <ul className="ruled border-base-content border-t-2">
        {left.map((one) => (
          <Row key={one.id} left={one} />
        ))}
      </ul>
    </section>
  );
}

function Row({ left: { id, device, accountName, clientNames, taps, leftAt } }: { left: Left }) {
  const [asking, ask] = useState(false);
  const queries = useQueryClient();
  // Taps count everywhere: what was worked out without them is asked for anew.
  const take = useMutation({
    mutationFn: () => call('POST /left/{id}/take', { id }),
    onSuccess: () => queries.invalidateQueries(),
  });
  const throwAway = useMutation({
    mutationFn: () => call('DELETE /left/{id}', { id }),
    onSuccess: () => queries.invalidateQueries({ queryKey: leftQuery.queryKey }),
  });
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
      <span className="min-w-0 flex-1 font-semibold">
        {device} <span className="quiet font-normal">· {accountName}</span>
        <span className="block font-normal">{say.door.tapsOf(taps, clientNames.join(', '))}</span>
      </span>
      <span className="quiet">
        {dayWords(leftAt)}, {timeWords(leftAt)}
      </span>
      <button type="button" className="btn btn-primary btn-sm" disabled={take.isPending} onClick={() => take.mutate()}>
        {say.door.takeThemIn}
      </button>
      <button type="button" className="btn btn-sm" onClick={() => ask(true)}>
        {say.door.throwThemAway}
      </button>
      {take.data?.why && (
        <p role="status" className="w-full">
          {say.door.someDidNotFit(take.data.refused, take.data.why)}
        </p>
      )}
      <Wrong error={take.error ?? throwAway.error} />
      {asking && (
        <Dialog title={say.door.throwTapsAway(taps, device)} onClose={() => ask(false)}>
          <p className="mb-4">{say.door.theyAreGoneForGood}</p>
          <button
            type="button"
            className="btn btn-primary target"
            disabled={throwAway.isPending}
            onClick={() => throwAway.mutate()}
          >
            {say.door.throwThemAway}
          </button>
        </Dialog>
      )}
    </li>
  );
}
