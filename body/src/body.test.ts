import { readFileSync } from 'node:fs';

import { beforeAll, describe, expect, test } from '@jest/globals';
import { assembled, INKS, readSkin, restBody, tinted, type Vec } from '@waxwing/core/body';
import { MUSCLES } from '@waxwing/core/movement';
import fc from 'fast-check';

import { anatomyOf } from './anatomy.js';
import { BUILD, BUILDS } from './build.js';
import { hemmed, openness, shaded } from './cloth.js';
import { cone, ellipsoid, type Field, gradient, loft, smin, spline } from './field.js';
import { bakedFile, sourcesHash } from './places.js';
import { borderOf, cutTo, drawnOnto, simplified, type Surface, surfaceNet, thinnedBorder, welded } from './surface.js';
import { acrossMiddle, packed, weightsOf } from './weights.js';

const number = (least: number, most: number) => fc.double({ min: least, max: most, noNaN: true });
const place: fc.Arbitrary<Vec> = fc.tuple(number(-30, 30), number(-30, 30), number(-30, 30));

fc.configureGlobal({ endOnFailure: true });

describe('fields', () => {
  test('that are blended lie within both, and touch nothing further off than the blend reaches', () => {
    fc.assert(
      fc.property(number(-20, 20), number(-20, 20), number(0.1, 6), (a, b, k) => {
        const both = smin(a, b, k);
        expect(both).toBeLessThanOrEqual(Math.min(a, b));
        expect(both).toBeGreaterThanOrEqual(Math.min(a, b) - k / 4 - 1e-9);
        expect(smin(b, a, k)).toBeCloseTo(both, 9);
        if (Math.abs(a - b) >= k) expect(both).toBe(Math.min(a, b));
      }),
    );
  });

  test('are negative inside, positive outside, and rise about as fast as the distance near the surface', () => {
    const shapes: [Field, inside: Vec][] = [
      [ellipsoid([1, 2, 3], [9, 8, 10]), [1, 2, 3]],
      [cone([0, 0, 0], [0, -20, 4], 5, 3), [0, -10, 2]],
      [
        loft([
          [0, 6, 5, 6, 5],
          [10, 7, 6, 6, 6],
          [20, 4, 4, 5, 4],
        ]),
        [0, -10, 0],
      ],
    ];
    fc.assert(
      fc.property(place, fc.constantFrom(...shapes), (p, [field, inside]) => {
        expect(field(inside)).toBeLessThan(0);
        expect(field([p[0] + 100, p[1], p[2]])).toBeGreaterThan(0);
        if (Math.abs(field(p)) > 1.5 || field(p) < -1) return;
        const steep = Math.hypot(...gradient(field, p));
        expect(steep).toBeGreaterThan(0.55);
        expect(steep).toBeLessThan(1.7);
      }),
    );
    const at = spline([
      [0, 1],
      [1, 3],
      [4, 0],
    ]);
    // Its answer is written into again: each is read before the next is asked for.
    expect([-1, 0, 1, 4, 9].map((t) => at(t)[0])).toEqual([1, 1, 3, 0, 0]);
  });
});

describe('a surface', () => {
  const ball = ellipsoid([0, 0, 0], [10, 10, 10]);
  let net: Surface;
  beforeAll(() => {
    net = drawnOnto(
      surfaceNet(ball, {
        box: [
          [-13, -13, -13],
          [13, 13, 13],
        ],
        step: 1,
      }),
      ball,
    );
  });

  test('of a ball is closed, on the ball, and faces outwards', () => {
    expect(borderOf(net)).toEqual([]);
    const edges = (net.triangles.length * 3) / 2;
    // Euler: a closed surface without holes.
    expect(net.points.length - edges + net.triangles.length).toBe(2);
    for (const p of net.points) expect(Math.hypot(...p)).toBeCloseTo(10, 2);
    const { normals } = shaded(net, ball);
    normals.forEach((normal, i) => {
      const p = net.points[i] as Vec;
      expect((normal[0] * p[0] + normal[1] * p[1] + normal[2] * p[2]) / 10).toBeGreaterThan(p[2] === 0 ? 0.9 : 0.99);
    });
  });

  test('that is cut ends where it shall, and keeps its form when it is thinned out and hemmed', async () => {
    const half = thinnedBorder(welded(cutTo(net, (p) => p[1] - 2)), 1.2);
    for (const p of half.points) expect(p[1]).toBeGreaterThan(1.9);
    const rim = borderOf(half);
    expect(rim.length).toBeGreaterThan(12);
    for (const end of rim.flat()) expect(half.points[end]?.[1]).toBeCloseTo(2, 0);
    const fewer = await simplified(half, 200);
    expect(fewer.triangles.length).toBeLessThanOrEqual(260);
    for (const p of fewer.points) expect(Math.hypot(...p)).toBeCloseTo(10, 0);
    const cloth = hemmed(shaded(fewer, ball), 0.8);
    expect(cloth.triangles.length).toBe(fewer.triangles.length + 2 * borderOf(fewer).length);
  });

  test('lies in the dark where something is near', () => {
    expect(openness([0, 10, 0], [0, 1, 0], ball)).toBe(1);
    const lid = (p: Vec): number => Math.min(ball(p), 13 - p[1]);
    expect(openness([0, 10, 0], [0, 1, 0], lid)).toBeLessThan(0.7);
  });
});

