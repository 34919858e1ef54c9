/** The house rules in force: the studio's, or one client's where theirs differ. */
import { type HouseRule, tagsInForce } from '@waxwing/core/movement';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { clientQuery, houseRulesQuery, studioQuery } from '../api/queries';

export interface RulesInForce {
  rules: readonly HouseRule[];
  tags: ReadonlySet<string>;
}

/** Undefined until they are here. */
export function useRules(clientId = ''): RulesInForce | undefined {
  const rules = useQuery(houseRulesQuery).data;
  const studio = useQuery(studioQuery).data;
  const client = useQuery({ ...clientQuery(clientId), enabled: clientId !== '' }).data;
  return useMemo(
    () => rules && studio && { rules, tags: tagsInForce(rules, studio.houseRules, client?.houseRules) },
    [rules, studio, client],
  );
}
