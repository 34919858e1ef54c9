/** The model's thirty-three places of a body as the twenty-one that are read. */
import { type Body, type Point, POINTS, SEEN, SIDED_POINTS, type SidedPoint } from '@waxwing/core/sight';

interface Place {
  x: number;
  y: number;
  z: number;
  visibility?: number | undefined;
}

/** By number on the model's left side; those of the right follow each. */
const NUMBERS: Readonly<Record<SidedPoint, readonly number[]>> = {
  ear: [7],
  shoulder: [11],
  elbow: [13],
  wrist: [15],
  // Between the first and the last knuckle.
  hand: [17, 19],
  hip: [23],
  knee: [25],
  ankle: [27],
  heel: [29],
  toe: [31],
};

const numbersOf = (point: Point): readonly number[] => {
  if (point === 'nose') return [0];
  const [side, name] = point.split('.') as ['left' | 'right', SidedPoint];
  return NUMBERS[name].map((number) => number + (side === 'right' ? 1 : 0));
};

const FROM = POINTS.map(numbersOf);

/** A trunk has to be seen so well, and some of the rest: what is found on a bare wall is not. */
const TRUNK: readonly SidedPoint[] = ['shoulder', 'hip'];
const LEAST_TRUNK = 0.6;
const LEAST_REST = 0.4;

const mean = (numbers: readonly number[]): number => numbers.reduce((sum, one) => sum + one, 0) / numbers.length;

/** Null for something that is no person. @param aspect width of the picture to its height */
export function bodyFrom(flat: readonly Place[], deep: readonly Place[], aspect: number): Body | null {
  const of = (list: readonly Place[], numbers: readonly number[], axis: 'x' | 'y' | 'z'): number =>
    mean(numbers.map((number) => list[number]?.[axis] ?? NaN));
  const sureness = (numbers: readonly number[]): number => mean(numbers.map((number) => flat[number]?.visibility ?? 0));
  const sure = (points: readonly SidedPoint[]): number =>
    // The nearer side is enough.
    mean(points.map((point) => Math.max(...[0, 1].map((far) => sureness(NUMBERS[point].map((n) => n + far))))));
  if (sure(TRUNK) < LEAST_TRUNK || sure(SIDED_POINTS) < LEAST_REST) return null;

  const seen = Float32Array.from(FROM, sureness);
  const places = Float32Array.from(FROM.flatMap((n) => [of(flat, n, 'x') * aspect, of(flat, n, 'y')]));
  // What lies outside the picture was only guessed.
  FROM.forEach((_, i) => {
    const [x, y] = [places[i * 2] as number, places[i * 2 + 1] as number];
    if (x < 0 || x > aspect || y < 0 || y > 1) seen[i] = Math.min(seen[i] as number, SEEN - 0.01);
  });
  const [xs, ys] = [0, 1].map((axis) => FROM.map((_, i) => places[i * 2 + axis] as number)) as [number[], number[]];
  return {
    flat: places,
    deep: Float32Array.from(FROM.flatMap((n) => [of(deep, n, 'x'), of(deep, n, 'y'), of(deep, n, 'z')])),
    seen,
    box: { left: Math.min(...xs), top: Math.min(...ys), right: Math.max(...xs), bottom: Math.max(...ys) },
  };
}
