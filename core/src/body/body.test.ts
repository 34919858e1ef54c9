import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';

import { VIEWS } from '../movement/index.js';
import {
  aboutX,
  aboutY,
  aboutZ,
  after,
  type Anchor,
  anchorFor,
  type Angle,
  ANGLES,
  anglesFrom,
  asYZX,
  asZXY,
  AT_EASE,
  beyondLimits,
  type Body,
  bodyAt,
  type Contact,
  distance,
  hold,
  inverse,
  landmarksOf,
  LENGTH,
  LIMITS,
  mirrored,
  pointOf,
  type Pose,
  posed,
  projectionOf,
  SEGMENT,
  SIDES_OF_BODY,
  STATURE_CM,
  type Turn,
  turned,
  type Vec,
} from './index.js';

const within = (least: number, most: number) => fc.double({ min: least, max: most, noNaN: true });

/** Any posture that joints allow; `share` keeps it away from the ends of their ranges. */
const posture = (share = 1): fc.Arbitrary<Pose> =>
  fc
    .tuple(...ANGLES.map((angle) => within(LIMITS[angle][0] * share, LIMITS[angle][1] * share)))
    .map((values) => Object.fromEntries(ANGLES.map((angle, i) => [angle, values[i]])) as Pose);

const place: fc.Arbitrary<Vec> = fc.tuple(within(-200, 200), within(-200, 200), within(-200, 200));
const angle = within(-179, 179);
const off = within(-80, 80);

const near = (a: readonly number[], b: readonly number[], by = 1e-9) =>
  a.every((value, i) => Math.abs(value - (b[i] ?? NaN)) < by);

fc.configureGlobal({ endOnFailure: true });

describe('the skeleton', () => {
  test('keeps the length of every segment in every posture, to a billionth', () => {
    const lengths = (body: Body): number[] => [
      distance(body.root, body.waist),
      distance(body.waist, body.chest),
      distance(body.chest, body.nape),
      distance(body.headBase, body.crown),
      distance(body.left.hip, body.right.hip),
      ...SIDES_OF_BODY.flatMap((side) => {
        const limb = body[side];
        return [
          distance(limb.shoulder, limb.elbow),
          distance(limb.elbow, limb.wrist),
          distance(limb.wrist, limb.fingertip),
          distance(limb.hip, limb.knee),
          distance(limb.knee, limb.ankle),
          distance(limb.ankle, limb.ball),
          distance(limb.ball, limb.toe),
          distance(limb.clavicle, limb.shoulder),
        ];
      }),
    ];
    const standing = lengths(bodyAt(AT_EASE));
    fc.assert(
      fc.property(posture(), place, (pose, root) => expect(near(lengths(bodyAt(pose, root)), standing)).toBe(true)),
    );
    expect(standing[3]).toBeCloseTo(SEGMENT.head * STATURE_CM, 9);
  });

  test('stands as tall as it is said to be, feet below hips, arms at the sides', () => {
    const body = bodyAt(AT_EASE);
    expect(body.crown[1] - body.left.heel[1]).toBeCloseTo(STATURE_CM, 0);
    expect(body.right.ball[0]).toBeGreaterThan(body.right.heel[0]);
    expect(body.right.shoulder[2]).toBeGreaterThan(0);
    expect(body.left.wrist[1]).toBeLessThan(body.left.elbow[1]);
  });

  test.each<[Angle, (body: Body) => boolean]>([
    ['right.hip.flex', ({ right }) => right.knee[0] > right.hip[0] + 10],
    ['right.hip.out', ({ right }) => right.knee[2] > right.hip[2] + 10],
    ['left.hip.out', ({ left }) => left.knee[2] < left.hip[2] - 10],
    ['right.knee.flex', ({ right }) => right.ankle[0] < right.knee[0] - 10],
    ['right.elbow.flex', ({ right }) => right.wrist[0] > right.elbow[0] + 10],
    ['left.shoulder.out', ({ left }) => left.elbow[2] < left.shoulder[2] - 10],
    ['pelvis.tilt', ({ nape, root }) => nape[0] > root[0] + 10],
    ['lumbar.flex', ({ nape, root }) => nape[0] > root[0] + 10],
    ['thorax.side', ({ nape, root }) => nape[2] > root[2] + 3],
    ['right.ankle.flex', ({ right }) => right.ball[1] > right.heel[1]],
    ['right.girdle.raise', ({ right, left }) => right.shoulder[1] > left.shoulder[1] + 3],
  ])('%s bends the way its name says', (name, moved) => {
    expect(moved(bodyAt({ ...AT_EASE, [name]: 25 }))).toBe(true);
    expect(moved(bodyAt(AT_EASE))).toBe(false);
  });

  test('is its own mirror image twice over, and its mirror image is its reflection', () => {
    fc.assert(
      fc.property(posture(), (pose) => {
        expect(
          near(
            ANGLES.map((one) => mirrored(mirrored(pose))[one]),
            ANGLES.map((one) => pose[one]),
          ),
        ).toBe(true);
        const body = bodyAt(pose);
        const other = bodyAt(mirrored(pose));
        const reflected = ([x, y, z]: Vec): Vec => [x, y, -z];
        for (const name of ['wrist', 'fingertip', 'toe', 'knee'] as const)
          expect(near(other.left[name], reflected(body.right[name]), 1e-9)).toBe(true);
        expect(near(other.crown, reflected(body.crown))).toBe(true);
      }),
    );
  });

  test('takes a later layer over an earlier one, and one side over both within a layer', () => {
    const pose = posed([{ 'hip.flex': 90 }, { 'left.hip.flex': 20, 'hip.flex': 40 }, { 'knee.flex': 5 }]);
    expect([pose['left.hip.flex'], pose['right.hip.flex'], pose['left.knee.flex']]).toEqual([20, 40, 5]);
    expect(beyondLimits(pose)).toEqual([]);
    expect(beyondLimits({ ...pose, 'left.knee.flex': -40 })).toEqual(['left.knee.flex']);
  });
});

