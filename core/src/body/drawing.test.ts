import { readFileSync } from 'node:fs';
import { join } from 'node:path';

import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';

import { VIEWS } from '../movement/index.js';
import {
  after,
  ANGLES,
  arcOf,
  assembled,
  blotOf,
  bodyAt,
  BONE,
  BONE_SIZE,
  BONES,
  bonesOf,
  boundsOf,
  cameraOf,
  checkFigures,
  coarsened,
  distance,
  eyeFor,
  type Figure,
  type FigureLibrary,
  folded,
  frameAt,
  handOf,
  heldAt,
  INKS,
  inverse,
  LIMITS,
  marksOf,
  mirrored,
  type Motion,
  motionOf,
  outlinesOf,
  paletteOf,
  personFor,
  pictureSvg,
  pixelsOf,
  type Pose,
  projectionOf,
  quaternionOf,
  rasterised,
  readSkin,
  restBody,
  roundedPath,
  SIDES_OF_BODY,
  skinned,
  SolidBuilder,
  solidsOf,
  stagerFor,
  together,
  type Turn,
  turnedBetween,
  turnOf,
  unfolded,
  type Vec,
  writtenSkin,
} from './index.js';

const POSES = {
  stand: { 'hip.out': 6 },
  squat: { 'pelvis.tilt': 34, 'hip.flex': 120, 'knee.flex': 112, 'hip.out': 14 },
  reach: { 'shoulder.flex': 88 },
};

const DOSE = {
  dose: { mode: 'reps' as const, tempo: '3-1-1-0', windows: {} },
  phases: ['set-up' as const, 'lower' as const, 'bottom' as const, 'rise' as const],
  sides: 'both' as const,
};

function motionFrom(written: object): Motion {
  const checked = checkFigures({ it: { start: ['stand'], end: ['squat', 'reach'], ...written } }, POSES);
  if (!checked.ok) throw new Error(JSON.stringify(checked.problems));
  const library: FigureLibrary = { poses: POSES, figures: checked.value };
  return motionOf(library, checked.value.it as Figure, DOSE);
}

const plain = motionFrom({});
const REST = restBody();

const fileOf = (build: string) => {
  const { buffer, byteOffset, byteLength } = readFileSync(
    join(import.meta.dirname, `../../../body/baked/${build}.bin`),
  );
  return readSkin(buffer.slice(byteOffset, byteOffset + byteLength) as ArrayBuffer);
};
const FILES = { broad: fileOf('broad'), narrow: fileOf('narrow') };
const OPEN = { hands: { left: 'open', right: 'open' }, hair: 'short' } as const;
const broad = assembled(FILES.broad, OPEN);

const posture: fc.Arbitrary<Pose> = fc
  .tuple(...ANGLES.map((angle) => fc.double({ min: LIMITS[angle][0], max: LIMITS[angle][1], noNaN: true })))
  .map((values) => Object.fromEntries(ANGLES.map((angle, i) => [angle, values[i]])) as Pose);
const somewhere = fc.double({ min: -1, max: 1, noNaN: true });
const direction = fc
  .tuple(somewhere, somewhere, somewhere)
  .filter((v) => Math.hypot(...v) > 0.1)
  .map((v): Vec => {
    const long = Math.hypot(...v);
    return [v[0] / long, v[1] / long, v[2] / long];
  });
const turn: fc.Arbitrary<Turn> = posture.map((pose) => bodyAt(pose).right.forearm);
const near = (a: readonly number[], b: readonly number[], by: number): boolean =>
  a.every((value, i) => Math.abs(value - (b[i] ?? NaN)) < by);

fc.configureGlobal({ endOnFailure: true });

describe('turns as quaternions', () => {
  test('are the same turns, and two halves of a way are the whole', () => {
    fc.assert(
      fc.property(turn, turn, (a, b) => {
        expect(near(turnOf(quaternionOf(a)), a, 1e-6)).toBe(true);
        const half = turnOf(turnedBetween(quaternionOf(a), quaternionOf(b), 0.5));
        const step = after(half, inverse(a));
        expect(near(after(step, half), b, 1e-4)).toBe(true);
      }),
    );
  });
});

