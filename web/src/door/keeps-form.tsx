/** For how long the audit and the traces of deleted people are kept. */
import type { Keeps } from '@waxwing/core/door';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { keepsQuery } from '../api/door';
import { call } from '../api/http';
import { Wrong } from '../shell/states';

const YEARS = [1, 2, 3, 5, 10];
const YEAR = 365;

export function KeepsForm() {
  const keeps = useQuery(keepsQuery).data;
  const queries = useQueryClient();
  const save = useMutation({
    mutationFn: (next: Keeps) => call('PATCH /door/keeps', { body: next }),
    onSuccess: (next) => queries.setQueryData(keepsQuery.queryKey, next),
  });
  if (!keeps) return null;
  return (
    <details className="mb-4">
      <summary className="min-h-11 cursor-pointer">How long this is kept</summary>
      <div className="flex flex-wrap gap-6 pb-2">
        <Years
          title="This list"
          days={keeps.auditDays}
          onChange={(auditDays) => save.mutate({ ...keeps, auditDays })}
        />
        <Years
          title="That somebody was deleted, for devices that come by late"
          days={keeps.erasedDays}
          onChange={(erasedDays) => save.mutate({ ...keeps, erasedDays })}
        />
      </div>
      <Wrong error={save.error} />
    </details>
  );
}

function Years({ title, days, onChange }: { title: string; days: number; onChange: (days: number) => void }) {
  const years = Math.round(days / YEAR);
  return (
    <label>
      <span className="quiet block text-sm">{title}</span>
      <select className="select w-32" value={years} onChange={(event) => onChange(Number(event.target.value) * YEAR)}>
        {[...new Set([...YEARS, years])]
          .sort((a, b) => a - b)
          .map((n) => (
            <option key={n} value={n}>
              {n} {n === 1 ? 'year' : 'years'}
            </option>
          ))}
      </select>
    </label>
  );
}
