/** A condition proposes its usual limits; the trainer keeps what holds. */
import { useQuery } from '@tanstack/react-query';
import { type Condition, proposedLimits } from '@waxwing/core/client';
import type { Limit } from '@waxwing/core/movement';
import { useState } from 'react';

import { conditionsQuery } from '../api/queries';
import { today } from '../words/dates';
import { say } from '../words/say';

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
        <span className="font-bold">{say.people.proposeLimitsFor}</span>
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
          <option value="">{say.people.aCondition}</option>
          {conditions.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
      {chosen && (
        <p role="status" className="mt-2 max-w-[65ch]">
          <strong>{chosen.condition.name}:</strong>
          {say.people.theLimitsAboveCoverWhat(chosen.condition.caution, chosen.added)}
          <span className="block">
            <strong>{say.common.stopAt}</strong> {chosen.condition.stop}
          </span>
          {say.people.clearItWithFirstWhat(chosen.condition.clearedBy)}
        </p>
      )}
    </div>
  );
}
