/** Seen from above: the client, facing up, and the place to stand. */
import type { Position, View } from '@waxwing/core/movement';

/** Where the trainer stands, on a plan of 64 by 64 with the client in the middle; whoever lies has the head up. */
type Places = Readonly<Record<View, readonly [x: number, y: number]>>;
const PLACES: Places = { front: [32, 8], side: [56, 32], back: [32, 56], oblique: [52, 12] };
const LYING: Readonly<Partial<Record<Position, Places>>> = {
  supine: { ...PLACES, front: [50, 30], back: [32, 7] },
  prone: { ...PLACES, front: [32, 7], back: [50, 30] },
  'side-lying': { front: [56, 32], side: [46, 32], back: [8, 32], oblique: [52, 54] },
};

export function StandPlan({ view, position }: { view: View; position?: Position }) {
  const lying = position && LYING[position];
  const [x, y] = (lying ?? PLACES)[view];
  return (
    <svg width="72" height="72" viewBox="0 0 64 64" aria-hidden className="shrink-0">
      <line x1="32" y1="32" x2={x} y2={y} stroke="currentColor" strokeWidth="2" strokeDasharray="3 4" />
      <ellipse
        cx="32"
        cy={lying ? 42 : 32}
        rx={lying ? 9 : 15}
        ry={lying ? 18 : 8}
        fill="var(--color-base-300)"
        stroke="currentColor"
        strokeWidth="2"
      />
      {lying ? (
        <circle cx="32" cy="21" r="5" fill="currentColor" />
      ) : (
        <path d="M28 27 L32 19 L36 27 Z" fill="currentColor" />
      )}
      <circle cx={x} cy={y} r="7" fill="var(--color-accent)" stroke="currentColor" strokeWidth="2" />
    </svg>
  );
}
