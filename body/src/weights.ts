/**
 * Which bones pull at a place of the skin, and how much: along each limb from bone to bone, and shared where a limb leaves the trunk. Skin
 * and clothes that lie over one another are pulled alike, so that neither comes through the other.
 */
import { BONE, type Bone, LENGTH, PULLS, type SidedBone, type Vec } from '@waxwing/core/body';

import type { Anatomy } from './anatomy.js';

/** Shares by bone; together one. */
export type Pulls = ReadonlyMap<Bone, number>;

/** 0 at `from`, 1 at `to`, smoothly between. */
const smooth = (from: number, to: number, x: number): number => {
  const t = Math.max(0, Math.min(1, (x - from) / (to - from)));
  return t * t * (3 - 2 * t);
};

type Link = readonly [bone: Bone, until: number, half: number];

/** Along a chain: each bone until `until`, passing on to the next over `half` centimetres on either side. */
function along(x: number, links: readonly Link[], last: Bone): Pulls {
  const pulls = new Map<Bone, number>();
  let left = 1;
  for (const [bone, until, half] of links) {
    const passed = smooth(until - half, until + half, x);
    pulls.set(bone, (pulls.get(bone) ?? 0) + left * (1 - passed));
    left *= passed;
  }
  pulls.set(last, (pulls.get(last) ?? 0) + left);
  return pulls;
}

function mixed(a: Pulls, b: Pulls, share: number): Pulls {
  const out = new Map<Bone, number>();
  for (const [bone, pull] of a) out.set(bone, (out.get(bone) ?? 0) + pull * (1 - share));
  for (const [bone, pull] of b) out.set(bone, (out.get(bone) ?? 0) + pull * share);
  return out;
}

/** The share of `b` where its surface is nearer than that of `a`, over about `over` centimetres. */
const nearer = (a: number, b: number, over: number): number => 1 / (1 + Math.exp((b - a) / over));

const right = (bone: SidedBone): Bone => `right.${bone}`;

export interface Weights {
  arm: (p: Vec) => Pulls;
  leg: (p: Vec) => Pulls;
  shoe: (p: Vec) => Pulls;
  head: (p: Vec) => Pulls;
  hair: (p: Vec) => Pulls;
  shirt: (p: Vec) => Pulls;
  shorts: (p: Vec) => Pulls;
}

export function weightsOf(body: Anatomy): Weights {
  const { root, inArm, inThigh, inFoot, torso, shoulder, upperArm, trunk, glute, thigh } = body;
  const height = (p: Vec): number => p[1] - root[1];

  const middle = (p: Vec): Pulls =>
    along(
      height(p),
      [
        ['pelvis', 10, 5.5],
        ['lumbar', 24, 7],
        ['thorax', 52, 3.5],
        ['neckHalf', 57.5, 3],
      ],
      'head',
    );

  const arm = (p: Vec): Pulls =>
    along(
      -inArm(p)[1],
      [
        [right('shoulderHalf'), 1.5, 6.5],
        [right('armSwing'), 10, 4],
        [right('armTwist1'), 16, 4],
        [right('armTwist2'), 22, 4],
        [right('upperArm'), 29, 3.6],
        [right('elbowHalf'), 35.2, 3.6],
        [right('foreSwing'), 42, 4],
        [right('foreTwist'), 49, 4.5],
        [right('forearm'), 55, 2.2],
        [right('wristHalf'), 58.8, 2.2],
      ],
      right('hand'),
    );

  const toes = (x: number): Pulls =>
    mixed(new Map([[right('foot'), 1]]), new Map([[right('toes'), 1]]), smooth(9.5, 16, x));

  const leg = (p: Vec): Pulls => {
    const down = -inThigh(p)[1];
    const [x, y] = inFoot(p);
    if (down < LENGTH.thigh + 20)
      return along(
        down,
        [
          [right('hipHalf'), 4, 8],
          [right('thigh'), 37.8, 4.4],
          [right('kneeHalf'), 46.2, 4.4],
        ],
        right('shank'),
      );
    if (y < -2.2) return toes(x);
    return along(
      down - LENGTH.thigh,
      [
        [right('shank'), 39.5, 3],
        [right('ankleHalf'), 44, 2.5],
      ],
      right('foot'),
    );
  };

  const shoe = (p: Vec): Pulls => {
    const [x, y] = inFoot(p);
    const shaft = smooth(-3.4, 1.5, y) * smooth(4.5, 0, x) * 0.6;
    return mixed(toes(x), new Map([[right('ankleHalf'), 1]]), shaft);
  };

  const shorts = (p: Vec): Pulls => {
    const down = -inThigh(p)[1];
    const share = nearer(Math.min(trunk(p), glute(p)) - 1.2, thigh(p), 2.6) * smooth(-9, 3, down);
    return mixed(middle(p), leg(p), Math.max(share, smooth(7, 12, down)));
  };

  const shirt = (p: Vec): Pulls => {
    const onArm = nearer(torso(p), Math.min(shoulder(p), upperArm(p)), 2.6);
    const whole = new Map(mixed(middle(p), arm(p), onArm));
    // High on the trunk and away from the middle, the girdle takes a part of what the thorax holds.
    const chest = whole.get('thorax') ?? 0;
    const girdle = smooth(36, 46, height(p)) * Math.min(1, Math.max(0, p[2] - 3.5) / 12) * 0.7;
    whole.set('thorax', chest * (1 - girdle));
    whole.set(right('girdle'), (whole.get(right('girdle')) ?? 0) + chest * girdle);
    return height(p) < 16 ? mixed(whole, shorts(p), smooth(16, 9, height(p))) : whole;
  };

  const head = (p: Vec): Pulls => {
    const up = height(p) - 0.25 * (p[0] - root[0]);
    const bent = along(
      up,
      [
        ['thorax', 49.5, 3.5],
        ['neckHalf', 57, 3],
      ],
      'head',
    );
    return mixed(shirt(p), bent, smooth(50, 56, up));
  };

  return { arm, leg, shoe, head, hair: () => new Map([['head', 1]]), shirt, shorts };
}

const isRight = (bone: Bone): boolean => bone.startsWith('right.');

/** Near the middle both sides pull alike, so that no seam opens there. */
export function acrossMiddle(pulls: Pulls, p: Vec): Pulls {
  const share = 0.5 * Math.max(0, 1 - p[2] / 3.5) ** 1.5;
  if (share < 0.004) return pulls;
  const out = new Map<Bone, number>();
  const give = (bone: Bone, pull: number): void => void out.set(bone, (out.get(bone) ?? 0) + pull);
  for (const [bone, pull] of pulls) {
    give(bone, isRight(bone) ? pull * (1 - share) : pull);
    if (isRight(bone)) give(`left.${bone.slice('right.'.length)}` as Bone, pull * share);
  }
  return out;
}

/** The strongest pulls as bytes that add up to 255. */
export function packed(pulls: Pulls): { bones: number[]; weights: number[] } {
  const strongest = [...pulls]
    .filter(([, pull]) => pull > 0.004)
    .toSorted(([, a], [, b]) => b - a)
    .slice(0, PULLS);
  const sum = strongest.reduce((total, [, pull]) => total + pull, 0);
  const bones = Array.from({ length: PULLS }, (_, i) => BONE[strongest[i]?.[0] ?? 'pelvis']);
  const weights = Array.from({ length: PULLS }, (_, i) => Math.round(((strongest[i]?.[1] ?? 0) / sum) * 255));
  weights[0] = (weights[0] ?? 0) + 255 - weights.reduce((total, one) => total + one, 0);
  return { bones, weights };
}
