/** The key postures of a motion side by side: for paper, and where motion is unwanted. */
import { boundsOf, type Box, type Motion } from '@waxwing/core/body';
import type { View } from '@waxwing/core/movement';
import { useMemo } from 'react';
import { FigureDrawing } from './figure';

/** Times of the key postures: the ends of a rep and the middle of its way, each step of a round, or the one posture of a hold. */
export function keyTimes(motion: Motion): number[] {
  const starts = motion.segments.map((_, i) => motion.segments.slice(0, i).reduce((sum, one) => sum + one.seconds, 0));
  if (motion.still) return [0];
  if (motion.figure.cycle) return starts;
  const there = motion.segments.findIndex(({ from, to }) => from === to);
  const end = starts[there] ?? motion.seconds / 2;
  return [0, end / 2, end];
}

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
          title={times.length === 1 ? name : `${name}, posture ${i + 1} of ${times.length}`}
          box={box}
          className="h-full min-w-0 flex-1"
        />
      ))}
    </div>
  );
}