describe('the skin', () => {
  const place = (matrices: Float32Array, bone: number, [x, y, z]: Vec): number[] =>
    [0, 1, 2].map((row) => {
      const m = (i: number): number => matrices[bone * BONE_SIZE + row * 4 + i] ?? NaN;
      return m(0) * x + m(1) * y + m(2) * z + m(3);
    });

  test('hangs on bones that take each joint at rest to where it is, in every posture', () => {
    fc.assert(
      fc.property(posture, (pose) => {
        const body = bodyAt(pose, [3, 90, -2]);
        const matrices = bonesOf(body, REST);
        for (const side of SIDES_OF_BODY) {
          const [now, was] = [body[side], REST[side]];
          const ends = {
            thigh: 'knee',
            shank: 'ankle',
            upperArm: 'elbow',
            forearm: 'wrist',
            hand: 'fingertip',
            foot: 'ball',
            toes: 'toe',
          } as const;
          for (const [bone, joint] of Object.entries(ends) as [keyof typeof ends, (typeof ends)[keyof typeof ends]][])
            expect(near(place(matrices, BONE[`${side}.${bone}`], was[joint]), now[joint], 1e-3)).toBe(true);
          // Helpers stay at their joint and keep lengths.
          for (const [bone, joint] of [
            ['kneeHalf', 'knee'],
            ['elbowHalf', 'elbow'],
            ['armTwist1', 'shoulder'],
          ] as const)
            expect(near(place(matrices, BONE[`${side}.${bone}`], was[joint]), now[joint], 1e-3)).toBe(true);
        }
        BONES.forEach((_, bone) => {
          const [a, b] = [place(matrices, bone, [0, 0, 0]), place(matrices, bone, [10, -20, 5])];
          expect(Math.hypot(...a.map((x, i) => x - (b[i] ?? NaN)))).toBeCloseTo(Math.hypot(10, 20, 5), 2);
        });
      }),
      { numRuns: 40 },
    );
  });

  test('with fewer triangles moves as it does with all of them', () => {
    const few = coarsened(broad);
    expect(few.count).toBeLessThan(broad.count / 4);
    expect(Math.max(...few.triangles)).toBe(few.count - 1);
    fc.assert(
      fc.property(posture, (pose) => {
        const bones = bonesOf(bodyAt(pose), REST);
        const [all, some] = [skinned(broad, bones), skinned(few, bones)];
        const differs = [...few.triangles].filter((v, i) => {
          const full = broad.coarse[i] ?? 0;
          return (
            few.zones[v] !== broad.zones[full] ||
            (['positions', 'normals'] as const).some((list) =>
              [0, 1, 2].some((axis) => some[list][v * 3 + axis] !== all[list][full * 3 + axis]),
            )
          );
        });
        expect(differs).toEqual([]);
      }),
      { numRuns: 3 },
    );
  });

  test('is itself at rest, and of the mirrored posture the mirror image', () => {
    const still = skinned(broad, bonesOf(REST, REST));
    expect(near([...still.positions], [...broad.positions], 1e-3)).toBe(true);
    fc.assert(
      fc.property(posture, (pose) => {
        const of = (one: Pose) => skinned(broad, bonesOf(bodyAt(one), REST)).positions;
        const sorted = (all: Float32Array, flip: 1 | -1) =>
          Array.from({ length: all.length / 3 }, (_, v) => (all[v * 3 + 2] ?? NaN) * flip).toSorted((a, b) => a - b);
        expect(near(sorted(of(pose), -1), sorted(of(mirrored(pose)), 1), 0.02)).toBe(true);
      }),
      { numRuns: 8 },
    );
  });

  test('opens no seam: what lies on the middle of both halves at rest stays together in every posture', () => {
    for (const file of Object.values(FILES)) {
      const skin = assembled(file, OPEN);
      const at = (all: Float32Array, v: number): Vec => [
        all[v * 3] ?? NaN,
        all[v * 3 + 1] ?? NaN,
        all[v * 3 + 2] ?? NaN,
      ];
      const first = new Map<string, number>();
      const twins: [number, number][] = [];
      for (let v = 0; v < skin.count; v += 1) {
        if (Math.abs(skin.positions[v * 3 + 2] ?? 1) > 1e-4) continue;
        const key = `${skin.zones[v]} ${at(skin.positions, v)
          .map((x) => x.toFixed(3))
          .join()}`;
        const other = first.get(key);
        if (other === undefined) first.set(key, v);
        else twins.push([other, v]);
      }
      expect(twins.length).toBeGreaterThan(60);
      fc.assert(
        fc.property(posture, (pose) => {
          const { positions } = skinned(skin, bonesOf(bodyAt(pose), REST));
          for (const [a, b] of twins) expect(distance(at(positions, a), at(positions, b))).toBeLessThan(0.35);
        }),
        { numRuns: 10 },
      );
    }
  });

  test('is read as it was written, with each kind of hand and hair, and directions keep to a degree and a half', () => {
    const again = readSkin(writtenSkin(FILES.broad).buffer as ArrayBuffer);
    expect(again).toEqual(FILES.broad);
    const of = (hand: 'open' | 'shut' | 'cupped', hair: 'bun' | 'short') =>
      assembled(FILES.narrow, { hands: { left: 'open', right: hand }, hair }).positions.reduce((sum, x) => sum + x, 0);
    expect(new Set([of('open', 'short'), of('shut', 'short'), of('shut', 'bun'), of('cupped', 'bun')]).size).toBe(4);
    fc.assert(
      fc.property(direction, (v) => {
        const back = unfolded(...folded(v));
        const cosine = v[0] * back[0] + v[1] * back[1] + v[2] * back[2];
        expect((Math.acos(Math.min(1, cosine)) * 180) / Math.PI).toBeLessThan(1.5);
      }),
    );
  });
});

