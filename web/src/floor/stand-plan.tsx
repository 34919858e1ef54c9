/** Seen from above: the client, facing up, and the place to stand. */
import type { View } from '@waxwing/core/movement';

/** Where the trainer stands, on a plan of 64 by 64 with the client in the middle. */
const PLACES: Readonly<Record<View, readonly [x: number, y: number]>> = {
  front: [32, 8],
  side: [56, 32],
  back: [32, 56],
  oblique: [52, 12],
};

export function StandPlan({ view }: { view: View }) {
  const [x, y] = PLACES[view];
  return (
    <svg width="72" height="72" viewBox="0 0 64 64" aria-hidden className="shrink-0">
      <line x1="32" y1="32" x2={x} y2={y} stroke="currentColor" strokeWidth="2" strokeDasharray="3 4" />
      <ellipse cx="32" cy="32" rx="15" ry="8" fill="var(--color-base-300)" stroke="currentColor" strokeWidth="2" />
      <path d="M28 27 L32 19 L36 27 Z" fill="currentColor" />
      <circle cx={x} cy={y} r="7" fill="var(--color-accent)" stroke="currentColor" strokeWidth="2" />
    </svg>
  );
}
