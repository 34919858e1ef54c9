/** What a surface needs to be drawn: normals, the thickness of cloth at its edges, and how open each place lies to the light. */
import { add, cross, minus, times, unit, type Vec } from '@waxwing/core/body';

import { type Field, gradient } from './field.js';
import { borderOf, type Surface, type Triangle } from './surface.js';

export interface Shaded extends Surface {
  normals: Vec[];
}

/** Normals from the field's slope; on the mirror plane they lie in it, so that no seam shows. */
export const shaded = ({ points, triangles }: Surface, field: Field): Shaded => ({
  points,
  triangles,
  normals: points.map((p) => {
    const [x, y, z] = gradient(field, p, 0.12);
    return unit([x, y, p[2] === 0 ? 0 : z]);
  }),
});

/** Folds open edges inwards, so that cloth has a thickness; `but` leaves some alone. */
export function hemmed(
  { points, triangles, normals }: Shaded,
  thick: number,
  but: (p: Vec) => boolean = () => false,
): Shaded {
  const edges = borderOf({ triangles }).filter(([a, b]) => !(but(points[a] as Vec) && but(points[b] as Vec)));
  // Away from the cloth, across its edge.
  const outwards = new Map<number, Vec>();
  for (const [a, b] of edges) {
    const along = minus(points[b] as Vec, points[a] as Vec);
    for (const end of [a, b]) outwards.set(end, add(outwards.get(end) ?? [0, 0, 0], cross(along, normals[end] as Vec)));
  }
  const out: Shaded = { points: [...points], triangles: [...triangles], normals: [...normals] };
  const push = (point: Vec, normal: Vec): number => {
    out.normals.push(unit(normal));
    return out.points.push(point) - 1;
  };
  const rim = new Map<number, { edge: number; fold: number }>();
  for (const [vertex, sum] of outwards) {
    const [point, normal, way] = [points[vertex] as Vec, normals[vertex] as Vec, unit(sum)];
    rim.set(vertex, {
      edge: push(point, add(times(way, 0.9), times(normal, 0.45))),
      fold: push(add(point, add(times(normal, -thick), times(way, -thick * 0.15))), add(way, times(normal, -0.3))),
    });
  }
  for (const [a, b] of edges) {
    const [p, q] = [rim.get(a), rim.get(b)];
    if (!p || !q) continue;
    const fold: Triangle[] = [
      [q.edge, p.edge, p.fold],
      [q.edge, p.fold, q.fold],
    ];
    out.triangles.push(...fold);
  }
  return out;
}

/** How far out it is looked for what stands in the light, in centimetres. */
const LOOKS = [1.2, 2.6, 4.6, 7.5];

/** 0.25–1: how little stands in the way of light from all sides (Evans 2006), from a field of everything. */
export function openness(point: Vec, normal: Vec, everything: Field): number {
  let [dark, share] = [0, 1];
  for (const far of LOOKS) {
    dark += (share * Math.max(0, far * 0.92 - everything(add(point, times(normal, far))))) / far;
    share *= 0.72;
  }
  return Math.max(0.25, 1 - 0.3 * dark);
}