describe('the pulls of bones', () => {
  test('add up to a whole everywhere on the body, in four bytes, and are alike on the middle', () => {
    for (const build of BUILDS) {
      const anatomy = anatomyOf(BUILD[build]);
      const weights = weightsOf(anatomy);
      fc.assert(
        fc.property(
          fc.constantFrom(...Object.values(weights)),
          fc.tuple(number(-20, 25), number(0, 175), number(0, 75)),
          (pulls, p) => {
            const all = acrossMiddle(pulls(p), p);
            expect([...all.values()].reduce((sum, one) => sum + one, 0)).toBeCloseTo(1, 6);
            const { bones, weights: bytes } = packed(all);
            expect(bytes.reduce((sum, one) => sum + one, 0)).toBe(255);
            expect([bones.length, bytes.length, Math.min(...bytes) >= 0]).toEqual([4, 4, true]);
            const middle = acrossMiddle(pulls([p[0], p[1], 0]), [p[0], p[1], 0]);
            for (const [bone, pull] of middle)
              if (bone.startsWith('right.'))
                expect(middle.get(`left.${bone.slice(6)}` as typeof bone)).toBeCloseTo(pull, 9);
          },
        ),
        { numRuns: 60 },
      );
    }
  });
});

describe('the baked skins', () => {
  test.each(BUILDS)('of the %s build are made from the sources as they are, for the skeleton as it is', (build) => {
    const { buffer, byteOffset, byteLength } = readFileSync(bakedFile(build));
    const { head } = readSkin(buffer.slice(byteOffset, byteOffset + byteLength) as ArrayBuffer);
    // Else: npm run bake -w body, then npm run stills -w library.
    expect(head.hash).toBe(sourcesHash());
    const body = restBody();
    for (const [joint, at] of Object.entries(head.joints)) {
      const now = joint === 'root' ? body.root : body.right[joint as 'knee'];
      at.forEach((x, i) => expect(x).toBeCloseTo(now[i] ?? NaN, 6));
    }
    const used = (hand: string, hair: string) =>
      head.parts
        .filter((part) => (part.hand ?? hand) === hand && (part.hair ?? hair) === hair)
        .reduce((sum, { triangles }) => sum + 2 * triangles, 0);
    expect(used('open', 'bob')).toBeLessThan(9_000);
    expect(used('shut', 'short')).toBeGreaterThan(5_000);
  });

  test.each(BUILDS)(
    'of the %s build have every muscle somewhere, alike on both sides, and never on hair or shoes',
    (build) => {
      const { buffer, byteOffset, byteLength } = readFileSync(bakedFile(build));
      const file = readSkin(buffer.slice(byteOffset, byteOffset + byteLength) as ArrayBuffer);
      const skin = assembled(file, { hands: { left: 'open', right: 'open' }, hair: 'bob' });
      const [prime, assist] = [INKS.indexOf('prime'), INKS.indexOf('assist')];
      const bare = new Set(['hair', 'shoe', 'sole'].map((zone) => INKS.indexOf(zone as 'hair')));
      const clear = tinted(skin, { prime: [], assist: [] });
      expect(clear).toEqual(skin.zones);
      for (const muscle of MUSCLES) {
        const inks = tinted(skin, { prime: [muscle], assist: [muscle] });
        const sides = { left: 0, right: 0 };
        inks.forEach((ink, v) => {
          if (ink !== prime || Math.abs(skin.positions[v * 3 + 2] ?? 0) < 0.01) return;
          sides[(skin.positions[v * 3 + 2] ?? 0) >= 0 ? 'right' : 'left'] += 1;
          expect(bare.has(skin.zones[v] ?? 0)).toBe(false);
        });
        expect([muscle, sides.right > 4]).toEqual([muscle, true]);
        expect([muscle, Math.abs(sides.left - sides.right) <= Math.max(6, sides.right * 0.2)]).toEqual([muscle, true]);
        // What works most is not drawn over by what helps.
        expect([muscle, inks.includes(assist)]).toEqual([muscle, false]);
      }
    },
  );
});
