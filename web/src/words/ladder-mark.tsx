/** Easier and harder as a flight of bars that falls or rises; sideways as two equal ones. */
import type { Direction } from '@waxwing/core/movement';

const HEIGHTS: Readonly<Record<Direction, readonly number[]>> = {
  easier: [16, 10, 4],
  harder: [4, 10, 16],
  sideways: [10, 0, 10],
};

export const LadderMark = ({ direction, size = 20 }: { direction: Direction; size?: number }) => (
  <svg width={size} height={size} viewBox="0 0 20 20" aria-hidden className="shrink-0">
    {HEIGHTS[direction].map((height, i) => (
      <rect key={i} x={1 + i * 7} y={18 - height} width="4.5" height={height} fill="currentColor" />
    ))}
  </svg>
);