describe('turns', () => {
  const turn: fc.Arbitrary<Turn> = fc
    .tuple(angle, angle, angle)
    .map(([z, x, y]) => after(aboutZ(z), after(aboutX(x), aboutY(y))));

  test('undo themselves and keep lengths', () => {
    fc.assert(
      fc.property(turn, place, (one, spot) => {
        expect(near(turned(inverse(one), turned(one, spot)), spot, 1e-9)).toBe(true);
        expect(Math.hypot(...turned(one, spot))).toBeCloseTo(Math.hypot(...spot), 9);
      }),
    );
  });

  test('are read back as the angles that made them', () => {
    fc.assert(
      fc.property(angle, off, angle, (a, b, c) => {
        const zxy = asZXY(after(aboutZ(a), after(aboutX(b), aboutY(c))));
        expect(near([zxy.z, zxy.x, zxy.y], [a, b, c], 1e-6)).toBe(true);
        const yzx = asYZX(after(aboutY(a), after(aboutZ(b), aboutX(c))));
        expect(near([yzx.y, yzx.z, yzx.x], [a, b, c], 1e-6)).toBe(true);
      }),
    );
  });
});

describe('landmarks', () => {
  /** Angles near which two joint axes fall together, so that no points in space can tell them apart. */
  const GIMBAL: readonly [name: RegExp, most: number][] = [
    [/\.(shoulder|hip)\.out$/, 85],
    [/\.wrist\.flex$/, 85],
    [/^pelvis\.tilt$/, 85],
  ];

  test('give every joint angle back within half a degree, outside gimbal cases', () => {
    fc.assert(
      fc.property(posture(0.98), place, (drawn, root) => {
        const pose = { ...drawn };
        for (const one of ANGLES)
          for (const [name, most] of GIMBAL) if (name.test(one)) pose[one] = Math.max(-most, Math.min(most, pose[one]));
        const read = anglesFrom(landmarksOf(bodyAt(pose, root), 'side'));
        for (const [name, value] of Object.entries(read) as [Angle, number][])
          expect([name, Math.abs(((value - pose[name] + 540) % 360) - 180) < 0.5]).toEqual([name, true]);
        expect(Object.keys(read)).toHaveLength(ANGLES.filter((one) => !one.endsWith('heel.lift')).length);
      }),
      { numRuns: 60 },
    );
  });

  test('are seen less well behind the trunk than before it', () => {
    const reaching = bodyAt(posed([{ 'right.shoulder.flex': 80, 'right.elbow.flex': 100, 'right.shoulder.turn': 70 }]));
    expect(landmarksOf(reaching, 'front')['right.wrist'].seen).toBe(1);
    expect(landmarksOf(reaching, 'back')['right.wrist'].seen).toBeLessThan(0.5);
    const standing = landmarksOf(bodyAt(AT_EASE), 'side');
    expect(standing['left.knee'].seen).toBeLessThan(standing['right.knee'].seen);
  });
});