describe('a raster', () => {
  const box = { x: -50, y: -100, width: 100, height: 110 };
  const shot = (build: (into: SolidBuilder) => void, camera = cameraOf({ round: 0, raised: 0 })) => {
    const into = new SolidBuilder();
    build(into);
    return rasterised([into.done()], camera, box, 200, 220);
  };
  const count = (mask: ArrayLike<number>, is: (one: number) => boolean): number => Array.from(mask).filter(is).length;

  test('of a ball is a disc of its size, with the nearer of two in front', () => {
    const { inks } = shot((into) => into.ball('iron', [0, 50, 0], 20, 40));
    expect(count(inks, (ink) => ink > 0) / 4 / (Math.PI * 400)).toBeCloseTo(0.98, 1);
    const both = shot((into) => into.ball('iron', [0, 50, 0], 20, 40).ball('wood', [0, 50, 30], 10, 40));
    const wood = count(both.inks, (ink) => ink === both.inks[110 * 200 + 100]);
    expect(wood / 4 / (Math.PI * 100)).toBeCloseTo(0.98, 1);
  });

  test('seen in a mirror is the mirror image', () => {
    const thing = (into: SolidBuilder): SolidBuilder =>
      into.box('prop', [10, 40, 20], [8, 30, 4]).ball('iron', [-20, 70, -10], 9);
    const front = { round: 90, raised: 7 };
    const [plainly, mirror] = [shot(thing, cameraOf(front)), shot(thing, cameraOf(front, true))];
    for (let y = 0; y < 220; y += 7)
      for (let x = 0; x < 200; x += 1) {
        const at = y * 200;
        if (plainly.inks[at + x] !== mirror.inks[at + 199 - x])
          // Only where an outline falls between two pixels.
          expect(
            new Set([plainly.inks[at + x - 1], plainly.inks[at + x + 1], plainly.inks[at + x]]).size,
          ).toBeGreaterThan(1);
      }
  });

  test('becomes pixels that are clear where there is nothing, and outlines that enclose what they go round', () => {
    const disc = shot((into) => into.ball('iron', [0, 50, 0], 20, 40));
    const pixels = pixelsOf(disc, paletteOf(personFor('anybody')), 2);
    expect(pixels).toHaveLength(100 * 110 * 4);
    expect(pixels[3]).toBe(0);
    expect(pixels[(50 * 100 + 50) * 4 + 3]).toBe(255);
    const mask = Uint8Array.from(disc.inks, (ink) => (ink > 0 ? 1 : 0));
    // What runs out of the picture is closed along its border.
    const [whole] = outlinesOf(new Uint8Array(200 * 220).fill(1), 200, 220);
    expect(whole?.every(([x, y]) => x > 0 && x < 199 && y > 0 && y < 219)).toBe(true);
    const [loop, ...others] = outlinesOf(mask, 200, 220);
    expect(others).toEqual([]);
    const area = (loop ?? []).reduce((sum, [x, y], i, all) => {
      const [nx, ny] = all[(i + 1) % all.length] ?? [0, 0];
      return sum + (x * ny - nx * y) / 2;
    }, 0);
    expect(Math.abs(area) / (Math.PI * 1600)).toBeCloseTo(1, 1);
    expect(roundedPath(loop ?? [])).toMatch(/^M[\d ]+([lq][-\d ]+)+z$/);
  });
});

