/** Choosing a school for each house rule: the studio for everybody, or one client where theirs differs. */
import { useQuery } from '@tanstack/react-query';
import type { HouseRule } from '@waxwing/core/movement';
import { useFormContext } from 'react-hook-form';

import { houseRulesQuery } from '../api/queries';
import { say } from '../words/say';

interface WithRules {
  houseRules: Record<string, string>;
}

/** What is sent: only the rules for which something was chosen. */
export const chosenRules = (fields: WithRules): Record<string, string> =>
  Object.fromEntries(Object.entries(fields.houseRules).filter(([, option]) => option !== ''));

/** @param unset what an unchosen rule means, such as `as the studio`; left out, the first option stands for it */
export function RuleFields({ unset }: { unset?: string }) {
  const rules = useQuery(houseRulesQuery).data ?? [];
  return (
    <fieldset>
      <legend className="mb-1 text-xl font-bold">{say.people.houseRules}</legend>
      <p className="quiet mb-2 text-sm">{say.people.goodTrainersDifferHereThe}</p>
      <ul className="ruled">
        {rules.map((rule) => (
          <Rule key={rule.id} rule={rule} unset={unset} />
        ))}
      </ul>
    </fieldset>
  );
}

function Rule({ rule, unset }: { rule: HouseRule; unset: string | undefined }) {
  const { register, watch } = useFormContext<WithRules>();
  const chosen = watch(`houseRules.${rule.id}`);
  const option = rule.options.find(({ id }) => id === chosen) ?? (unset === undefined ? rule.options[0] : undefined);
  return (
    <li className="grid gap-x-4 gap-y-1 py-2 sm:grid-cols-2">
      <label htmlFor={`rule-${rule.id}`}>
        <span className="font-semibold">{rule.matter}</span>
        <span className="quiet block text-sm">{say.people.bothKeep(rule.both)}</span>
      </label>
      <span>
        <select id={`rule-${rule.id}`} className="select w-full" {...register(`houseRules.${rule.id}`)}>
          {unset !== undefined && <option value="">{unset}</option>}
          {rule.options.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
        {option && <span className="quiet block text-sm">{option.reason}</span>}
      </span>
    </li>
  );
}
