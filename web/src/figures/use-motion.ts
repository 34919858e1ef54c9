/** The motion of a movement, clean or with a fault; undefined while figures are on their way, null when it has none yet. */
import { useQuery } from '@tanstack/react-query';
import { type FigureLibrary, type Motion, motionOf } from '@waxwing/core/body';
import { figureIdOf, type Movement } from '@waxwing/core/movement';
import { useMemo } from 'react';

import { figuresQuery } from '../api/queries';

/** What a motion needs to know of its movement. */
export type Moved = Pick<Movement, 'id' | 'drawnAs' | 'dose' | 'sides'> &
  Partial<Pick<Movement, 'phases' | 'position'>>;

export const motionIn = (library: FigureLibrary, moved: Moved, faultId?: string): Motion | null => {
  const figure = library.figures[figureIdOf(moved)];
  if (!figure) return null;
  const { dose, sides, phases = [], position } = moved;
  return motionOf(
    library,
    figure,
    { dose, sides, phases, ...(position ? { position } : {}) },
    faultId ? { [faultId]: 1 } : {},
    moved.id,
  );
};

export function useMotion(moved: Moved, faultId?: string): Motion | null | undefined {
  const library = useQuery(figuresQuery).data;
  return useMemo(() => library && motionIn(library, moved, faultId), [library, moved, faultId]);
}
