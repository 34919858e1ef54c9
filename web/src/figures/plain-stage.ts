/** The figure without a graphics card: drawn in plain numbers, smaller and less often, so that the page stays quick. */
import { type Box, pixelsOf, rasterised, solidsOf } from '@waxwing/core/body';

import type { Picture } from './picture';

/** A box of the shape of its place: more room above and beside, the floor where it was. */
export function filling({ x, y, width, height }: Box, aspect: number): Box {
  const wide = Math.max(width, height * aspect);
  const tall = Math.max(height, width / aspect);
  return { x: x + (width - wide) / 2, y: y + height - tall, width: wide, height: tall };
}

/** Pixels that are drawn for one picture at most. */
const MOST_PIXELS = 60_000;

/** Draws a picture onto a canvas of any size, from fewer pixels than it has. */
export function drawPlainly(onto: CanvasRenderingContext2D, { scene, camera, box, palette }: Picture): void {
  const { width, height } = onto.canvas;
  const share = Math.min(1, Math.sqrt(MOST_PIXELS / (width * height)));
  const [w, h] = [Math.max(1, Math.round(width * share)), Math.max(1, Math.round(height * share))];
  const pixels = pixelsOf(rasterised(solidsOf(scene, camera), camera, box, w, h), palette);
  const small = new OffscreenCanvas(w, h);
  small.getContext('2d')?.putImageData(new ImageData(pixels as Uint8ClampedArray<ArrayBuffer>, w, h), 0, 0);
  onto.drawImage(small, 0, 0, width, height);
}
