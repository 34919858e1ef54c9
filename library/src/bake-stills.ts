/** `npm run stills -w library`: draws the still of every figure anew. */
import { keyTimes, motionOf, pictureSvg, personFor, readSkin, type Person } from '@waxwing/core/body';
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { loadFigures } from './figures.js';
import { loadLibrary } from './load.js';
import { FIGURES, SKINS, STARTER_FOLDER, STILLS } from './places.js';
import { madeFrom, stillsHash } from './still-sources.js';

const skinOf = (build: Person['build']) => {
  const { buffer, byteOffset, byteLength } = readFileSync(SKINS[build]);
  return readSkin(buffer.slice(byteOffset, byteOffset + byteLength) as ArrayBuffer);
};

const skins = { broad: skinOf('broad'), narrow: skinOf('narrow') };
const drawn = loadFigures(FIGURES);
const started = performance.now();
rmSync(STILLS, { recursive: true, force: true });
mkdirSync(STILLS);
let bytes = 0;
for (const movement of loadLibrary(STARTER_FOLDER)) {
  const figure = drawn.figures[movement.id];
  if (!figure) continue;
  const motion = motionOf(drawn, figure, movement, {}, movement.id);
  const svg = pictureSvg({
    motion,
    seconds: keyTimes(motion).at(-1) ?? 0,
    view: figure.view,
    skin: skins[personFor(movement.id).build],
  });
  bytes += svg.length;
  writeFileSync(join(STILLS, `${movement.id}.svg`), svg);
}
writeFileSync(madeFrom(STILLS), `${stillsHash()}\n`);
console.log(`stills: ${(bytes / 1024 / 1024).toFixed(1)} MB in ${((performance.now() - started) / 1000).toFixed(0)} s`);
