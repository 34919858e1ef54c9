/** The lines that are drawn over a clip: the body as it was found, and where it is unsure. */
import { placeOf, type Point, POINTS, SEEN, type Series } from '@waxwing/core/sight';

const LIMBS: readonly [Point, Point][] = (['left', 'right'] as const).flatMap((side) =>
  (
    [
      ['shoulder', 'elbow'],
      ['elbow', 'wrist'],
      ['shoulder', 'hip'],
      ['hip', 'knee'],
      ['knee', 'ankle'],
      ['ankle', 'heel'],
      ['heel', 'toe'],
    ] as const
  ).map(([a, b]): [Point, Point] => [`${side}.${a}`, `${side}.${b}`]),
);
const ACROSS: readonly [Point, Point][] = [
  ['left.shoulder', 'right.shoulder'],
  ['left.hip', 'right.hip'],
];
/** Two colours that are told apart on any picture, with a dark line under each. */
const [LINE, UNDER] = ['#ffd84d', 'rgba(20,16,12,.75)'];
const UNSURE = 0.4;

/** The moment of a series that is nearest to a time. */
export function nearest(times: Float64Array, at: number): number {
  let [low, high] = [0, times.length - 1];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((times[middle] as number) < at) low = middle + 1;
    else high = middle;
  }
  return low > 0 && at - (times[low - 1] as number) < (times[low] as number) - at ? low - 1 : low;
}

/** @param height pixels of the picture */
export function drawBody(pen: CanvasRenderingContext2D, { flat, seen }: Series, moment: number, height: number): void {
  const at = (point: Point): { x: number; y: number; sure: number } => {
    const i = moment * POINTS.length + placeOf(point);
    return {
      x: (flat[i * 2] as number) * height,
      y: (flat[i * 2 + 1] as number) * height,
      sure: seen[i] as number,
    };
  };
  const wide = Math.max(2, height / 130);
  pen.lineCap = 'round';
  for (const [colour, width] of [
    [UNDER, wide * 2],
    [LINE, wide],
  ] as const)
    for (const [from, to] of [...LIMBS, ...ACROSS].map((pair) => pair.map(at))) {
      if (!from || !to || from.sure < UNSURE || to.sure < UNSURE) continue;
      pen.globalAlpha = Math.min(from.sure, to.sure) >= SEEN ? 1 : 0.5;
      pen.strokeStyle = colour;
      pen.lineWidth = width;
      pen.beginPath();
      pen.moveTo(from.x, from.y);
      pen.lineTo(to.x, to.y);
      pen.stroke();
    }
  pen.globalAlpha = 1;
}
