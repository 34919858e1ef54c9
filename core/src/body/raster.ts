/** Solids as a picture in plain numbers, without a graphics card: for stills, and where there is no WebGL. */
import type { Box } from './bounds.js';
import { brightness, encoded, INKS, lightOf, type Palette, TONE_STEPS, toneAt } from './look.js';
import type { Camera } from './projection.js';
import type { Solid } from './solid.js';

export interface Raster {
  width: number;
  height: number;
  /** One more than the ink's index; nought where there is nothing. */
  inks: Uint8Array;
  bright: Float32Array;
  /** Greater is nearer, in centimetres. */
  near: Float32Array;
}

/** The back of cloth is dark. */
const BACK_SHARE = 0.42;

/** Draws solids into a picture of so many pixels, over the whole of a frame. */
export function rasterised(
  solids: readonly Solid[],
  camera: Camera,
  frame: Box,
  width: number,
  height: number,
): Raster {
  const { right, up, back, shift, mirrored } = camera;
  const scale = Math.min(width / frame.width, height / frame.height);
  const [ox, oy] = [width / 2 - (frame.x + frame.width / 2) * scale, height / 2 - (frame.y + frame.height / 2) * scale];
  const near = new Float32Array(width * height).fill(-Infinity);
  const inks = new Uint8Array(width * height);
  const bright = new Float32Array(width * height);
  for (const { positions: P, normals: N, triangles, inks: of, open } of solids) {
    const count = of.length;
    const spot = new Float32Array(count * 3);
    const light = new Float32Array(count);
    for (let v = 0; v < count; v += 1) {
      const o = v * 3;
      const [x, y, z] = [(P[o] as number) - shift[0], P[o + 1] as number, (P[o + 2] as number) - shift[2]];
      const [a, b, c] = [N[o] as number, N[o + 1] as number, N[o + 2] as number];
      spot[o] = ox + scale * (right[0] * x + right[1] * y + right[2] * z);
      spot[o + 1] = oy - scale * (up[0] * x + up[1] * y + up[2] * z);
      spot[o + 2] = back[0] * x + back[1] * y + back[2] * z;
      light[v] = brightness(
        [
          right[0] * a + right[1] * b + right[2] * c,
          up[0] * a + up[1] * b + up[2] * c,
          back[0] * a + back[1] * b + back[2] * c,
        ],
        open ? (open[v] as number) : 1,
      );
    }
    for (let t = 0; t < triangles.length; t += 3) {
      const [a, b, c] = [triangles[t] as number, triangles[t + 1] as number, triangles[t + 2] as number];
      const [x0, y0, z0] = [spot[a * 3] as number, spot[a * 3 + 1] as number, spot[a * 3 + 2] as number];
      const [x1, y1, z1] = [spot[b * 3] as number, spot[b * 3 + 1] as number, spot[b * 3 + 2] as number];
      const [x2, y2, z2] = [spot[c * 3] as number, spot[c * 3 + 1] as number, spot[c * 3 + 2] as number];
      const area = (x1 - x0) * (y2 - y0) - (x2 - x0) * (y1 - y0);
      if (area === 0) continue;
      // The picture's y runs down: what is seen from outside goes round the other way.
      const share = area > 0 !== mirrored ? BACK_SHARE : 1;
      const [l0, l1, l2] = [light[a] as number, light[b] as number, light[c] as number];
      const ink = (of[a] as number) + 1;
      const left = Math.max(0, Math.ceil(Math.min(x0, x1, x2) - 0.5));
      const most = Math.min(width - 1, Math.floor(Math.max(x0, x1, x2) - 0.5));
      const top = Math.max(0, Math.ceil(Math.min(y0, y1, y2) - 0.5));
      const bottom = Math.min(height - 1, Math.floor(Math.max(y0, y1, y2) - 0.5));
      for (let y = top; y <= bottom; y += 1)
        for (let x = left; x <= most; x += 1) {
          const [px, py] = [x + 0.5, y + 0.5];
          const w0 = ((x1 - px) * (y2 - py) - (x2 - px) * (y1 - py)) / area;
          const w1 = ((x2 - px) * (y0 - py) - (x0 - px) * (y2 - py)) / area;
          const w2 = 1 - w0 - w1;
          if (w0 < 0 || w1 < 0 || w2 < 0) continue;
          const depth = w0 * z0 + w1 * z1 + w2 * z2;
          const at = y * width + x;
          if (depth <= (near[at] as number)) continue;
          near[at] = depth;
          inks[at] = ink;
          bright[at] = share * (w0 * l0 + w1 * l1 + w2 * l2);
        }
    }
  }
  return { width, height, inks, bright, near };
}

/** A raster as red, green, blue and alpha bytes in three tones, `by` pixels of it to one of the picture. */
export function pixelsOf({ width, height, inks, bright }: Raster, palette: Palette, by = 1): Uint8ClampedArray {
  const [w, h] = [Math.floor(width / by), Math.floor(height / by)];
  const colours = INKS.map((ink) =>
    TONE_STEPS.shares.map((share) => lightOf(palette[ink]).map((c) => encoded(Math.min(1, c * share)) * 255)),
  );
  const out = new Uint8ClampedArray(w * h * 4);
  for (let y = 0; y < h; y += 1)
    for (let x = 0; x < w; x += 1) {
      let [r, g, b, n] = [0, 0, 0, 0];
      for (let j = 0; j < by; j += 1)
        for (let i = 0; i < by; i += 1) {
          const at = (y * by + j) * width + x * by + i;
          const ink = inks[at] as number;
          if (ink === 0) continue;
          const [red = 0, green = 0, blue = 0] = colours[ink - 1]?.[toneAt(bright[at] as number)] ?? [];
          r += red;
          g += green;
          b += blue;
          n += 1;
        }
      if (n === 0) continue;
      out.set([r / n, g / n, b / n, (255 * n) / (by * by)], (y * w + x) * 4);
    }
  return out;
}
