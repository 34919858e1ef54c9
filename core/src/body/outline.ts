/** Rounded outlines as SVG paths: the hull of circles and ellipses, from which the whole figure is drawn. */
import type { Spot } from './projection.js';

export type Point = readonly [x: number, y: number];

/** Corners of a circle's outline: enough to look round at the size of a page. */
const CORNERS = 20;
const CIRCLE: readonly Point[] = Array.from({ length: CORNERS }, (_, i) => {
  const angle = (2 * Math.PI * i) / CORNERS;
  return [Math.cos(angle), Math.sin(angle)];
});

export const circle = ({ x, y }: { x: number; y: number }, radius: number): Point[] =>
  CIRCLE.map(([c, s]) => [x + radius * c, y + radius * s]);

/** The ellipse that two half axes span on the picture. */
export const ellipse = ({ x, y }: { x: number; y: number }, a: Point, b: Point): Point[] =>
  CIRCLE.map(([c, s]) => [x + a[0] * c + b[0] * s, y + a[1] * c + b[1] * s]);

const turn = (o: Point, a: Point, b: Point): number => (a[0] - o[0]) * (b[1] - o[1]) - (a[1] - o[1]) * (b[0] - o[0]);

/** The convex hull, always the same way round (Andrew's monotone chain, 1979). */
export function hull(points: readonly Point[]): Point[] {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const half = (from: readonly Point[]): Point[] => {
    const chain: Point[] = [];
    for (const point of from) {
      while (chain.length > 1 && turn(chain[chain.length - 2] as Point, chain[chain.length - 1] as Point, point) <= 0)
        chain.pop();
      chain.push(point);
    }
    chain.pop();
    return chain;
  };
  return [...half(sorted), ...half(sorted.reverse())];
}

const short = (n: number): string => String(Math.round(n * 10) / 10);

export const pathOf = (points: readonly Point[]): string =>
  points.length === 0 ? '' : `M${points.map(([x, y]) => `${short(x)} ${short(y)}`).join('L')}Z`;

/** A limb through some places, as wide at each as said. */
export function limb(places: readonly Spot[], radii: readonly number[]): string {
  let path = '';
  for (let i = 1; i < places.length; i += 1)
    path += pathOf(
      hull([...circle(places[i - 1] as Spot, radii[i - 1] ?? 1), ...circle(places[i] as Spot, radii[i] ?? 1)]),
    );
  return path;
}
