/** Outlines of regions of a raster as smooth closed paths: marching squares (Lorensen & Cline 1987), thinned out (Douglas & Peucker 1973). */

type Point = readonly [x: number, y: number];

/** Points of a line that it needs to stay within `by` of what it was. */
function thinned(points: readonly Point[], by: number): Point[] {
  const keep = new Uint8Array(points.length);
  keep[0] = keep[points.length - 1] = 1;
  const open: [number, number][] = [[0, points.length - 1]];
  for (let next = open.pop(); next; next = open.pop()) {
    const [from, to] = next;
    const [[x0, y0], [x1, y1]] = [points[from] as Point, points[to] as Point];
    const [dx, dy] = [x1 - x0, y1 - y0];
    const long = Math.hypot(dx, dy);
    let [far, at] = [0, -1];
    for (let i = from + 1; i < to; i += 1) {
      const [x, y] = points[i] as Point;
      const off = long < 1e-6 ? Math.hypot(x - x0, y - y0) : Math.abs((x - x0) * dy - (y - y0) * dx) / long;
      if (off > far) [far, at] = [off, i];
    }
    if (far <= by || at < 0) continue;
    keep[at] = 1;
    open.push([from, at], [at, to]);
  }
  return points.filter((_, i) => keep[i]);
}

/** A mask with its steps rounded off. */
function softened(mask: Uint8Array, width: number, height: number): Float32Array {
  let soft = Float32Array.from(mask);
  for (let pass = 0; pass < 2; pass += 1) {
    const from = soft;
    soft = from.slice();
    const at = (i: number): number => from[i] as number;
    for (let y = 1; y < height - 1; y += 1)
      for (let x = 1; x < width - 1; x += 1) {
        const i = y * width + x;
        const [left, right, up, down] = [at(i - 1), at(i + 1), at(i - width), at(i + width)];
        if (left === at(i) && right === left && up === left && down === left) continue;
        const corners = at(i - width - 1) + at(i - width + 1) + at(i + width - 1) + at(i + width + 1);
        soft[i] = (4 * at(i) + 2 * (left + right + up + down) + corners) / 16;
      }
  }
  return soft;
}

const HALF = 0.5;
/** By which corners of a square are inside: from which side the outline comes in, and where it goes out. Sides: up, right, down, left. */
const WAYS: readonly (readonly (readonly [number, number])[])[] = [
  [],
  [[0, 3]],
  [[1, 0]],
  [[1, 3]],
  [[2, 1]],
  [
    [0, 3],
    [2, 1],
  ],
  [[2, 0]],
  [[2, 3]],
  [[3, 2]],
  [[0, 2]],
  [
    [1, 0],
    [3, 2],
  ],
  [[1, 2]],
  [[3, 1]],
  [[0, 1]],
  [[3, 0]],
  [],
];

/** Loops that are smaller than this, in square pixels, are left out. */
const LEAST_AREA = 24;

/** A mask with nothing at its border, so that every outline closes. */
function insetOf(mask: Uint8Array, width: number, height: number): Uint8Array {
  const inset = mask.slice();
  inset.fill(0, 0, width);
  inset.fill(0, width * (height - 1));
  for (let y = 0; y < height; y += 1) inset[y * width] = inset[(y + 1) * width - 1] = 0;
  return inset;
}

/** Closed outlines of where a mask is 1, in pixels. */
export function outlinesOf(mask: Uint8Array, width: number, height: number, thinBy = 0.45): Point[][] {
  const soft = softened(insetOf(mask, width, height), width, height);
  const at = (i: number): number => soft[i] as number;
  const way = (a: number, b: number): number => (HALF - a) / (b - a);
  /** From a crossed edge of the grid to the next one. Edges that run across are even, those that run down odd. */
  const next = new Map<number, { to: number; point: Point }>();
  for (let y = 0; y < height - 1; y += 1)
    for (let x = 0; x < width - 1; x += 1) {
      const i = y * width + x;
      const [a, b, c, d] = [at(i), at(i + 1), at(i + width + 1), at(i + width)];
      const inside = Number(a > HALF) | (Number(b > HALF) << 1) | (Number(c > HALF) << 2) | (Number(d > HALF) << 3);
      const side = (which: number): [number, Point] =>
        which === 0
          ? [2 * i, [x + way(a, b), y]]
          : which === 1
            ? [2 * (i + 1) + 1, [x + 1, y + way(b, c)]]
            : which === 2
              ? [2 * (i + width), [x + way(d, c), y + 1]]
              : [2 * i + 1, [x, y + way(a, d)]];
      for (const [from, to] of WAYS[inside] ?? []) {
        const [key, point] = side(from);
        next.set(key, { to: side(to)[0], point });
      }
    }
  const loops: Point[][] = [];
  for (const start of [...next.keys()]) {
    const points: Point[] = [];
    for (let key = start, step = next.get(key); step; step = next.get(key)) {
      next.delete(key);
      points.push(step.point);
      key = step.to;
    }
    if (points.length < 8) continue;
    const loop = [...points, points[0] as Point];
    const area = loop.slice(1).reduce((sum, [x, y], i) => {
      const [px, py] = loop[i] as Point;
      return sum + px * y - x * py;
    }, 0);
    if (Math.abs(area) < 2 * LEAST_AREA) continue;
    // Thinned in halves: a loop begins where it ends.
    const half = loop.length >> 1;
    loops.push([...thinned(loop.slice(0, half + 1), thinBy), ...thinned(loop.slice(half), thinBy).slice(1, -1)]);
  }
  return loops;
}

/** A bend whose cosine is below this stays a corner. */
const SHARP = 0.55;

/** A closed path through the middles of the sides of a loop, in whole units and steps from point to point: round where it is round, corners kept. */
export function roundedPath(loop: readonly Point[]): string {
  const at = (i: number): Point => loop[(i + loop.length) % loop.length] as Point;
  const middle = ([ax, ay]: Point, [bx, by]: Point): Point => [(ax + bx) / 2, (ay + by) / 2];
  const whole = ([x, y]: Point): Point => [Math.round(x), Math.round(y)];
  const step = ([ax, ay]: Point, [bx, by]: Point): string => `${bx - ax}${by < ay ? '' : ' '}${by - ay}`;
  const start = whole(middle(at(-1), at(0)));
  let here = start;
  let last = '';
  const parts = loop.map((point, i) => {
    const [[ax, ay], [x, y], [cx, cy]] = [at(i - 1), point, at(i + 1)];
    const [ux, uy, vx, vy] = [x - ax, y - ay, cx - x, cy - y];
    const cosine = (ux * vx + uy * vy) / (Math.hypot(ux, uy) * Math.hypot(vx, vy) || 1);
    const [corner, there] = [whole(point), whole(middle(point, at(i + 1)))];
    const command = cosine < SHARP ? 'l' : 'q';
    const numbers =
      command === 'l' ? `${step(here, corner)} ${step(corner, there)}` : `${step(here, corner)} ${step(here, there)}`;
    here = there;
    const text = command === last ? ` ${numbers}` : `${command}${numbers}`;
    last = command;
    return text;
  });
  return `M${start[0]} ${start[1]}${parts.join('')}z`;
}
