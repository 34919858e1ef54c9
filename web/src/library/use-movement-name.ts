/** What movements are called; in plain words of their id where one is gone, or not here yet. */
import { useQuery } from '@tanstack/react-query';
import { inWords } from '@waxwing/core/movement';
import { useMemo } from 'react';

import { movementsQuery } from '../api/queries';

export function useMovementName(): (id: string) => string {
  const library = useQuery(movementsQuery).data;
  return useMemo(() => {
    const names = new Map(library?.map(({ id, name }) => [id, name]));
    return (id) => names.get(id) ?? inWords(id);
  }, [library]);
}
