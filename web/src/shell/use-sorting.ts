/** Putting things in order by dragging, or by keyboard: Space takes one up, arrows carry it, Space puts it down. */
import {
  type Active,
  type Announcements,
  closestCenter,
  KeyboardSensor,
  type Over,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { sortableKeyboardCoordinates } from '@dnd-kit/sortable';

import { say } from '../words/say';

interface Carried {
  active: Active;
  over: Over | null;
}

/**
 * What a sortable list gives its context, and where something carried came from and would go.
 * @param name what one of them is, for those who hear it: `cue`
 * @param pull pixels that a pointer must go before it carries; without, it carries at once
 */
export function useSorting(ids: readonly string[], name: string, pull?: number) {
  const sensors = useSensors(
    useSensor(PointerSensor, pull === undefined ? {} : { activationConstraint: { distance: pull } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const at = (one: Active | Over | null): number => (one ? ids.indexOf(String(one.id)) : -1);
  const announcements: Announcements = {
    onDragStart: ({ active }) => say.shell.isTakenUp(name, at(active) + 1),
    onDragOver: ({ over }) => (over ? say.shell.nowAtPlaceOf(at(over) + 1, ids.length) : undefined),
    onDragEnd: ({ over }) => (over ? say.shell.putDownAtPlace(at(over) + 1) : undefined),
    onDragCancel: () => say.shell.putBackWhereItWas,
  };
  return {
    context: {
      sensors,
      collisionDetection: closestCenter,
      accessibility: {
        announcements,
        screenReaderInstructions: { draggable: say.shell.spaceTakesItUpThe },
      },
    },
    /** From which place to which; the same where nothing is below. */
    places: ({ active, over }: Carried): [from: number, to: number] => [at(active), at(over ?? active)],
  };
}
