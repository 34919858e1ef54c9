/** A picture that lies on its side or on its head, as some phones keep them, put upright. */
import type { Position } from '../movement/vocabulary.js';
import { median } from './frame.js';
import { placeOf, POINTS, SEEN, type Series } from './points.js';

/** Quarter turns, clockwise. */
export type Quarters = 0 | 1 | 2 | 3;

/** In these the trunk is upright for most of a clip. */
const UPRIGHT: readonly Position[] = ['standing', 'seated', 'kneeling'];
/** Less than this off is a lean, and no turn. */
const CLEARLY = 2.5;

/** Every place turned about the corner of the picture; only where things lie towards one another is read. */
export function turnedSeries({ times, flat, deep, seen }: Series, quarters: Quarters): Series {
  const turn = (list: Float32Array, size: 2 | 3): Float32Array => {
    const out = list.slice();
    for (let i = 0; i < out.length; i += size) {
      const [x, y] = [list[i] as number, list[i + 1] as number];
      const [tx, ty] = (
        [
          [x, y],
          [-y, x],
          [-x, -y],
          [y, -x],
        ] as const
      )[quarters];
      out[i] = tx;
      out[i + 1] = ty;
    }
    return out;
  };
  return quarters === 0 ? { times, flat, deep, seen } : { times, flat: turn(flat, 2), deep: turn(deep, 3), seen };
}

/** The series upright, and by how much it was turned. @param told by the trainer, who sees it */
export function upright(series: Series, position: Position, told?: Quarters): { series: Series; quarters: Quarters } {
  const quarters = told ?? (UPRIGHT.includes(position) ? lying(series) : 0);
  return { series: turnedSeries(series, quarters), quarters };
}

function lying({ times, flat, seen }: Series): Quarters {
  const along = (axis: 0 | 1): number =>
    median(
      [...times.keys()].map((t) => {
        const at = (point: 'shoulder' | 'hip'): number => {
          const sides = [`left.${point}`, `right.${point}`] as const;
          const i = sides.map((side) => t * POINTS.length + placeOf(side)).filter((k) => (seen[k] as number) >= SEEN);
          return i.length === 0 ? NaN : i.reduce((sum, k) => sum + (flat[k * 2 + axis] as number), 0) / i.length;
        };
        return at('shoulder') - at('hip');
      }),
    );
  const [x, y] = [along(0), along(1)];
  if (y > CLEARLY * Math.abs(x)) return 2;
  if (x > CLEARLY * Math.abs(y)) return 3;
  return -x > CLEARLY * Math.abs(y) ? 1 : 0;
}
