/** Hair: a volume outside of the skull, cut by a hairline. Described in the frame of the head. */
import { aboutZ, type Hair, type Vec } from '@waxwing/core/body';

import type { Anatomy } from './anatomy.js';
import type { Garment } from './clothes.js';
import { blend, ellipsoid, type Field, grown, smin, symmetric } from './field.js';

/** From 0 to 1 round `at`, over `wide` centimetres on either side. */
const step = (x: number, at: number, wide: number): number => 1 / (1 + Math.exp((at - x) / wide));

interface Cut {
  volume: Field;
  /** How high the hairline is at the nape, by the ear and over the forehead. */
  nape: number;
  ear: number;
  forehead: number;
  /** How thick it lies on the skull at least. */
  thick: number;
}

const CROWN = ellipsoid([-1, 13.4, 0], [10, 9.9, 8.15]);
const BACK = ellipsoid([-4.2, 8.8, 0], [5.3, 5.8, 6.1]);
const TIGHT = blend(ellipsoid([-0.9, 13.1, 0], [9.8, 9.5, 7.95]), [ellipsoid([-4, 9, 0], [5.2, 5.6, 6]), 4]);

const CUTS: Readonly<Record<Hair, Cut>> = {
  short: {
    volume: blend(blend(CROWN, [BACK, 4]), [ellipsoid([3.6, 18.4, 0], [5.6, 4.2, 5.6], aboutZ(-26)), 4]),
    nape: 4.4,
    ear: 9.8,
    forehead: 15.7,
    thick: 0.6,
  },
  cropped: { volume: TIGHT, nape: 5, ear: 10.2, forehead: 16.2, thick: 0.35 },
  bob: {
    volume: blend(blend(ellipsoid([-1, 13.6, 0], [10.5, 10.2, 9]), [ellipsoid([-3.4, 7.2, 0], [6.6, 8.4, 8.9]), 4]), [
      ellipsoid([3, 17.6, 0], [6.4, 4.6, 6.4], aboutZ(-24)),
      4,
    ]),
    nape: 0.4,
    ear: 2.2,
    forehead: 15.4,
    thick: 0.9,
  },
  bun: {
    volume: blend(TIGHT, [ellipsoid([-10.6, 14.6, 0], [4.1, 4.2, 4.3]), 1.4]),
    nape: 4.2,
    ear: 9.4,
    forehead: 15.9,
    thick: 0.5,
  },
};

export function hairOf({ head, inHead }: Anatomy, hair: Hair): Garment {
  const { volume, nape, ear, forehead, thick } = CUTS[hair];
  const over = grown(head, thick);
  const line = ([x, y, z]: Vec): number => {
    const front = step(x, 3.4, 0.9);
    return y - (nape + (ear - nape) * step(x, -4, 0.9) + (forehead - ear) * front - 0.02 * z * z * step(x, 3, 1));
  };
  return {
    field: symmetric((p) => smin(volume(inHead(p)), over(p), 1.2)),
    keep: symmetric((p) => line(inHead(p))),
  };
}
