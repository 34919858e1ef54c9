/** One moment of a motion as a picture: the figure on its floor, with a mark, an angle or a ghost of the clean rep where asked for. */
import {
  arcOf,
  boundsOf,
  type Box,
  draw,
  type FigureFault,
  frameAt,
  marksOf,
  MM_PER_CM,
  type Motion,
  shadowOf,
  type Shape,
} from '@waxwing/core/body';
import type { View } from '@waxwing/core/movement';
import { useLayoutEffect, useMemo, useRef } from 'react';
import { paint } from './paint';
import type { Time } from './time';

interface Props {
  motion: Motion;
  /** Seconds, or a time that runs. */
  at: number | Time;
  /** Seconds of the motion to one of the time. */
  rate?: number;
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
  at,
  rate = 1,
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
  const runs = typeof at !== 'number';
  const shadowRef = useRef<SVGGElement>(null);
  const ghostRef = useRef<SVGGElement>(null);
  const bodyRef = useRef<SVGGElement>(null);
  const marksRef = useRef<SVGGElement>(null);
  const arcRef = useRef<SVGGElement>(null);
  const degreesRef = useRef<SVGTextElement>(null);
  useLayoutEffect(() => {
    const show = (): void => {
      const seconds = (runs ? at.seconds : at) * rate;
      const frame = frameAt(motion, seconds);
      const flip = reflect !== otherSide(motion, seconds);
      const shadow = shadowOf(frame, view);
      const arc = angle && motion.figure.joint ? arcOf(frame, view, motion.figure.joint) : null;
      paint(shadowRef.current, 'ellipse', [{ cx: shadow.x, cy: shadow.y + 2, rx: shadow.half, ry: 2.6 }]);
      if (ghost) paint(ghostRef.current, 'path', draw(ghost, frameAt(ghost, seconds), view, flip).map(asPath));
      paint(bodyRef.current, 'path', draw(motion, frame, view, flip).map(asPath));
      const marks = mark ? marksOf(frame, view, mark) : [];
      paint(
        marksRef.current,
        'circle',
        marks.map((spot) => ({ cx: spot.x, cy: spot.y, r: 13 })),
      );
      paint(arcRef.current, 'path', arc ? [{ d: arc.d }] : []);
      const degrees = degreesRef.current;
      if (degrees) {
        degrees.textContent = arc ? `${arc.degrees}°` : '';
        degrees.setAttribute('x', String(arc ? arc.at.x + 20 : 0));
        degrees.setAttribute('y', String(arc ? arc.at.y - 12 : 0));
      }
    };
    show();
    return runs ? at.subscribe(show) : undefined;
  });
  const small = { transform: `scale(${1 / MM_PER_CM})` };
  return (
    <svg
      {...(title ? { role: 'img', 'aria-label': title } : { 'aria-hidden': true })}
      className={`figure ${runs ? 'runs' : ''} ${className ?? ''}`}
      viewBox={`${x} ${y} ${width} ${height}`}
      preserveAspectRatio="xMidYMax meet"
    >
      {/* From a corner the floor is seen from above: a line would cut through the feet. */}
      {view !== 'oblique' && <line className="floor" x1={-400} x2={400} y1={0.6} y2={0.6} />}
      <g className="shadow" ref={shadowRef} />
      {ghost && <g className="shapes ghost" ref={ghostRef} {...small} />}
      <g className="shapes" ref={bodyRef} {...small} />
      <g className="mark" ref={marksRef} />
      <g className="arc" ref={arcRef} />
      <text className="degrees" ref={degreesRef} />
    </svg>
  );
}

const asPath = ({ d, tone, edge }: Shape) => ({ d, class: edge ? `${tone} edge` : tone });
