/** One moment of a motion as a picture: the figure on its floor, with a mark, an angle or a ghost of the clean rep where asked for. */
import {
  arcOf,
  boundsOf,
  draw,
  frameAt,
  marksOf,
  MM_PER_CM,
  shadowOf,
  type Box,
  type FigureFault,
  type Motion,
} from '@waxwing/core/body';
import type { View } from '@waxwing/core/movement';
import { useMemo } from 'react';

interface Props {
  motion: Motion;
  seconds: number;
  view: View;
  /** Empty where the words beside it say it all. */
  title: string;
  reflect?: boolean;
  /** Drawn pale behind, such as the clean rep behind its fault. */
  ghost?: Motion | undefined;
  mark?: FigureFault['mark'] | undefined;
  /** Shows the angle of the joint that tells the most. */
  angle?: boolean;
  /** A frame shared with other pictures; the motion's own without. */
  box?: Box | undefined;
  className?: string;
}

/** Rounds of `each`-side movements before the other side is shown. */
const ROUNDS_A_SIDE = 3;

/** Whether this round shows the other side, as the movement's sides have it. */
export const otherSide = ({ sides, seconds: round, figure }: Motion, seconds: number): boolean => {
  if (figure.cycle || sides === 'both') return false;
  const rounds = Math.floor(seconds / round);
  return (sides === 'each' ? Math.floor(rounds / ROUNDS_A_SIDE) : rounds) % 2 === 1;
};

export function FigureDrawing({
  motion,
  seconds,
  view,
  title,
  reflect = false,
  ghost,
  mark,
  angle = false,
  box,
  className,
}: Props) {
  const { x, y, width, height } = useMemo(() => box ?? boundsOf(motion, view), [box, motion, view]);
  const frame = frameAt(motion, seconds);
  const flip = reflect !== otherSide(motion, seconds);
  const shadow = shadowOf(frame, view);
  const arc = angle && motion.figure.joint ? arcOf(frame, view, motion.figure.joint) : null;
  return (
    <svg
      {...(title ? { role: 'img', 'aria-label': title } : { 'aria-hidden': true })}
      className={`figure ${className ?? ''}`}
      viewBox={`${x} ${y} ${width} ${height}`}
      preserveAspectRatio="xMidYMax meet"
    >
      {/* From a corner the floor is seen from above: a line would cut through the feet. */}
      {view !== 'oblique' && <line className="floor" x1={-400} x2={400} y1={0.6} y2={0.6} />}
      <ellipse className="shadow" cx={shadow.x} cy={shadow.y + 2} rx={shadow.half} ry={2.6} />
      {ghost && (
        <g className="ghost" transform={`scale(${1 / MM_PER_CM})`}>
          {draw(ghost, frameAt(ghost, seconds), view, flip).map(({ d, tone }, i) => (
            <path key={i} className={tone} d={d} />
          ))}
        </g>
      )}
      <g transform={`scale(${1 / MM_PER_CM})`}>
        {draw(motion, frame, view, flip).map(({ d, tone }, i) => (
          // Shapes come and go in order of distance: their place is their name.
          <path key={i} className={tone} d={d} />
        ))}
      </g>
      {mark &&
        marksOf(frame, view, mark).map((spot, i) => <circle key={i} className="mark" cx={spot.x} cy={spot.y} r={13} />)}
      {arc && (
        <>
          <path className="arc" d={arc.d} />
          <text className="degrees" x={arc.at.x + 20} y={arc.at.y - 12}>
            {arc.degrees}°
          </text>
        </>
      )}
    </svg>
  );
}
