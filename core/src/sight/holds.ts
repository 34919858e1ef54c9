/** A hold and its pieces: the spans in which the body keeps the posture of the movement. */
import type { Rep } from './reps.js';

/** Degrees by which a joint may be off and still be that posture. */
const WITHIN = 28;
/** Breaks to here are none, and a piece is at least so long, in seconds. */
const LEAST_BREAK = 0.7;
const LEAST_PIECE = 1.5;

/** @param joints the value of each joint at each time, with what it is in the posture */
export function holdsIn(times: Float64Array, joints: readonly { values: Float32Array; posture: number }[]): Rep[] {
  const held = (t: number): boolean | null => {
    const off = joints.flatMap(({ values, posture }) => {
      const by = Math.abs((values[t] as number) - posture);
      return Number.isNaN(by) ? [] : [by];
    });
    return off.length === 0 ? null : off.every((by) => by <= WITHIN);
  };
  const pieces: { from: number; to: number }[] = [];
  for (let t = 0; t < times.length; t += 1) {
    const at = times[t] as number;
    const last = pieces.at(-1);
    if (held(t) !== true) continue;
    if (last && at - last.to <= LEAST_BREAK) last.to = at;
    else pieces.push({ from: at, to: at });
  }
  return pieces.flatMap(({ from, to }) =>
    to - from < LEAST_PIECE
      ? []
      : [
          {
            starts: from,
            turns: (from + to) / 2,
            ends: to,
            there: 0,
            stay: to - from,
            back: 0,
            reach: NaN,
            share: 1,
          },
        ],
  );
}
