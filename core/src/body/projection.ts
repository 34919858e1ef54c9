/** Orthographic views: a point in the room → a place on the picture (centimetres, y down) and how near it is. */
import type { View } from '../movement/vocabulary.js';
import type { Vec } from './rotation.js';

export interface Spot {
  x: number;
  y: number;
  /** Greater is nearer. */
  near: number;
}

/** Degrees round from the side at which the body faces right, and how far the eye is raised. */
const EYE: Readonly<Record<View, readonly [round: number, raised: number]>> = {
  side: [0, 0],
  front: [90, 0],
  back: [-90, 0],
  oblique: [42, 12],
};

export type Project = (point: Vec) => Spot;

/** How a view sees points. Front: the viewer faces the person; side: the person faces right; oblique: between both, from a little above. */
export function projectionOf(view: View): Project {
  const [round, raised] = EYE[view].map((degrees) => (degrees * Math.PI) / 180) as [number, number];
  const [c, s] = [Math.cos(round), Math.sin(round)];
  const [ce, se] = [Math.cos(raised), Math.sin(raised)];
  return ([x, y, z]) => {
    const deep = x * s + z * c;
    return { x: x * c - z * s, y: -(y * ce - deep * se), near: deep * ce + y * se };
  };
}
