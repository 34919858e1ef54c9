import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { limb, MM_PER_CM, type Point } from './outline.js';

/** The corners of a path of M, L, A and Z, its arcs cut into short lines (SVG 1.1, appendix F.6). */
function cornersOf(path: string): Point[] {
  const corners: Point[] = [];
  for (const [, command, numbers] of path.matchAll(/([MLA])([^MLAZ]*)/g)) {
    const values = (numbers ?? '').split(' ').map(Number);
    const [x, y] = values.slice(-2) as [number, number];
    const [px, py] = corners.at(-1) ?? [x, y];
    const half = Math.hypot(x - px, y - py) / 2;
    const r = Math.max(values[0] ?? 0, half);
    if (command === 'A' && half > 0) {
      const [wide] = values.slice(3);
      const off = Math.sqrt(r * r - half * half) * (wide === 1 ? 1 : -1);
      const middle: Point = [(px + x) / 2 + ((y - py) / 2 / half) * off, (py + y) / 2 - ((x - px) / 2 / half) * off];
      const from = Math.atan2(py - middle[1], px - middle[0]);
      const to = Math.atan2(y - middle[1], x - middle[0]);
      const by = to > from ? to - from : to - from + 2 * Math.PI;
      for (let i = 1; i < 24; i += 1)
        corners.push([middle[0] + r * Math.cos(from + (by * i) / 24), middle[1] + r * Math.sin(from + (by * i) / 24)]);
    }
    corners.push([x, y]);
  }
  return corners;
}

/** How often a closed line of corners goes round a point. */
function windings(corners: readonly Point[], [x, y]: Point): number {
  const turned = corners.reduce((sum, [ax, ay], i) => {
    const [bx, by] = corners[(i + 1) % corners.length] as Point;
    return sum + Math.atan2((ax - x) * (by - y) - (ay - y) * (bx - x), (ax - x) * (bx - x) + (ay - y) * (by - y));
  }, 0);
  return Math.round(turned / (2 * Math.PI));
}

const places = fc.array(
  fc.record({
    x: fc.integer({ min: -60, max: 60 }),
    y: fc.integer({ min: -60, max: 60 }),
    radius: fc.integer({ min: 3, max: 9 }),
  }),
  { minLength: 1, maxLength: 4 },
);

test('a limb covers its circles and all between neighbours, and nothing that is far from them', () => {
  fc.assert(
    fc.property(places, fc.double({ min: 0, max: 2 * Math.PI, noNaN: true }), (circles, angle) => {
      const path = limb(
        circles.map(({ x, y }) => ({ x, y, near: 0 })),
        circles.map(({ radius }) => radius),
      );
      const corners = cornersOf(path);
      const between = circles.flatMap((a, i) => {
        const b = circles[i + 1] ?? a;
        return [0, 0.25, 0.5, 0.75].map((share) => ({
          x: a.x + (b.x - a.x) * share,
          y: a.y + (b.y - a.y) * share,
          radius: a.radius + (b.radius - a.radius) * share,
        }));
      });
      const bare = between.filter(({ x, y, radius }) => {
        // Ends are written in whole millimetres, which can flatten a nearly half round end a little.
        const out = Math.max(0, 0.85 * radius - 0.4);
        return (
          windings(corners, [(x + out * Math.cos(angle)) * MM_PER_CM, (y + out * Math.sin(angle)) * MM_PER_CM]) === 0
        );
      });
      const grown = corners.filter(
        ([x, y]) =>
          Math.min(...between.map((c) => Math.hypot(c.x - x / MM_PER_CM, c.y - y / MM_PER_CM) - c.radius)) > 20,
      );
      expect([bare, grown]).toEqual([[], []]);
    }),
    { numRuns: 300, endOnFailure: true },
  );
});
