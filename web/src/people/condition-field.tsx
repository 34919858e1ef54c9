/** A condition, dated from its event, proposes its usual limits; the trainer keeps what holds. */
import { useQuery } from '@tanstack/react-query';
import { proposedLimits } from '@waxwing/core/client';
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
  /** @param since day of the event, for what stands there of the condition already as well */
  onPropose: (limits: Limit[], condition: string, since: string) => void;
}) {
  const { data: conditions = [] } = useQuery(conditionsQuery);
  const [id, choose] = useState('');
  const [since, setSince] = useState(today());
  const [added, setAdded] = useState<number | null>(null);
  const condition = conditions.find((one) => one.id === id);
  return (
    <div className="border-base-300 space-y-2 border-l-4 pl-4">
      <label className="flex flex-wrap items-center gap-3">
        <span className="font-bold">{say.people.proposeLimitsFor}</span>
        <select
          className="select w-72 max-w-full"
          value={id}
          onChange={({ target }) => {
            choose(target.value);
            setSince(limits.find(({ condition }) => condition === target.value)?.since ?? today());
            setAdded(null);
          }}
        >
          <option value="">{say.people.aCondition}</option>
          {conditions.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </select>
      </label>
      {condition && (
        <>
          <div className="flex flex-wrap items-center gap-3">
            <label className="flex flex-wrap items-center gap-3">
              {say.people.sinceThe(condition.from)}
              <input
                type="date"
                className="input w-44"
                required
                max={today()}
                value={since}
                onChange={({ target }) => setSince(target.value)}
              />
            </label>
            <button
              type="button"
              className="btn"
              disabled={since === ''}
              onClick={() => {
                const proposed = proposedLimits(condition, limits, since);
                setAdded(proposed.length);
                onPropose(proposed, condition.id, since);
              }}
            >
              {say.people.proposeTheLimits}
            </button>
          </div>
          <p role="status" className="max-w-[65ch]">
            <strong>{condition.name}:</strong> {condition.caution} {added !== null && say.people.proposedAbove(added)}
            <span className="block">
              <strong>{say.common.stopAt}</strong> {condition.stop}
            </span>
            {say.people.clearItWithFirstWhat(condition.clearedBy)}
          </p>
        </>
      )}
    </div>
  );
}
