/** The key postures of a motion side by side: for paper, and where motion is unwanted. */
import { boundsOf, type Box, keyTimes, type Motion } from '@waxwing/core/body';
import type { View } from '@waxwing/core/movement';
import { useMemo } from 'react';

import { say } from '../words/say';
import { FigureDrawing } from './figure';

export function Strip({ motion, view, name }: { motion: Motion; view: View; name: string }) {
  const box: Box = useMemo(() => boundsOf(motion, view), [motion, view]);
  const times = keyTimes(motion);
  return (
    <div className="flex items-end justify-start gap-1">
      {times.map((seconds, i) => (
        <FigureDrawing
          key={seconds}
          motion={motion}
          at={seconds}
          view={view}
          title={times.length === 1 ? name : say.figures.posture(name, i + 1, times.length)}
          box={box}
          className="h-full min-w-0 flex-1"
        />
      ))}
    </div>
  );
}