describe('views', () => {
  test('front and back are reflections; up is up from everywhere; what is nearer is nearer', () => {
    fc.assert(
      fc.property(place, (spot) => {
        const [front, back, side] = (['front', 'back', 'side'] as const).map((view) => projectionOf(view)(spot));
        expect(front?.x).toBeCloseTo(-(back?.x ?? NaN), 9);
        // Seen from above, what is further away is higher on the picture, by as much from either side.
        expect((front?.y ?? NaN) + (back?.y ?? NaN)).toBeCloseTo(2 * projectionOf('front')([0, spot[1], 0]).y, 9);
        expect(side?.x).toBeCloseTo(spot[0], 9);
        for (const view of VIEWS)
          expect(projectionOf(view)([spot[0], spot[1] + 1, spot[2]]).y).toBeLessThan(projectionOf(view)(spot).y);
      }),
    );
  });
});

describe('contacts', () => {
  const bent = fc.record({ tilt: within(0, 40), hip: within(20, 110), knee: within(20, 110), out: within(0, 20) });

  test('planted feet stay planted and flat wherever the body goes, and knees never bend backwards', () => {
    fc.assert(
      fc.property(bent, bent, (from, to) => {
        const squat = ({ tilt, hip, knee, out }: typeof from): Pose =>
          posed([{ 'pelvis.tilt': tilt, 'hip.flex': hip, 'knee.flex': knee, 'hip.out': out }]);
        const feet: Contact[] = ['left.foot', 'right.foot'];
        const start = bodyAt(squat(from));
        const anchors = new Map<Contact, Anchor>(feet.map((foot) => [foot, anchorFor(start, foot, 0)]));
        const { body, pose } = hold(squat(to), anchors, feet);
        for (const foot of feet) {
          expect(distance(pointOf(body, foot), anchors.get(foot)?.at ?? [0, 0, 0])).toBeLessThan(0.5);
          const { heel, ball } = body[foot === 'left.foot' ? 'left' : 'right'];
          expect(Math.abs(heel[1] - ball[1])).toBeLessThan(0.1);
        }
        expect(Math.min(pose['left.knee.flex'], pose['right.knee.flex'])).toBeGreaterThanOrEqual(0);
      }),
    );
  });

  test('a lifted heel turns on the ball, and the toes stay on the floor', () => {
    fc.assert(
      fc.property(within(0, 60), (lift) => {
        const pose = posed([{ 'heel.lift': lift }]);
        const anchors = new Map<Contact, Anchor>(
          (['left.foot', 'right.foot'] as const).map((foot) => [foot, anchorFor(bodyAt(AT_EASE), foot, 0)]),
        );
        const { left } = hold(pose, anchors, ['left.foot', 'right.foot']).body;
        const long = LENGTH.ball + LENGTH.heelBehindAnkle;
        expect(left.heel[1]).toBeCloseTo(long * Math.sin((lift * Math.PI) / 180), 1);
        expect(left.toe[1]).toBeCloseTo(0, 1);
      }),
    );
  });
});
