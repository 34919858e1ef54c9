/** The moment of the clean rep that belongs to a moment of a rep on a clip. */
import type { Rep } from '@waxwing/core/sight';

const split = ({ starts, there, stay, ends }: Rep): readonly number[] => [
  starts,
  starts + there,
  starts + there + stay,
  ends,
];

/** Part by part: on the way there, at the far end, on the way back. In seconds of the clean rep. */
export function sameMoment(rep: Rep, at: number, clean: Rep): number {
  const [from, to] = [split(rep), split(clean)];
  for (let i = 0; i < 3; i += 1) {
    const [a, b, x, y] = [from[i], from[i + 1], to[i], to[i + 1]] as [number, number, number, number];
    if (at <= b || i === 2) return x + (b > a ? Math.max(0, Math.min(1, (at - a) / (b - a))) : 0) * (y - x);
  }
  return clean.ends;
}
