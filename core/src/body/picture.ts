/** One moment of a figure as a whole SVG file, in greys that survive a black-and-white printer. */
import type { View } from '../movement/vocabulary.js';
import { boundsOf, draw, type Box, type Tone } from './drawing.js';
import { frameAt, type Motion } from './motion.js';
import { MM_PER_CM } from './outline.js';

const INK: Readonly<Record<Exclude<Tone, 'line'>, string>> = {
  skin: '#a9a099',
  'skin-far': '#cfc9c4',
  top: '#4a4541',
  'top-far': '#8b8580',
  shorts: '#2b2725',
  'shorts-far': '#6a645f',
  hair: '#2b2725',
  shoe: '#2b2725',
  'shoe-far': '#6a645f',
  load: '#6a645f',
  prop: '#e1dcd7',
};

/** A whole SVG, as wide and high as its box in centimetres of the figure. */
export function pictureSvg(motion: Motion, seconds: number, view: View, box: Box = boundsOf(motion, view)): string {
  const shapes = draw(motion, frameAt(motion, seconds), view).map(({ d, tone, edge }) => {
    const rim = edge ? ' stroke="#ffffff" stroke-width="9"' : '';
    return tone === 'line'
      ? `<path d="${d}" fill="none" stroke="#4a4541" stroke-width="20"/>`
      : `<path d="${d}" fill="${INK[tone]}"${rim}/>`;
  });
  const { x, y, width, height } = box;
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${x} ${y} ${width} ${height}" width="${width}" height="${height}"><path d="M${x} 0.6H${x + width}" stroke="#b5aea8" stroke-width="1"/><g transform="scale(${1 / MM_PER_CM})">${shapes.join('')}</g></svg>`;
}
