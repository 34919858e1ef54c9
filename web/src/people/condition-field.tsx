/** A condition proposes its usual limits; the trainer keeps what holds. */
import { type Condition, proposedLimits } from '@waxwing/core/client';
import type { Limit } from '@waxwing/core/movement';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { conditionsQuery } from '../api/queries';
import { today } from '../words/dates';

export function ConditionField({
  limits,
  onPropose,
}: {
  /** Those in the form. */
  limits: readonly Limit[];
  onPropose: (limits: Limit[]) => void;
}) {
  const { data: conditions = [] } = useQuery(conditionsQuery);
  const [chosen, choose] = useState<{ condition: Condition; added: number } | null>(null);
  return (
    <div className="border-base-300 border-l-4 pl-4">
      <label className="flex flex-wrap items-center gap-3">
        <span className="font-bold">Propose limits for</span>
        <select
          className="select w-72 max-w-full"
          value=""
          onChange={({ target }) => {
            const condition = conditions.find(({ id }) => id === target.value);
            if (!condition) return;
            const proposed = proposedLimits(condition, limits, today());
            choose({ condition, added: proposed.length });
            onPropose(proposed);
          }}
        >
          <option value="">a condition …</option>
          {conditions.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
      {chosen && (
        <p role="status" className="mt-2 max-w-[65ch]">
          <strong>{chosen.condition.name}:</strong> {chosen.condition.caution}{' '}
          {chosen.added === 0
            ? 'The limits above cover what is usual.'
            : `${chosen.added === 1 ? 'One limit is' : `${chosen.added} limits are`} proposed above: keep what holds, take out the rest. `}
          <span className="block">
            <strong>Stop at:</strong> {chosen.condition.stop}
          </span>
          Clear it with {chosen.condition.clearedBy} first; what they allow counts.
        </p>
      )}
    </div>
  );
}
