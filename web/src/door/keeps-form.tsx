/** For how long the audit, the traces of deleted people and sessions are kept. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Keeps } from '@waxwing/core/door';
import { useState } from 'react';

import { keepsQuery } from '../api/door';
import { call } from '../api/http';
import { doorKeys } from '../api/keys';
import { Dialog } from '../shell/dialog';
import { Wrong } from '../shell/states';
import { say } from '../words/say';

const YEARS = [1, 2, 3, 5, 10];
const YEAR = 365;

const yearWords = (days: number): string => {
  const years = Math.round(days / YEAR);
  return say.door.years(years);
};

export function KeepsForm() {
  const keeps = useQuery(keepsQuery).data;
  const queries = useQueryClient();
  const [shorter, setShorter] = useState<number | null>(null);
  const save = useMutation({
    mutationFn: (next: Keeps) => call('PATCH /door/keeps', { body: next }),
    onSuccess: (next) => {
      queries.setQueryData(keepsQuery.queryKey, next);
      setShorter(null);
      // Both the change and what it let go stand in the list.
      void queries.invalidateQueries({ queryKey: doorKeys.audits });
    },
  });
  if (!keeps) return null;
  const change = (part: Partial<Keeps>) => save.mutate({ ...keeps, ...part });
  return (
    <details className="mb-4">
      <summary className="min-h-11 cursor-pointer">{say.door.howLongThingsAreKept}</summary>
      <div className="flex flex-wrap items-end gap-6 pb-2">
        <Years
          title={say.door.thisList}
          days={keeps.auditDays}
          onChange={(days) => days && change({ auditDays: days })}
        />
        <Years
          title={say.door.thatSomebodyWasDeletedFor}
          days={keeps.erasedDays}
          onChange={(days) => days && change({ erasedDays: days })}
        />
        <Years
          title={say.door.sessionsAndWhatTheyTaught}
          days={keeps.sessionDays}
          endless
          onChange={(days) =>
            days !== null && days < (keeps.sessionDays ?? Infinity) ? setShorter(days) : change({ sessionDays: days })
          }
        />
      </div>
      {shorter === null && <Wrong error={save.error} />}
      {shorter !== null && (
        <Dialog title={say.door.deleteOlderSessions} onClose={() => setShorter(null)}>
          <div className="space-y-4">
            <p>{say.door.sessionsOfMoreThanAgo(yearWords(shorter))}</p>
            <Wrong error={save.error} />
            <button
              type="button"
              className="btn btn-error btn-lg"
              disabled={save.isPending}
              onClick={() => change({ sessionDays: shorter })}
            >
              {say.door.deleteOlderSessions}
            </button>
          </div>
        </Dialog>
      )}
    </details>
  );
}

function Years({
  title,
  days,
  endless = false,
  onChange,
}: {
  title: string;
  days: number | null;
  endless?: boolean;
  onChange: (days: number | null) => void;
}) {
  const years = days === null ? null : Math.round(days / YEAR);
  return (
    <label>
      <span className="quiet block text-sm">{title}</span>
      <select
        className="select w-32"
        value={years ?? ''}
        onChange={({ target }) => onChange(target.value === '' ? null : Number(target.value) * YEAR)}
      >
        {endless && <option value="">{say.door.forEver}</option>}
        {[...new Set([...YEARS, ...(years === null ? [] : [years])])]
          .sort((a, b) => a - b)
          .map((n) => (
            <option key={n} value={n}>
              {yearWords(n * YEAR)}
            </option>
          ))}
      </select>
    </label>
  );
}
