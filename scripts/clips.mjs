/** `npm run clips [list.json] [folder]`: films the figure for the clips that ship, or for those of another list. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

import { loadFigures, loadLibrary } from '@waxwing/library';

import { readJson, withFilm } from './film.mjs';
import { ROOT } from './prepare.mjs';

const [list = 'web/film/clips.json', folder = join(ROOT, 'web/public/clips')] = process.argv.slice(2);
const library = loadLibrary(join(ROOT, 'library/movements'));
const drawn = loadFigures(join(ROOT, 'library/figures'));
const ROUNDS = 5;

mkdirSync(folder, { recursive: true });
await withFilm(async (page) => {
  for (const { file, movement: id, view, fault, trouble = 'none', speed = 1 } of readJson(list)) {
    const movement = library.find((one) => one.id === id);
    if (!movement) throw new Error(`there is no ${id}`);
    const base64 = await page.evaluate(
      async (scene) => {
        const bytes = await /** @type {{ film: { record: (scene: unknown) => Promise<Uint8Array> } }} */ (
          /** @type {unknown} */ (globalThis)
        ).film.record(scene);
        return btoa(Array.from(bytes, (byte) => String.fromCharCode(byte)).join(''));
      },
      {
        library: drawn,
        movement,
        faults: fault ? { [fault]: 1 } : {},
        view,
        looks: null,
        rounds: ROUNDS,
        speed,
        rate: 20,
        trouble,
      },
    );
    const bytes = Buffer.from(base64, 'base64');
    writeFileSync(join(folder, `${file}.webm`), bytes);
    console.log(`${file}.webm ${Math.round(bytes.length / 1000)} kB`);
  }
});
