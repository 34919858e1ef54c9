/** The numbers of the two builds: half widths of limbs and trunk in centimetres, and how the narrower one differs from the broader one. */
import type { LoftRow } from './field.js';

export const BUILDS = ['broad', 'narrow'] as const;
export type BuildName = (typeof BUILDS)[number];

export interface Build {
  thigh: readonly LoftRow[];
  shank: readonly LoftRow[];
  upperArm: readonly LoftRow[];
  forearm: readonly LoftRow[];
  /** Below the hip joints is positive, above negative. */
  trunk: readonly LoftRow[];
  /** Cloth hangs from the chest like this. */
  hang: readonly LoftRow[];
  /** Girth of shoulders, of legs, of hands, of the neck and of the jaw, as shares of the broader one's. */
  shoulders: number;
  legs: number;
  hands: number;
  neck: number;
  jaw: number;
  /** The chest: where it is fullest (forward, above the hips, aside) and its half widths. */
  chest: { at: readonly [number, number, number]; half: readonly [number, number, number]; lean: number };
  glutes: readonly [number, number, number];
  /** How far sleeves and shorts reach down from shoulder and hip. */
  sleeve: number;
  shorts: number;
}

const THIGH: readonly LoftRow[] = [
  [-5, 8.4, 9.0, 7.0, 6.8],
  [2, 9.0, 9.2, 7.9, 8.1],
  [9, 9.2, 8.9, 8.1, 8.0],
  [17, 8.9, 8.0, 7.5, 7.2],
  [25, 7.9, 6.9, 6.6, 6.4],
  [32, 6.6, 6.0, 5.7, 5.6],
  [38, 5.9, 5.4, 5.2, 5.3],
  [44, 5.6, 5.0, 5.0, 5.1],
];
const SHANK: readonly LoftRow[] = [
  [-3, 5.7, 4.9, 5.0, 5.1],
  [2, 5.4, 5.1, 4.9, 5.0],
  [7, 4.7, 6.3, 5.1, 5.2],
  [13, 4.3, 7.0, 5.3, 5.4],
  [18, 4.1, 6.6, 5.0, 5.2],
  [25, 3.7, 5.1, 4.2, 4.3],
  [32, 3.3, 3.9, 3.3, 3.4],
  [37, 3.2, 3.6, 3.0, 3.1],
  [42, 3.3, 4.0, 3.3, 3.4],
  [45, 3.4, 4.2, 3.4, 3.4],
];
const UPPER_ARM: readonly LoftRow[] = [
  [-1, 4.6, 4.6, 4.0, 4.2],
  [5, 5.0, 4.9, 4.7, 4.4],
  [11, 5.0, 4.8, 4.3, 4.2],
  [17, 4.9, 4.5, 4.0, 4.0],
  [23, 4.2, 4.2, 3.7, 3.8],
  [28, 3.6, 3.8, 3.7, 3.8],
  [33, 3.4, 3.6, 3.7, 3.9],
];
const FOREARM: readonly LoftRow[] = [
  [-2, 3.4, 3.6, 3.7, 3.9],
  [3, 4.0, 3.7, 4.1, 4.0],
  [8, 4.2, 3.7, 4.1, 3.9],
  [14, 3.6, 3.3, 3.4, 3.3],
  [20, 2.9, 2.8, 2.5, 2.4],
  [25, 2.8, 2.7, 2.0, 2.0],
  [27, 2.9, 2.8, 1.9, 1.9],
];
const TRUNK: readonly LoftRow[] = [
  [-50.5, 4.6, 6.6, 6.5, 6.5],
  [-48, 5.6, 8.0, 10.0, 10.0],
  [-45.5, 7.4, 9.2, 12.6, 12.6],
  [-42, 9.1, 10.3, 14.4, 14.4],
  [-37.5, 10.6, 11.0, 15.6, 15.6],
  [-33, 11.2, 10.9, 15.6, 15.6],
  [-27, 10.9, 9.9, 14.8, 14.8],
  [-21, 10.0, 8.7, 13.6, 13.6],
  [-16, 9.6, 8.1, 13.2, 13.2],
  [-11, 9.8, 8.6, 14.0, 14.0],
  [-6, 9.8, 9.6, 15.2, 15.2],
  [-1, 9.4, 10.4, 15.9, 15.9],
  [3, 8.6, 10.2, 15.0, 15.0],
  [6.5, 7.0, 8.5, 12.0, 12.0],
];
const HANG: readonly LoftRow[] = [
  [-44, 4, 5, 7, 7],
  [-36, 8.8, 8.6, 12.8, 12.8],
  [-29, 10.4, 9.8, 14.5, 14.5],
  [-20, 10.6, 9.3, 14.4, 14.4],
  [-10, 10.6, 9.5, 14.9, 14.9],
  [0, 10.6, 11.0, 16.4, 16.4],
  [8, 10.4, 11.2, 16.6, 16.6],
];

