/** One moment of a figure as a whole SVG file of flat regions, in colour or in greys that survive a black-and-white printer. */
import type { View } from '../movement/vocabulary.js';
import { boundsOf, type Box } from './bounds.js';
import { INKS, type Palette, paletteOf, personFor, toneAt, toned } from './look.js';
import type { Motion } from './motion.js';
import { cameraOf, eyeFor } from './projection.js';
import { type Raster, rasterised } from './raster.js';
import { outlinesOf, roundedPath } from './regions.js';
import { handsOf, solidsOf, stagerFor } from './scene.js';
import { assembled, type SkinFile } from './skin-file.js';

/** Pixels to a centimetre that the regions are found in. */
const DENSE = 2;
/** A place that lies this much in front of its neighbour has an edge there, in centimetres. */
const STEP_CM = 2.2;

export interface PictureWanted {
  motion: Motion;
  seconds: number;
  view: View;
  skin: SkinFile;
  box?: Box;
  grey?: boolean;
}

/** A whole SVG, `DENSE` units to a centimetre of the figure. */
export function pictureSvg({ motion, seconds, view, skin: file, box, grey = false }: PictureWanted): string {
  const person = personFor(motion.name);
  const skin = assembled(file, { hands: handsOf(motion), hair: person.hair });
  const scene = stagerFor(motion, skin)(seconds);
  const whole = box ?? boundsOf(motion, view);
  const [width, height] = [Math.ceil(whole.width * DENSE), Math.ceil(whole.height * DENSE)];
  const camera = cameraOf(eyeFor(view, motion.position), false, scene.frame.travelled);
  const raster = rasterised(solidsOf(scene, camera), camera, whole, width, height);
  const paths = regionsOf(raster, paletteOf(person), grey);
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}">${paths}</svg>`;
}

/** For each ink its whole region, then what is darker and lighter in it. */
function regionsOf({ width, height, inks, bright, near }: Raster, palette: Palette, grey: boolean): string {
  const edge = (i: number): boolean =>
    [i - 2, i + 2, i - 2 * width, i + 2 * width].some(
      (j) => (inks[j] ?? 0) !== 0 && (near[j] as number) - (near[i] as number) > STEP_CM,
    );
  return INKS.map((ink, k) => {
    const whole = new Uint8Array(inks.length);
    const tones = [new Uint8Array(inks.length), new Uint8Array(inks.length)] as const;
    let any = false;
    for (let i = 0; i < inks.length; i += 1) {
      if (inks[i] !== k + 1) continue;
      any = true;
      whole[i] = 1;
      const tone = edge(i) ? 0 : toneAt(bright[i] as number);
      if (tone !== 1) (tone === 0 ? tones[0] : tones[1])[i] = 1;
    }
    if (!any) return '';
    // Grown by a pixel under its neighbours, so that no gap shows between them.
    const grown = whole.slice();
    for (let i = width; i < inks.length - width; i += 1)
      if (inks[i] !== 0 && (whole[i - 1] || whole[i + 1] || whole[i - width] || whole[i + width])) grown[i] = 1;
    const path = (mask: Uint8Array, tone: 0 | 1 | 2): string => {
      const d = outlinesOf(mask, width, height).map(roundedPath).join('');
      return d && `<path fill="${toned(palette[ink], tone, grey)}" d="${d}"/>`;
    };
    return path(grown, 1) + path(tones[0], 0) + path(tones[1], 2);
  }).join('');
}