describe('what is shown with a figure', () => {
  test('a load is in the hand that holds it, a cable goes to both hands, and a hand is closed round what it holds', () => {
    const held = motionFrom({ holds: [{ item: 'dumbbell', in: 'right' }] });
    const { body } = frameAt(held, 0);
    const middle = (positions: Float32Array): number[] =>
      [0, 1, 2].map((i) => {
        const all = Array.from(positions).filter((_, at) => at % 3 === i);
        return (Math.min(...all) + Math.max(...all)) / 2;
      });
    const solid = heldAt(held.figure, body);
    expect(near(middle(solid?.positions ?? new Float32Array()), body.right.knuckles, 4)).toBe(true);
    expect([handOf(held.figure, 'right'), handOf(held.figure, 'left')]).toEqual(['shut', 'open']);
    expect(handOf(motionFrom({ holds: [{ item: 'dumbbell', in: 'between' }] }).figure, 'left')).toBe('cupped');
    expect(heldAt(plain.figure, body)).toBeNull();
    const pulled = motionFrom({ lines: [{ item: 'cable', from: [60, 200, 0], to: 'hands' }] });
    const cable = heldAt(pulled.figure, body);
    const ys = Array.from(cable?.positions ?? []).filter((_, at) => at % 3 === 1);
    expect(Math.max(...ys)).toBeGreaterThan(199);
  });

  test('somebody who helps keeps still, is all of one colour, and is within the frame', () => {
    const helped = motionFrom({ partner: { pose: [{ 'pelvis.turn': 180 }], at: [90, 90, 0] } });
    const stage = stagerFor(helped, broad);
    const [one, other] = [stage(0).partner, stage(helped.seconds / 2).partner];
    expect(other?.positions).toEqual(one?.positions);
    expect([...new Set(one?.inks)].map((ink) => INKS[ink])).toEqual(['partner']);
    const box = boundsOf(helped, 'side');
    expect(box.x + box.width).toBeGreaterThan(95);
    expect(motionFrom({}).partner).toBeNull();
  });

  test('a wall is seen from the side and from before it, and looked through from behind it', () => {
    const seen = (x: number) => {
      const scene = stagerFor(motionFrom({ props: [{ item: 'wall', at: [x, 0, 0], height: 0 }] }), broad)(0);
      return VIEWS.filter((view) => scene.wall && solidsOf(scene, cameraOf(eyeFor(view))).includes(scene.wall)).sort();
    };
    expect(seen(-20)).toEqual(['front', 'oblique', 'side']);
    expect(seen(20)).toEqual(['back', 'side']);
  });

  test('furniture is under what rests on it, and the blot on the floor is under the feet', () => {
    const stepped = motionFrom({ props: [{ item: 'step', at: 'right.foot', height: 20 }] });
    const scene = stagerFor(stepped, broad)(0);
    const xs = Array.from(scene.furniture?.positions ?? []).filter((_, at) => at % 3 === 0);
    const ball = scene.frame.body.right.ball[0];
    expect(Math.min(...xs)).toBeLessThan(ball);
    expect(Math.max(...xs)).toBeGreaterThan(ball);
    expect(solidsOf(scene, cameraOf(eyeFor('side')))).toHaveLength(2);
    const blot = blotOf([scene.person]);
    const shade = ([x, , z]: Vec): number =>
      blot.shades[
        Math.floor(((z - blot.z) / blot.side) * blot.cells) * blot.cells +
          Math.floor(((x - blot.x) / blot.side) * blot.cells)
      ] ?? 0;
    for (const side of SIDES_OF_BODY) expect(shade(scene.frame.body[side].ball)).toBeGreaterThan(90);
    expect(shade([blot.x + 1, 0, blot.z + 1])).toBeLessThan(20);
  });

  test('the same name is the same person, and names make a mix', () => {
    expect(personFor('goblet-squat')).toEqual(personFor('goblet-squat'));
    const all = Array.from({ length: 200 }, (_, i) => personFor(`movement-${i}`));
    for (const key of ['build', 'hair', 'skin'] as const)
      expect(new Set(all.map((one) => one[key])).size).toBe({ build: 2, hair: 4, skin: 5 }[key]);
  });

  test('a picture is flat regions, in greys where asked for', () => {
    const wanted = { motion: plain, seconds: 3, view: 'side', skin: FILES[personFor('').build] } as const;
    const colour = pictureSvg(wanted);
    expect(colour).toMatch(/^<svg [^>]+>(<path fill="#[0-9a-f]{6}" d="[Mlqz\d -]+"\/>)+<\/svg>$/);
    const greys = [...pictureSvg({ ...wanted, grey: true }).matchAll(/fill="#(..)(..)(..)"/g)];
    expect(greys.length).toBeGreaterThan(6);
    for (const [, r, g, b] of greys) expect([g, b]).toEqual([r, r]);
  });
});

