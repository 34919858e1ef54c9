/** The movement beside its words, at its tempo, from the side that shows it best. */
import type { Movement } from '@waxwing/core/movement';

import { FigureDrawing } from '../figures/figure';
import { lessMotion, useClock } from '../figures/use-clock';
import { useMotion } from '../figures/use-motion';

/** Frames a second: enough to see a slow rep, and it leaves the page free for taps. */
const FRAMES = 12;

export function TeachFigure({ movement }: { movement: Movement }) {
  const motion = useMotion(movement);
  const clock = useClock(!lessMotion(), FRAMES);
  if (!motion) return null;
  return (
    <FigureDrawing
      motion={motion}
      at={clock.time}
      view={motion.figure.view}
      title=""
      className="h-44 w-36 shrink-0 self-center max-sm:hidden"
    />
  );
}
