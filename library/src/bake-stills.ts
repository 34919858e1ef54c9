/** `npm run stills -w library`: draws the stills of every figure anew. */
import { once } from 'node:events';
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { isMainThread, parentPort, Worker, workerData } from 'node:worker_threads';

import { boundsOf, keyTimes, motionOf, type Person, personFor, pictureSvg, readSkin } from '@waxwing/core/body';

import { loadFigures } from './figures.js';
import { loadLibrary } from './load.js';
import { FIGURES, SKINS, STARTER_FOLDER, STILLS } from './places.js';
import { madeFrom, stillsHash } from './still-sources.js';
import { startName } from './stills.js';

const skinOf = (build: Person['build']) => {
  const { buffer, byteOffset, byteLength } = readFileSync(SKINS[build]);
  return readSkin(buffer.slice(byteOffset, byteOffset + byteLength) as ArrayBuffer);
};

/** Draws every `of`-th movement from the `share`-th on. @returns bytes written */
function drawShare(share: number, of: number): number {
  const skins = { broad: skinOf('broad'), narrow: skinOf('narrow') };
  const drawn = loadFigures(FIGURES);
  let bytes = 0;
  loadLibrary(STARTER_FOLDER).forEach((movement, i) => {
    const figure = drawn.figures[movement.id];
    if (!figure || i % of !== share) return;
    const motion = motionOf(drawn, figure, movement, {}, movement.id);
    const times = keyTimes(motion);
    const box = boundsOf(motion, figure.view);
    const draw = (name: string, seconds: number): void => {
      const svg = pictureSvg({ motion, seconds, view: figure.view, skin: skins[personFor(movement.id).build], box });
      bytes += svg.length;
      writeFileSync(join(STILLS, `${name}.svg`), svg);
    };
    draw(movement.id, times.at(-1) ?? 0);
    // A rep has a start beside its far end.
    if (figure.end) draw(startName(movement.id), 0);
  });
  return bytes;
}

if (isMainThread) {
  const started = performance.now();
  rmSync(STILLS, { recursive: true, force: true });
  mkdirSync(STILLS);
  const of = availableParallelism();
  const shares = Array.from({ length: of }, async (_, share) => {
    const [bytes] = (await once(new Worker(new URL(import.meta.url), { workerData: { share, of } }), 'message')) as [
      number,
    ];
    return bytes;
  });
  const bytes = (await Promise.all(shares)).reduce((sum, one) => sum + one, 0);
  writeFileSync(madeFrom(STILLS), `${stillsHash()}\n`);
  console.log(
    `stills: ${(bytes / 1024 / 1024).toFixed(1)} MB in ${((performance.now() - started) / 1000).toFixed(0)} s`,
  );
} else {
  const { share, of } = workerData as { share: number; of: number };
  parentPort?.postMessage(drawShare(share, of));
}