describe('what stands around a figure', () => {
  test('its frame holds every joint at every moment, from every side', () => {
    for (const view of VIEWS) {
      const { x, y, width, height } = boundsOf(plain, view);
      for (let seconds = 0; seconds < plain.seconds; seconds += 0.2) {
        const { body } = frameAt(plain, seconds);
        for (const side of SIDES_OF_BODY)
          for (const point of [body[side].fingertip, body[side].toe, body[side].elbow, body.crown]) {
            const spot = projectionOf(view)(point);
            expect(spot.x).toBeGreaterThan(x);
            expect(spot.x).toBeLessThan(x + width);
            expect(spot.y).toBeGreaterThan(y);
            expect(spot.y).toBeLessThan(y + height);
          }
      }
    }
  });

  test('a frame round two holds both and no more', () => {
    const a = { x: -10, y: -50, width: 20, height: 55 };
    const b = { x: 0, y: -80, width: 40, height: 60 };
    expect(together(a, b)).toEqual({ x: -10, y: -80, width: 50, height: 85 });
    expect(together(b, a)).toEqual(together(a, b));
    expect(together(a, a)).toEqual(a);
  });

  test('a mark is at both knees from the front and at one where they hide one another', () => {
    const frame = frameAt(plain, 0);
    const front = marksOf(frame, projectionOf('front'), 'knees');
    expect(front).toHaveLength(2);
    expect(front[0]?.x).toBeCloseTo(-(front[1]?.x ?? NaN), 6);
    expect(marksOf(frame, projectionOf('side'), 'knees')).toHaveLength(1);
    expect(marksOf(frame, projectionOf('side'), 'low-back')).toHaveLength(1);
  });

  test('the angle that is written is the angle of the joint', () => {
    const bottom = frameAt(plain, 3.1);
    for (const joint of ['knee', 'hip', 'elbow', 'ankle'] as const) {
      const { degrees, d } = arcOf(bottom, projectionOf('side'), joint);
      expect(degrees).toBe(Math.round(bottom.pose[`right.${joint}.flex`]));
      expect(d).toMatch(/^M.*A17 17 0 0 [01] /);
    }
    expect(arcOf(bottom, projectionOf('side'), 'trunk').degrees).toBeGreaterThan(25);
    expect(arcOf(frameAt(plain, 0), projectionOf('side'), 'trunk').degrees).toBeLessThan(5);
  });
});
