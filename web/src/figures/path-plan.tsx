/** Seen from above, the person facing up: where the feet stand and go, and where the hands go. */
import { type Motion, type Path, pathsOf } from '@waxwing/core/body';
import { useMemo } from 'react';

import { say } from '../words/say';

/** Centimetres below which a part stays where it is. */
const STAYS = 6;
const MARGIN = 25;

export function PathPlan({ motion, title }: { motion: Motion; title: string }) {
  const paths = useMemo(() => pathsOf(motion), [motion]);
  const feet = paths.filter(({ part }) => part === 'foot');
  const hands = paths.filter(({ part, reach }) => part === 'hand' && reach >= STAYS);
  const all = [...feet, ...hands].flatMap(({ points }) => points);
  const [left, right] = [Math.min(-30, ...all.map(({ x }) => x)), Math.max(30, ...all.map(({ x }) => x))];
  const [low, high] = [Math.min(-30, ...all.map(({ y }) => y)), Math.max(30, ...all.map(({ y }) => y))];
  const box = `${left - MARGIN} ${-high - MARGIN} ${right - left + 2 * MARGIN} ${high - low + 2 * MARGIN}`;
  return (
    <svg viewBox={box} role="img" aria-label={say.figures.fromAbove(title, wordsOf(paths))} className="h-32 w-full">
      <path d="M0 -22 L8 -10 L-8 -10 Z" className="fill-current opacity-40" />
      {hands.map((path) => (
        <path
          key={path.side}
          d={lineOf(path)}
          fill="none"
          stroke="currentColor"
          strokeWidth="3"
          strokeDasharray="2 8"
          strokeLinecap="round"
        />
      ))}
      {feet.map((path) => (
        <Foot key={path.side} path={path} />
      ))}
    </svg>
  );
}

const lineOf = ({ points }: Path): string =>
  `M${points.map(({ x, y }) => `${x.toFixed(1)} ${(-y).toFixed(1)}`).join('L')}`;

/** Where a path is furthest from its start. */
function furthest({ points }: Path): { x: number; y: number } {
  const [start] = points;
  const away = ({ x, y }: { x: number; y: number }) => Math.hypot(x - (start?.x ?? 0), y - (start?.y ?? 0));
  return points.toSorted((a, b) => away(b) - away(a))[0] ?? { x: 0, y: 0 };
}

/** A foot where it begins, hollow where it goes to. */
function Foot({ path }: { path: Path }) {
  const [start] = path.points;
  const end = furthest(path);
  if (!start) return null;
  const moves = path.reach >= STAYS;
  return (
    <>
      <ellipse cx={start.x} cy={-start.y} rx="5" ry="12" className="fill-current" />
      {moves && (
        <>
          <path d={lineOf(path)} fill="none" stroke="currentColor" strokeWidth="4" strokeLinecap="round" />
          <ellipse
            cx={end.x}
            cy={-end.y}
            rx="5"
            ry="12"
            className="fill-base-100"
            stroke="currentColor"
            strokeWidth="3"
          />
        </>
      )}
    </>
  );
}

const WAYS: readonly (readonly [name: string, is: (x: number, y: number) => boolean])[] = [
  ['ahead', (x, y) => y > 0 && Math.abs(y) >= Math.abs(x)],
  ['back', (x, y) => y < 0 && Math.abs(y) >= Math.abs(x)],
  ['right', (x) => x > 0],
  ['left', (x) => x < 0],
];

/** `right foot 60 cm back`, for who does not see the drawing. */
function wordsOf(paths: readonly Path[]): string {
  const moved = paths.filter(({ reach }) => reach >= STAYS);
  if (moved.length === 0) return say.figures.nothingLeavesItsPlace;
  return moved
    .map((path) => {
      const [start] = path.points;
      const end = furthest(path);
      const way = WAYS.find(([, is]) => is(end.x - (start?.x ?? 0), end.y - (start?.y ?? 0)))?.[0] ?? '';
      return say.figures.way(`${path.side} ${path.part}`, Math.round(path.reach), way);
    })
    .join(', ');
}
