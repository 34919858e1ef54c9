/** The studio's house rules, and which of their options are in force. */
import { useQuery } from '@tanstack/react-query';
import { type HouseRule, tagsInForce } from '@waxwing/core/movement';
import { useMemo } from 'react';

import { houseRulesQuery, studioQuery } from '../api/queries';

export interface RulesInForce {
  rules: readonly HouseRule[];
  tags: ReadonlySet<string>;
}

/** Undefined until they are here. */
export function useRules(): RulesInForce | undefined {
  const rules = useQuery(houseRulesQuery).data;
  const studio = useQuery(studioQuery).data;
  return useMemo(() => rules && studio && { rules, tags: tagsInForce(rules, studio.houseRules) }, [rules, studio]);
}