const BROAD: Build = {
  thigh: THIGH,
  shank: SHANK,
  upperArm: UPPER_ARM,
  forearm: FOREARM,
  trunk: TRUNK,
  hang: HANG,
  shoulders: 1,
  legs: 1,
  hands: 1,
  neck: 1,
  jaw: 1,
  chest: { at: [5.6, 36.0, 7.0], half: [5.6, 7.4, 8.2], lean: -10 },
  glutes: [7.9, 8.6, 8.0],
  sleeve: 15.5,
  shorts: 27.5,
};

/** Shares by distance: `deep` to the front and back, `wide` to the sides, at the heights in between as a straight line. */
type Shares = readonly (readonly [t: number, deep: number, wide: number])[];

function scaled(rows: readonly LoftRow[], shares: Shares): LoftRow[] {
  const at = (t: number, which: 1 | 2): number => {
    const next = shares.findIndex(([height]) => height >= t);
    const [a, b] = [shares[Math.max(0, next - 1)], shares[next < 0 ? shares.length - 1 : next]];
    if (!a || !b) return 1;
    const way = b[0] === a[0] || t >= b[0] ? 1 : Math.max(0, (t - a[0]) / (b[0] - a[0]));
    return a[which] + (b[which] - a[which]) * way;
  };
  return rows.map(([t, front, back, outer, inner]) => {
    const [deep, wide] = [at(t, 1), at(t, 2)];
    return [t, front * deep, back * deep, outer * wide, inner * wide];
  });
}

const even = (share: number): Shares => [[0, share, share]];

const NARROW_TRUNK: Shares = [
  [-50.5, 0.9, 0.86],
  [-42, 0.9, 0.85],
  [-33, 0.9, 0.85],
  [-21, 0.88, 0.83],
  [-14, 0.88, 0.85],
  [-6, 0.96, 0.97],
  [3, 1.0, 1.02],
];

const NARROW: Build = {
  thigh: scaled(THIGH, [
    [0, 0.98, 1.02],
    [20, 0.95, 0.96],
    [44, 0.9, 0.9],
  ]),
  shank: scaled(SHANK, even(0.91)),
  upperArm: scaled(UPPER_ARM, even(0.82)),
  forearm: scaled(FOREARM, even(0.86)),
  trunk: scaled(TRUNK, NARROW_TRUNK),
  hang: scaled(HANG, [
    [-44, 0.9, 0.85],
    [-29, 0.9, 0.85],
    [-18, 0.86, 0.84],
    [-8, 0.94, 0.95],
    [8, 1.0, 1.01],
  ]),
  shoulders: 0.83,
  legs: 0.91,
  hands: 0.9,
  neck: 0.83,
  jaw: 0.88,
  chest: { at: [6.6, 33.6, 6.6], half: [5.4, 6.2, 6.6], lean: -14 },
  glutes: [8.2, 8.6, 8.3],
  sleeve: 11,
  shorts: 23,
};

export const BUILD: Readonly<Record<BuildName, Build>> = { broad: BROAD, narrow: NARROW };
