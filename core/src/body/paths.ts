/** Where hands and feet go in one round, seen from above: what tells movements apart that begin alike. */
import type { Body } from './kinematics.js';
import { frameAt, type Motion } from './motion.js';
import { between, type Vec } from './rotation.js';
import { type BodySide, SIDES_OF_BODY } from './skeleton.js';

export interface Path {
  side: BodySide;
  part: 'foot' | 'hand';
  /** Centimetres from above: x to the body's right, y ahead of it, from between its feet at the start. */
  points: { x: number; y: number }[];
  /** How far it goes from where it began, at most. */
  reach: number;
}

/** Looks at a round: often enough for a smooth line. */
const SAMPLES = 24;

const middleOf = ({ heel, ball }: Body[BodySide]): Vec => between(heel, ball, 0.5);

/** The four paths of a motion over one round. A hold has paths of one point. */
export function pathsOf(motion: Motion): Path[] {
  const times = motion.still ? [0] : Array.from({ length: SAMPLES + 1 }, (_, i) => (motion.seconds * i) / SAMPLES);
  // The end of a round is the start of the next: the last look is just before it.
  const frames = times.map((at, i) => frameAt(motion, i === SAMPLES ? at - 1e-6 : at));
  const [first] = frames;
  if (!first) return [];
  const origin = between(middleOf(first.body.left), middleOf(first.body.right), 0.5);
  return SIDES_OF_BODY.flatMap((side) =>
    (['foot', 'hand'] as const).map((part): Path => {
      const points = frames.map(({ body, travelled }) => {
        const at = part === 'foot' ? middleOf(body[side]) : body[side].knuckles;
        return { x: at[2] + travelled[2] - origin[2], y: at[0] + travelled[0] - origin[0] };
      });
      const start = points[0] ?? { x: 0, y: 0 };
      return { side, part, points, reach: Math.max(...points.map(({ x, y }) => Math.hypot(x - start.x, y - start.y))) };
    }),
  );
}
