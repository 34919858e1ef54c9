/** Rounded outlines as SVG paths: the hull of circles and ellipses, from which the whole figure is drawn. */
import type { Spot } from './projection.js';

export type Point = readonly [x: number, y: number];

const corners = (count: number): Point[] =>
  Array.from({ length: count }, (_, i) => {
    const angle = (2 * Math.PI * i) / count;
    return [Math.cos(angle), Math.sin(angle)];
  });

/** Enough corners to look round inside a hull, and for a large disc that stands alone. */
const FEW = corners(12);
const MANY = corners(32);

export const circle = ({ x, y }: { x: number; y: number }, radius: number): Point[] =>
  FEW.map(([c, s]) => [x + radius * c, y + radius * s]);

/** The ellipse that two half axes span on the picture. */
export const ellipse = ({ x, y }: { x: number; y: number }, a: Point, b: Point, fine = false): Point[] =>
  (fine ? MANY : FEW).map(([c, s]) => [x + a[0] * c + b[0] * s, y + a[1] * c + b[1] * s]);

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

/** Paths are written in whole millimetres: whole numbers are written far quicker than fractions, and nobody sees less. */
const short = (cm: number): number => Math.round(cm * MM_PER_CM);
export const MM_PER_CM = 10;

export const pathOf = (points: readonly Point[]): string =>
  points.length === 0 ? '' : `M${points.map(([x, y]) => `${short(x)} ${short(y)}`).join('L')}Z`;

/** Two circles and everything between them: their outer tangents and the arcs behind them. */
export function capsule(a: Spot, radiusA: number, b: Spot, radiusB: number): string {
  const far = Math.hypot(b.x - a.x, b.y - a.y);
  if (far <= Math.abs(radiusA - radiusB)) return radiusA > radiusB ? round(a, radiusA) : round(b, radiusB);
  const along = Math.atan2(b.y - a.y, b.x - a.x);
  const open = Math.acos((radiusA - radiusB) / far);
  const at = ({ x, y }: Spot, radius: number, angle: number) =>
    `${short(x + radius * Math.cos(angle))} ${short(y + radius * Math.sin(angle))}`;
  const [one, other] = [along + open, along - open];
  const wide = open < Math.PI / 2 ? 1 : 0;
  return (
    `M${at(a, radiusA, one)}A${short(radiusA)} ${short(radiusA)} 0 ${wide} 1 ${at(a, radiusA, other)}` +
    `L${at(b, radiusB, other)}A${short(radiusB)} ${short(radiusB)} 0 ${1 - wide} 1 ${at(b, radiusB, one)}Z`
  );
}

/** A whole ellipse, its long half axis at an angle in radians. */
export function oval({ x, y }: { x: number; y: number }, long: number, across: number, angle: number): string {
  const [dx, dy] = [long * Math.cos(angle), long * Math.sin(angle)];
  const half = `A${short(long)} ${short(across)} ${Math.round((angle * 180) / Math.PI)} 1 1`;
  const [from, to] = [`${short(x - dx)} ${short(y - dy)}`, `${short(x + dx)} ${short(y + dy)}`];
  return `M${from}${half} ${to}${half} ${from}Z`;
}

/** A whole circle, the same way round as everything else. */
export function round({ x, y }: Spot, radius: number): string {
  const r = short(radius);
  return `M${short(x - radius)} ${short(y)}A${r} ${r} 0 1 1 ${short(x + radius)} ${short(y)}A${r} ${r} 0 1 1 ${short(x - radius)} ${short(y)}Z`;
}

/** A limb through some places, as wide at each as said. */
export function limb(places: readonly Spot[], radii: readonly number[]): string {
  let path = '';
  for (let i = 1; i < places.length; i += 1)
    path += capsule(places[i - 1] as Spot, radii[i - 1] ?? 1, places[i] as Spot, radii[i] ?? 1);
  return path;
}
