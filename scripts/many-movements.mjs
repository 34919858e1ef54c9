/** A library much larger than the starter library, to measure with. */
import { join } from 'node:path';

import { ROOT } from './prepare.mjs';

const { loadLibrary } = await import('@waxwing/library');

export const MANY = 5_000;
export const starter = loadLibrary(join(ROOT, 'library/movements'));

/**
 * A library of `size` movements: the starter library over and over, each copy with ladders of its own.
 * @param {number} size
 */
const library = (size) =>
  Array.from({ length: size }, (_, i) => {
    const movement = starter[i % starter.length];
    if (!movement) throw new Error('the starter library is empty');
    const copy = (/** @type {string} */ id) => `${id}-${Math.floor(i / starter.length)}`;
    const known = (/** @type {{ to: string }} */ { to }) =>
      starter.findIndex((m) => m.id === to) + Math.floor(i / starter.length) * starter.length < size;
    return {
      ...movement,
      id: copy(movement.id),
      name: `${movement.name} ${Math.floor(i / starter.length)}`,
      links: movement.links.filter(known).map((link) => ({ ...link, to: copy(link.to) })),
      faults: movement.faults.map((fault) => ({
        ...fault,
        corrections: fault.corrections.filter((c) => c.kind !== 'swap'),
      })),
    };
  });

export const many = library(MANY);
