/** What the body wears: each garment is a field a little outside of the skin, and where it ends (`keep` is positive on the garment). */
import { type Anatomy, SOLE, UPRIGHT } from './anatomy.js';
import { blend, type Field, grown, loft, type LoftRow, smax, smin, spline, symmetric, within } from './field.js';

export interface Garment {
  field: Field;
  keep: Field;
}

/** Cloth lies this far outside of the skin. */
const CLOTH_CM = 0.5;

/** A t-shirt: it hangs from the chest over the waist, and its sleeves widen to the hem. */
export function shirtOf(body: Anatomy, shorts: Field): Garment {
  const { root, right, torso, glute, neck, shoulder, inArm, build, upperArm } = body;
  const hanging = within(UPRIGHT, root, loft(build.hang, { exponent: 2.3, cap: 2 }));
  const trunk = blend(torso, [grown(glute, -1), 4], [grown(neck, 0.2), 4], [hanging, 3]);
  const sleeve = within(
    right.upperArm,
    right.shoulder,
    loft(build.upperArm, { grow: (t) => 0.35 + Math.max(0, t - 3) * 0.055 }),
  );
  const cloth: Field = (p) => {
    const arm = smin(shoulder(p) - 0.2, sleeve(p), 3);
    const shirt = smin(trunk(p), arm, 6) - CLOTH_CM;
    // Over the shorts it lies outside of them, and leaves them towards the waist.
    const above = Math.max(0, (p[1] - root[1] - 4) / 14);
    return smin(shirt, shorts(p) - CLOTH_CM + 6 * above ** 1.5, 1.5);
  };
  const keep: Field = (p) => {
    const onTrunk = (upperArm(p) - torso(p)) * 0.7 + 1.5;
    const sleeves = Math.max(build.sleeve + inArm(p)[1], onTrunk);
    const hem = p[1] - (root[1] + 0.6);
    const neckline = 49.6 - 0.4 * (p[0] - root[0]) + 0.055 * p[2] * p[2] - (p[1] - root[1]);
    return Math.min(sleeves, hem, neckline);
  };
  return { field: symmetric(cloth), keep: symmetric(keep) };
}

export function shortsOf({ root, right, trunk, glute, inThigh, build }: Anatomy): Garment {
  // Behind the thigh and on its sides cloth falls straight.
  const straight = build.thigh.map(([t, front, back, outer, inner]): LoftRow => [
    t,
    front,
    Math.max(back, t > 12 && t < 30 ? 7.8 * build.legs : 0),
    Math.max(outer, 6.6 * build.legs),
    Math.max(inner, 6.2 * build.legs),
  ]);
  const thigh = within(
    right.thigh,
    right.hip,
    loft(straight, { exponent: 2.1, cap: 6, grow: (t) => 0.6 + Math.max(0, t - 2) * 0.035 }),
  );
  const cloth: Field = (p) => smin(smin(trunk(p) - 0.5, glute(p) - 0.3, 4), thigh(p), 3.2) - CLOTH_CM;
  const keep: Field = (p) => Math.min(build.shorts + inThigh(p)[1], root[1] + 5 - p[1]);
  return { field: symmetric(cloth), keep: symmetric(keep) };
}

/** Along the foot: half widths inside and outside, and how high it is. */
const LAST: readonly (readonly [x: number, inner: number, outer: number, top: number])[] = [
  [-8, 2.5, 2.5, 4.4],
  [-6, 3.2, 3.2, 6.2],
  [-2.5, 3.5, 3.4, 7.6],
  [2, 3.7, 3.6, 8.6],
  [6, 4.2, 4.0, 7.4],
  [10, 4.7, 4.6, 5.8],
  [14, 4.8, 4.8, 4.9],
  [17.5, 4.3, 3.9, 4.3],
  [20, 3.0, 2.4, 3.5],
  [21, 2.0, 1.6, 2.9],
];

/** The shape of a shoe in the frame of the right foot. */
function lastOf(): Field {
  const at = spline(LAST);
  return ([x, y, z]) => {
    const along = Math.min(20.4, Math.max(-7.4, x));
    const [inner = 0, outer = 0, top = 0] = at(along);
    // The tip leans to the inside.
    const middle = -0.35 * Math.min(1, Math.max(0, (along - 4) / 8));
    const wide = z > middle ? outer : inner;
    const up = y - (SOLE + top * 0.3);
    const exponent = up > 0 ? 2.3 : 4;
    const a = Math.abs(z - middle) / wide;
    const b = Math.abs(up) / (up > 0 ? top * 0.7 : top * 0.54);
    const e = Math.abs(x - along) / 1.4;
    return ((a ** exponent + b ** exponent + e ** exponent) ** (1 / exponent) - 1) * Math.min(wide, top * 0.6) * 0.9;
  };
}

export function shoeOf({ right, inFoot }: Anatomy): { shoe: Garment; sole: Garment } {
  const last = lastOf();
  const shaft = within(
    right.shank,
    right.ankle,
    ([x, y, z]) => Math.hypot(x + 0.5, z * 1.12) - (4.35 + Math.max(0, y) * 0.05),
  );
  const shoe: Field = (p) => {
    const foot = inFoot(p);
    const collar = smax(smax(shaft(p), foot[1] - 4, 0.5), -2.6 - foot[1], 2);
    return smax(smin(last(foot), collar, 3.2), SOLE + 0.05 - foot[1], 0.6);
  };
  const sole: Field = (p) => {
    const [x, y, z] = inFoot(p);
    return smax(last([x, Math.min(y, SOLE + 2), z]) - 0.42, SOLE + 0.02 - y, 0.5);
  };
  return {
    shoe: {
      field: shoe,
      keep: (p) => {
        const [x, y] = inFoot(p);
        const rim = 0.9 - 0.1 * x + 0.05 * x * x * (x < 0 ? 1 : 0.4) - y;
        return Math.min(rim, y - (SOLE + 1.5));
      },
    },
    sole: {
      field: sole,
      keep: (p) => {
        const [x, y] = inFoot(p);
        return SOLE + 1.9 + 0.05 * Math.max(0, -x) + 0.035 * Math.max(0, x - 12) - y;
      },
    },
  };
}

/** Where skin is drawn: a little under each hem, so that nothing gapes when it bends. */
export interface SkinEnds {
  arm: Field;
  leg: Field;
  head: Field;
}

export const skinEndsOf = ({ root, inArm, inThigh, inFoot, build }: Anatomy): SkinEnds => ({
  arm: (p) => -inArm(p)[1] - (build.sleeve - 3),
  leg: (p) => Math.min(-inThigh(p)[1] - (build.shorts - 5), inFoot(p)[1] + 2.4),
  head: (p) => p[1] - (root[1] + 46.2 - 0.25 * (p[0] - root[0])),
});
