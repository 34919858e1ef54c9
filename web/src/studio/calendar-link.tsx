/** A link by which a calendar program shows the planned hours. It is told once; a new one ends the old one. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';

import { call } from '../api/http';
import { feedQuery } from '../api/queries';
import { Await, Wrong } from '../shell/states';
import { dayWords } from '../words/dates';
import { say } from '../words/say';

export function CalendarLink() {
  const queries = useQueryClient();
  const [link, setLink] = useState<string | null>(null);
  const [copied, setCopied] = useState(false);
  const told = () => queries.invalidateQueries({ queryKey: feedQuery.queryKey });
  const make = useMutation({
    mutationFn: () => call('POST /calendar'),
    onSuccess: ({ secret }) => {
      setLink(`${window.location.origin}/api/calendar/${secret}.ics`);
      setCopied(false);
      return told();
    },
  });
  const end = useMutation({
    mutationFn: () => call('DELETE /calendar'),
    onSuccess: () => {
      setLink(null);
      return told();
    },
  });
  const copy = async () => {
    if (link === null) return;
    await navigator.clipboard.writeText(link);
    setCopied(true);
  };
  return (
    <section aria-labelledby="calendar-link">
      <h2 id="calendar-link" className="mb-1">
        {say.common.calendar}
      </h2>
      <p className="quiet mb-3">{say.studio.aCalendarProgramThatIs}</p>
      <Await query={useQuery(feedQuery)} what={say.studio.theCalendarLink}>
        {({ since }) => (
          <>
            {link !== null ? (
              <p className="mb-3">
                <span className="block">{say.studio.copyItNowItIs}</span>
                <code className="bg-base-200 block p-2 break-all">{link}</code>
              </p>
            ) : (
              since !== null && <p className="mb-3">{say.studio.thereIsALinkSince(dayWords(since))}</p>
            )}
            <div className="flex flex-wrap gap-2">
              {link !== null && (
                <button type="button" className="btn btn-primary" onClick={() => void copy()}>
                  {copied ? say.studio.copied : say.studio.copyTheLink}
                </button>
              )}
              <button type="button" className="btn" disabled={make.isPending} onClick={() => make.mutate()}>
                {since === null ? say.studio.makeALink : say.studio.makeANewLinkAnd}
              </button>
              {since !== null && (
                <button type="button" className="btn" disabled={end.isPending} onClick={() => end.mutate()}>
                  {say.studio.endTheLink}
                </button>
              )}
            </div>
            <Wrong error={make.error ?? end.error} />
          </>
        )}
      </Await>
    </section>
  );
}
